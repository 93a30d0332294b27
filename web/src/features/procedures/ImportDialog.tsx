import { t } from '@lingui/core/macro'
import { Trans } from '@lingui/react/macro'
import { useMutation, useQueryClient } from '@tanstack/react-query'
import { useState } from 'react'
import { useNavigate } from 'react-router'

import { Refusal } from '../../api/client'
import { sendBytes } from '../../api/files'
import { Button } from '../../ui/Button'
import { Modal } from '../../ui/Modal'
import { TextField } from '../../ui/TextField'
import { fixed } from '../../session/language'

const LARGEST = 2_000_000

type Imported = { kind: string; id: number; number: string; unchanged: boolean }

/** The file goes to the server as it is, byte for byte. */
async function send(jobId: number, file: File, asNumber: string): Promise<Imported> {
  if (file.size > LARGEST)
    throw new Refusal(413, problem(t`${file.name} has ${fixed(file.size / 1e6, 1)} MB; a document has at most 2 MB.`))
  const query = asNumber ? `?as_number=${encodeURIComponent(asNumber)}` : ''
  return (await sendBytes(`/api/jobs/${String(jobId)}/import${query}`, file)) as Imported
}

function problem(detail: string) {
  return { type: '/problems/import', title: t`Not imported`, status: 0, detail, errors: [] }
}

export function ImportDialog({ jobId, open, onClose }: { jobId: number; open: boolean; onClose: () => void }) {
  const navigate = useNavigate()
  const queries = useQueryClient()
  const [file, setFile] = useState<File | null>(null)
  const [number, setNumber] = useState<string | null>(null)
  const bring = useMutation({
    mutationFn: ({ chosen }: { chosen: File }) => send(jobId, chosen, number ?? ''),
    onSuccess: (made) => {
      void queries.invalidateQueries()
      if (!made.unchanged) void navigate(`/${made.kind === 'coupon' ? 'coupons' : 'procedures'}/${String(made.id)}`)
    },
  })
  const refusal = bring.error instanceof Refusal ? bring.error : null
  const taken = refusal?.status === 409
  return (
    <Modal title={t`Import a procedure or a coupon`} open={open} onClose={onClose}>
      <form
        className="grid gap-3"
        onSubmit={(event) => {
          event.preventDefault()
          if (file) bring.mutate({ chosen: file })
        }}
      >
        <p className="text-steel">
          <Trans>A JSON file in the open format. It is taken whole, or refused whole with every mistake named.</Trans>
        </p>
        <input
          type="file"
          accept=".json,application/json"
          aria-label={t`File`}
          className="field"
          onChange={(event) => {
            setFile(event.target.files?.[0] ?? null)
            setNumber(null)
            bring.reset()
          }}
        />
        {taken && (
          <div>
            <span className="label">
              <Trans>Import under the number</Trans>
            </span>
            <TextField label={t`Import under the number`} value={number} onChange={setNumber} />
          </div>
        )}
        {bring.data?.unchanged && (
          <p role="status">
            <Trans>{bring.data.number} stands here already, with the same contents. Nothing was changed.</Trans>
          </p>
        )}
        {refusal && (
          <div role="alert" className="text-[13px] text-breach">
            <p>{refusal.message}</p>
            {refusal.body.errors.length > 0 && !taken && (
              <ul className="mt-1 max-h-48 list-disc overflow-auto pl-5">
                {refusal.body.errors.map((one, index) => (
                  <li key={index} className="[overflow-wrap:anywhere]">
                    <b>{one.path || 'file'}</b>: {one.message}
                    {one.value ? ` (${one.value})` : ''}
                  </li>
                ))}
              </ul>
            )}
          </div>
        )}
        <div className="flex justify-end gap-2">
          <Button onClick={onClose}>
            <Trans>Close</Trans>
          </Button>
          <Button look="main" type="submit" disabled={!file || bring.isPending}>
            <Trans>Import</Trans>
          </Button>
        </div>
      </form>
    </Modal>
  )
}
