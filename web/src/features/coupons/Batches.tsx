import { t } from '@lingui/core/macro'
import { Trans } from '@lingui/react/macro'
import { useState } from 'react'
import { Button } from '../../ui/Button'
import { Choice } from '../../ui/Choice'
import { TextField } from '../../ui/TextField'
import { Props } from './AtTheBooth'

const KINDS = [
  ['filler', t`filler`],
  ['gas', t`gas`],
] as const

export function Batches({ coupon, disabled, onSave }: Props) {
  const { batches } = coupon.piece
  const [kind, setKind] = useState<'filler' | 'gas'>('filler')
  const [batch, setBatch] = useState<string | null>(null)
  const [certificate, setCertificate] = useState<string | null>(null)
  return (
    <div>
      <span className="label">
        <Trans>Filler batches and gas bottles</Trans>
      </span>
      <ul className="mb-1 flex flex-wrap gap-x-4">
        {batches.map((one, index) => (
          <li key={index}>
            {one.kind} {one.designation} <b>{one.batch}</b>{' '}
            {one.certificate ? (
              t`(certificate ${one.certificate})`
            ) : (
              <span className="text-steel2">
                <Trans>no certificate</Trans>
              </span>
            )}{' '}
            {!disabled && (
              <button
                type="button"
                className="link"
                onClick={() => onSave((now) => ({ batches: now.batches.filter((_, at) => at !== index) }))}
              >
                <Trans>remove</Trans>
              </button>
            )}
          </li>
        ))}
      </ul>
      {!disabled && (
        <div className="grid grid-cols-[110px_minmax(0,1fr)_minmax(0,1fr)_auto] gap-2">
          <Choice
            label={t`Batch of`}
            value={kind}
            options={KINDS}
            onChange={(next) => {
              if (next) setKind(next)
            }}
          />
          <TextField label={t`Batch or bottle`} placeholder={t`batch`} value={batch} onChange={setBatch} />
          <TextField
            label={t`Certificate`}
            placeholder={t`certificate`}
            value={certificate}
            onChange={setCertificate}
          />
          <Button
            disabled={!batch?.trim()}
            onClick={() => {
              if (!batch) return
              const made = { kind, batch: batch.trim(), certificate: certificate?.trim() ?? null }
              onSave((now) => ({
                batches: [...now.batches.filter((one) => one.kind !== kind || one.batch !== made.batch), made],
              }))
              setBatch(null)
              setCertificate(null)
            }}
          >
            <Trans>Add</Trans>
          </Button>
        </div>
      )}
    </div>
  )
}
