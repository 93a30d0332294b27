import { useId } from 'react'

import { namesOf } from './names'

type Props = {
  label: string
  value: string
  onChange: (value: string) => void
  /** Names that were typed before, the latest first. */
  offered: readonly string[]
  path: string
  error?: string | undefined
}
const MOST_OFFERED = 6

/** Names with commas between them; those of the latest entries are put in by a tap. */
export function NamesField({ label, value, onChange, offered, path, error }: Props) {
  const id = useId()
  const there = namesOf(value)
  const left = offered.filter((one) => !there.includes(one)).slice(0, MOST_OFFERED)
  return (
    <div className="min-w-0">
      <label className="label" htmlFor={id}>
        {label}
      </label>
      <input
        id={id}
        className={`field ${error ? 'border-breach!' : ''}`}
        data-path={path}
        autoComplete="off"
        value={value}
        aria-invalid={error ? true : undefined}
        aria-describedby={error ? `${id}-note` : undefined}
        onChange={(event) => onChange(event.target.value)}
      />
      {error && (
        <div id={`${id}-note`} role="alert" className="mt-0.5 text-[12px] text-breach">
          {error}
        </div>
      )}
      {left.length > 0 && (
        <div className="mt-1 flex flex-wrap gap-1">
          {left.map((one) => (
            <button
              key={one}
              type="button"
              className="min-h-7 rounded-sm border border-line bg-panel px-2 text-[13px] text-accent hover:border-edge"
              onClick={() => onChange([...there, one].join(', '))}
            >
              + {one}
            </button>
          ))}
        </div>
      )}
    </div>
  )
}
