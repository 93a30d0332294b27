import { t } from '@lingui/core/macro'
import { useMutation } from '@tanstack/react-query'

import { api, unwrap } from '../../api/client'
import type { Scan } from '../../api/types'

type Props = { memberId: number; scans: readonly Scan[]; onChange: (scans: Scan[]) => void; error?: string | undefined }

/** Scans of what is on paper; each is kept as it comes, with its digest. */
export function Scans({ memberId, scans, onChange, error }: Props) {
  const send = useMutation({
    mutationFn: (file: File) =>
      unwrap(
        api.POST('/api/crew/{member_id}/scans', {
          params: { path: { member_id: memberId }, query: { name: file.name } },
          body: file as never,
          bodySerializer: (body) => body as never,
          headers: { 'Content-Type': 'application/octet-stream' },
        }),
      ),
    onSuccess: (made) => onChange([...scans.filter((one) => one.id !== made.id), made]),
  })
  const said = error ?? send.error?.message
  return (
    <div>
      <label className="block">
        <span className="label">{t`Scans (PDF, JPEG or PNG)`}</span>
        <input
          type="file"
          className={`field ${said ? 'border-breach!' : ''}`}
          accept=".pdf,image/jpeg,image/png"
          onChange={(event) => {
            const file = event.target.files?.[0]
            if (file) send.mutate(file)
            event.target.value = ''
          }}
        />
      </label>
      {said && (
        <span role="alert" className="text-[12px] text-breach">
          {said}
        </span>
      )}
      <ul className="mt-1 text-[13px]" aria-live="polite">
        {send.isPending && <li>{t`Sending …`}</li>}
        {scans.map((one) => (
          <li key={one.id} className="flex items-baseline gap-2">
            <span className="min-w-0 truncate">{one.name}</span>
            <button
              type="button"
              className="link"
              onClick={() => onChange(scans.filter((other) => other.id !== one.id))}
            >
              {t`leave out`}
            </button>
          </li>
        ))}
      </ul>
    </div>
  )
}
