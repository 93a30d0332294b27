import { useId } from 'react'

import { useUnits } from '../app/units'
import { gasText } from '../domain/procedure'
import { useReading } from './useReading'

type Props = {
  label: string
  value: Record<string, number> | null | undefined
  onChange: (value: Record<string, number> | null) => void
  path?: string
  disabled?: boolean
}

/** A shielding gas, typed as people write it: Ar+18CO2, C25, CO2. */
export function GasField({ label, value, onChange, path, disabled }: Props) {
  const id = useId()
  const { system } = useUnits()
  const reading = useReading({
    kind: 'flow',
    as: 'gas',
    system,
    onEmpty: () => onChange(null),
    onRead: (result) => {
      if (result.components_percent) onChange(result.components_percent)
    },
  })
  return (
    <div className="min-w-0">
      <input
        id={id}
        aria-label={label}
        aria-invalid={reading.error ? true : undefined}
        aria-describedby={reading.error ? `${id}-note` : undefined}
        data-path={path}
        className={`field ${reading.error ? 'border-breach!' : ''}`}
        value={reading.text ?? gasText(value)}
        placeholder="Ar+18CO2"
        disabled={disabled}
        autoComplete="off"
        spellCheck={false}
        onChange={(event) => reading.type(event.target.value)}
        onBlur={() => void reading.leave()}
        onKeyDown={(event) => {
          if (event.key === 'Enter') void reading.leave()
          if (event.key === 'Escape') reading.revert()
        }}
      />
      {reading.error && (
        <div id={`${id}-note`} role="alert" className="mt-0.5 text-[12px] text-breach">
          {reading.error}
        </div>
      )}
    </div>
  )
}
