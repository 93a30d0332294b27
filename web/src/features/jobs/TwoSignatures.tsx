import { Trans } from '@lingui/react/macro'

/** Whether a second person signs on records and releases of a job. */
export function TwoSignatures({ value, onChange }: { value: boolean; onChange: (value: boolean) => void }) {
  return (
    <label className="flex items-start gap-2 text-[14px]">
      <input type="checkbox" className="mt-1" checked={value} onChange={(event) => onChange(event.target.checked)} />
      <span>
        <Trans>
          Ask for two signatures
          <small className="block text-[12.5px] text-steel2">
            A record counts once a second person has witnessed it; whoever declares a procedure qualified does not
            release it as well.
          </small>
        </Trans>
      </span>
    </label>
  )
}

/** What a job asks of its records. */
