import type { ReactNode } from 'react'

/** A field below its name; ``wide`` takes two columns of a grid. */
export function Labelled({ words, wide = false, children }: { words: string; wide?: boolean; children: ReactNode }) {
  return (
    <div className={`min-w-0 ${wide ? 'col-span-2' : ''}`}>
      <span className="label">{words}</span>
      {children}
    </div>
  )
}
