import type { ReactNode } from 'react'

export type FormProps<T> = { document: T; put: (changes: Partial<T>) => void; errors: ReadonlyMap<string, string> }

/** A labelled field of a form. */
export function Labelled({ words, children, wide = false }: { words: string; children: ReactNode; wide?: boolean }) {
  return (
    <div className={`min-w-0 ${wide ? 'col-span-2' : ''}`}>
      <span className="label">{words}</span>
      {children}
    </div>
  )
}

/** One of several like parts, with a way to take it away. */
export function Piece({ title, onRemove, children }: { title: string; onRemove?: () => void; children: ReactNode }) {
  return (
    <fieldset className="mt-2 border border-hair p-2">
      <legend className="px-1 font-head text-[14px] font-semibold">
        {title}
        {onRemove && <button type="button" className="link ml-3 text-[12px] font-normal" onClick={onRemove}>remove</button>}
      </legend>
      {children}
    </fieldset>
  )
}

/** A list with one place changed, or taken away where there is nothing to put. */
export function changed<T>(list: readonly T[], index: number, next: T | null): T[] {
  return next === null ? list.filter((_, at) => at !== index) : list.map((one, at) => (at === index ? next : one))
}
