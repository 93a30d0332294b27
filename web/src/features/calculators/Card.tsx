import { useId, type ReactNode } from 'react'

/** One calculator: its name and its answer. */
export function Card({ title, children }: { title: string; children: ReactNode }) {
  const id = useId()
  return (
    <section aria-labelledby={id} className="panel p-4">
      <h2 id={id} className="mb-2 text-[17px]">
        {title}
      </h2>
      {children}
    </section>
  )
}

/** A fact beside its name. */
export function Fact({ words, children }: { words: string; children: ReactNode }) {
  return (
    <div className="grid grid-cols-[112px_minmax(0,1fr)] gap-x-3 border-t border-hair py-1 text-[13px]">
      <dt className="label">{words}</dt>
      <dd className="min-w-0 [overflow-wrap:anywhere]">{children}</dd>
    </div>
  )
}

/** Other spellings to take with one press. */
export function Spellings({
  words,
  options,
  onTake,
}: {
  words: string
  options: readonly string[]
  onTake: (text: string) => void
}) {
  if (options.length === 0) return null
  return (
    <p className="mt-1.5 flex flex-wrap gap-x-3 gap-y-1 text-[13px]">
      <span className="text-steel2">{words}</span>
      {options.map((one) => (
        <button key={one} type="button" className="link" onClick={() => onTake(one)}>
          {one}
        </button>
      ))}
    </p>
  )
}
