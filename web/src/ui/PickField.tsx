import { Combobox, ComboboxInput, ComboboxOption, ComboboxOptions } from '@headlessui/react'
import { useState } from 'react'

import { useSettled } from './useSettled'

/** One thing to pick: what it is called, what stands behind it, and what follows from it. */
export type Pick = { key: string; main: string; sub: string; side: string }

type Props = {
  label: string
  path?: string
  value: string | null | undefined
  placeholder?: string
  disabled?: boolean
  error?: string | undefined
  picks: readonly Pick[]
  /** What is being asked for, a moment after the last key; empty when nothing is. */
  onAsk: (text: string) => void
  onType: (text: string | null) => void
  onPick: (key: string) => void
}

/** A name typed freely, or picked from what it may mean. */
export function PickField({
  label,
  path,
  value,
  placeholder,
  disabled = false,
  error,
  picks,
  onAsk,
  onType,
  onPick,
}: Props) {
  const [asking, setAsking] = useState(false)
  const shown = asking ? picks : []
  return (
    <div className="min-w-0">
      <Combobox
        value={value ?? ''}
        disabled={disabled}
        onChange={(key: string | null) => {
          if (key !== null) onPick(key)
          setAsking(false)
          onAsk('')
        }}
      >
        <ComboboxInput
          aria-label={label}
          aria-invalid={error ? true : undefined}
          data-path={path}
          className={`field ${error ? 'border-breach!' : ''}`}
          placeholder={placeholder}
          autoComplete="off"
          spellCheck={false}
          displayValue={(text: string) => text}
          onBlur={() => setAsking(false)}
          onChange={(event) => {
            const text = event.target.value
            setAsking(text.trim() !== '')
            onAsk(text)
            onType(text === '' ? null : text)
          }}
        />
        {shown.length > 0 && (
          <ComboboxOptions
            anchor="bottom start"
            modal={false}
            className="panel z-50 max-h-72 w-96 max-w-[92vw] overflow-auto py-1 text-[13px] focus:outline-none"
          >
            {shown.map((one) => (
              <ComboboxOption
                key={one.key}
                value={one.key}
                className="flex justify-between gap-3 px-3 py-1 data-focus:bg-accent-soft"
              >
                <span className="min-w-0">
                  <b>{one.main}</b> <span className="text-steel2">{one.sub}</span>
                </span>
                <span className="shrink-0 text-right text-steel2">{one.side}</span>
              </ComboboxOption>
            ))}
          </ComboboxOptions>
        )}
      </Combobox>
      {error && (
        <div role="alert" className="mt-0.5 text-[12px] text-breach">
          {error}
        </div>
      )}
    </div>
  )
}

/** What is asked for, once the keys rest. */
export function useAsked(): [string, (text: string) => void] {
  const [asked, setAsked] = useState('')
  return [useSettled(asked), setAsked]
}
