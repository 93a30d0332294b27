import { useId } from 'react'

type Props = {
  label: string
  value: string | null | undefined
  onChange: (value: string | null) => void
  path?: string
  error?: string | undefined
  disabled?: boolean
  placeholder?: string
  rows?: number
}

/** A line of text, or several. Too long or odd text is refused by the server beside the field. */
export function TextField({ label, value, onChange, path, error, disabled, placeholder, rows }: Props) {
  const id = useId()
  const common = {
    id,
    'aria-label': label,
    'aria-invalid': error ? true : undefined,
    'aria-describedby': error ? `${id}-note` : undefined,
    'data-path': path,
    className: `field ${error ? 'border-breach!' : ''}`,
    value: value ?? '',
    placeholder,
    disabled,
    onChange: (event: { target: { value: string } }) => onChange(event.target.value === '' ? null : event.target.value),
  }
  return (
    <div className="min-w-0">
      {rows ? <textarea {...common} rows={rows} /> : <input {...common} autoComplete="off" />}
      {error && (
        <div id={`${id}-note`} role="alert" className="mt-0.5 text-[12px] text-breach">
          {error}
        </div>
      )}
    </div>
  )
}
