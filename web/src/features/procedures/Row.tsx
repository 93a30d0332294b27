import type { ReactNode } from 'react'

/** A label and its field, two cells of the panel's grid. */
export function Row({ words, children }: { words: string; children: ReactNode }) {
  return (
    <>
      <span className="label">{words}</span>
      <div className="min-w-0">{children}</div>
    </>
  )
}
