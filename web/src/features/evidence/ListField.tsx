import { Trans } from '@lingui/react/macro'
import { useId, useState } from 'react'

type Props = {
  label: string
  written: string
  hint: string
  unit: string
  read: (text: string) => unknown[] | null
  onChange: (values: unknown[] | null) => void
  disabled?: boolean
  path: string
}

/** Several numbers in one line. What was typed stays until it is understood. */
export function ListField({ label, written, hint, unit, read, onChange, disabled, path }: Props) {
  const id = useId()
  const [text, setText] = useState<string | null>(null)
  const wrong = text !== null && text.trim() !== '' && read(text) === null
  const leave = () => {
    if (text === null) return
    if (text.trim() === '') onChange(null)
    else {
      const values = read(text)
      if (values === null) return
      onChange(values)
    }
    setText(null)
  }
  return (
    <div className="min-w-0">
      <div className="flex items-baseline gap-1.5">
        <input
          aria-label={label}
          aria-invalid={wrong || undefined}
          aria-describedby={wrong ? `${id}-note` : undefined}
          data-path={path}
          className={`field px-1.5 py-0.5 ${wrong ? 'border-breach!' : ''}`}
          value={text ?? written}
          placeholder={hint}
          disabled={disabled}
          autoComplete="off"
          spellCheck={false}
          onChange={(event) => setText(event.target.value)}
          onBlur={leave}
          onKeyDown={(event) => {
            if (event.key === 'Enter') {
              event.preventDefault()
              leave()
            }
            if (event.key === 'Escape' && text !== null) {
              event.stopPropagation()
              setText(null)
            }
          }}
        />
        <span className="w-10 shrink-0 text-[12px] text-steel2">{unit}</span>
      </div>
      {wrong && (
        <div id={`${id}-note`} role="alert" className="mt-0.5 text-[12px] text-breach">
          <Trans>Part the numbers with semicolons: {hint}</Trans>
        </div>
      )}
    </div>
  )
}
