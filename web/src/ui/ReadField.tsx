import { useId } from 'react'

import type { BalanceDial } from '../api/types'
import { useUnits } from '../session/units'
import { useReading, type ReadAs, type ReadResult } from './useReading'

type Props = {
  label: string
  as: ReadAs
  /** The stored value as it is written; empty where there is none. */
  written: string
  onRead: (result: ReadResult) => void
  onEmpty: () => void
  path?: string | undefined
  disabled?: boolean
  placeholder?: string
  peakA?: number | undefined
  dial?: BalanceDial | undefined
  unit?: string
}

/** A line that the core reads: a gas, a cup, a background, a balance. What was typed stays until it is understood. */
export function ReadField({
  label,
  as,
  written,
  onRead,
  onEmpty,
  path,
  disabled,
  placeholder,
  peakA,
  dial,
  unit,
}: Props) {
  const id = useId()
  const { system } = useUnits()
  const reading = useReading({ kind: 'flow', as, system, peakA, dial, onEmpty, onRead })
  const note = reading.error ?? reading.understood
  return (
    <div className="min-w-0">
      <div className="flex items-baseline gap-1.5">
        <input
          id={id}
          aria-label={label}
          aria-invalid={reading.error ? true : undefined}
          aria-describedby={note ? `${id}-note` : undefined}
          data-path={path}
          className={`field ${reading.error ? 'border-breach!' : ''}`}
          value={reading.text ?? written}
          placeholder={placeholder}
          disabled={disabled}
          autoComplete="off"
          spellCheck={false}
          onChange={(event) => reading.type(event.target.value)}
          onBlur={() => void reading.leave()}
          onKeyDown={(event) => {
            if (event.key === 'Enter') {
              event.preventDefault()
              void reading.leave()
            }
            if (event.key === 'Escape') reading.revert()
          }}
        />
        {unit && <span className="w-10 shrink-0 text-[12px] text-steel2">{unit}</span>}
      </div>
      {note && (
        <div
          id={`${id}-note`}
          role={reading.error ? 'alert' : undefined}
          className={`mt-0.5 text-[12px] ${reading.error ? 'text-breach' : 'text-steel2'}`}
        >
          {note}
        </div>
      )}
    </div>
  )
}
