import { t } from '@lingui/core/macro'
import { Listbox, ListboxButton, ListboxOption, ListboxOptions } from '@headlessui/react'

type Props<T extends string> = {
  label: string
  value: T | null | undefined
  options: readonly (readonly [string, string])[]
  onChange: (value: T | null) => void
  /** Word for nothing chosen; without it something is always chosen. */
  none?: string
  disabled?: boolean
  id?: string
  /** Path of the field in the document; findings put the cursor there. */
  path?: string
}

/** One of a few values. */
export function Choice<T extends string>({
  label,
  value,
  options,
  onChange,
  none,
  disabled = false,
  id,
  path,
}: Props<T>) {
  const all = none === undefined ? options : [['', none] as const, ...options]
  const current = options.find(([key]) => key === value)
  return (
    <Listbox
      value={value ?? ''}
      onChange={(next: string) => onChange(next === '' ? null : (next as T))}
      disabled={disabled}
    >
      <ListboxButton
        id={id}
        aria-label={label}
        data-path={path}
        className="field flex items-center justify-between gap-0.5 px-1.5! text-left"
      >
        <span className={`truncate ${current ? '' : 'text-steel2'}`}>{current?.[1] ?? value ?? none ?? t`choose`}</span>
        <svg width="9" height="9" viewBox="0 0 10 10" aria-hidden="true" className="shrink-0 text-steel2">
          <path d="M1 3l4 4 4-4" fill="none" stroke="currentColor" strokeWidth="1.5" />
        </svg>
      </ListboxButton>
      <ListboxOptions
        anchor="bottom start"
        className="panel z-50 max-h-72 min-w-(--button-width) overflow-auto py-1 focus:outline-none"
      >
        {all.map(([key, words]) => (
          <ListboxOption
            key={key}
            value={key}
            className="px-3 py-1 data-focus:bg-accent-soft data-selected:font-semibold"
          >
            {words}
          </ListboxOption>
        ))}
      </ListboxOptions>
    </Listbox>
  )
}
