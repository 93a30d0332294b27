import { Trans } from '@lingui/react/macro'

type Props = { value: string; onChange: (value: string) => void; error?: string | undefined; className?: string }

/** The password again, of whoever signs. */
export function PasswordField({ value, onChange, error, className = '' }: Props) {
  return (
    <label className={`block ${className}`}>
      <span className="label">
        <Trans>your password, again</Trans>
      </span>
      <input
        className={`field ${error ? 'border-breach!' : ''}`}
        type="password"
        autoComplete="current-password"
        aria-invalid={error ? true : undefined}
        value={value}
        onChange={(event) => onChange(event.target.value)}
      />
    </label>
  )
}
