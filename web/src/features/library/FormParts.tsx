import { Trans } from '@lingui/react/macro'
import type { ReactNode } from 'react'

/** A change from what stands by then: two answers of the core may come while one page still stands. */
export type Put<T> = (changes: Partial<T> | ((before: T) => Partial<T>)) => void
export type FormProps<T> = { document: T; put: Put<T>; errors: ReadonlyMap<string, string> }

/** One of several like parts, with a way to take it away. */
export function Piece({ title, onRemove, children }: { title: string; onRemove?: () => void; children: ReactNode }) {
  return (
    <fieldset className="mt-2 border border-hair p-2">
      <legend className="px-1 font-head text-[14px] font-semibold">
        {title}
        {onRemove && (
          <button type="button" className="link ml-3 text-[12px] font-normal" onClick={onRemove}>
            <Trans>remove</Trans>
          </button>
        )}
      </legend>
      {children}
    </fieldset>
  )
}

/** A list with one place changed. */
export function changed<T>(list: readonly T[], index: number, change: (one: T) => T): T[] {
  return list.map((one, at) => (at === index ? change(one) : one))
}

/** A list without one place. */
export function without<T>(list: readonly T[], index: number): T[] {
  return list.filter((_, at) => at !== index)
}
