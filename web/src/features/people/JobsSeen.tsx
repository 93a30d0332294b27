import { t } from '@lingui/core/macro'
import { Trans } from '@lingui/react/macro'

import { useJob } from '../../session/job'

type Props = {
  value: number[] | null
  error: string | undefined
  onChange: (value: number[] | null) => void
}

/** Whether a person sees all of the shop, or only the jobs that are ticked. */
export function JobsSeen({ value, error, onChange }: Props) {
  const { jobs = [] } = useJob()
  const tick = (id: number) =>
    onChange(value?.includes(id) ? value.filter((one) => one !== id) : [...(value ?? []), id])
  return (
    <fieldset className="grid gap-1.5">
      <legend className="mb-1 text-[13px] font-medium text-steel">{t`Sees`}</legend>
      <label className="flex items-center gap-2">
        <input type="radio" name="sees" checked={value === null} onChange={() => onChange(null)} />
        <Trans>all jobs and the whole shop</Trans>
      </label>
      <label className="flex items-center gap-2">
        <input type="radio" name="sees" checked={value !== null} onChange={() => onChange(value ?? [])} />
        <Trans>only these jobs (for somebody from outside)</Trans>
      </label>
      {value !== null && (
        <div className="ml-6 grid max-h-40 gap-1 overflow-y-auto">
          {jobs.map((job) => (
            <label key={job.id} className="flex min-h-6 items-center gap-2">
              <input type="checkbox" checked={value.includes(job.id)} onChange={() => tick(job.id)} />
              <span className="min-w-0 break-words">
                {job.number} {job.title}
              </span>
            </label>
          ))}
          {jobs.length === 0 && <span className="text-[13px] text-steel2">{t`There is no job yet.`}</span>}
        </div>
      )}
      {error && (
        <span role="alert" className="text-[12px] text-breach">
          {error}
        </span>
      )}
    </fieldset>
  )
}
