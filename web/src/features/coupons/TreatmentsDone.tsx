import { t } from '@lingui/core/macro'
import { Trans } from '@lingui/react/macro'
import { useState } from 'react'

import type { Coupon, Range } from '../../api/types'
import { useUnits } from '../../session/units'
import { Button } from '../../ui/Button'
import { Choice } from '../../ui/Choice'
import { QuantityField } from '../../ui/QuantityField'
import { TextField } from '../../ui/TextField'
import type { SavePiece } from './useSavePiece'

const KINDS = [
  ['hydrogen-post-heat', t`hydrogen post-heat`],
  ['pwht', t`post-weld heat treatment`],
] as const
type Kind = (typeof KINDS)[number][0]

/** Heat treatments as they were done, from the chart. */
export function TreatmentsDone({ coupon, disabled, onSave }: { coupon: Coupon; disabled: boolean; onSave: SavePiece }) {
  const units = useUnits()
  const done = coupon.piece.treatments_done
  const planned = [
    coupon.procedure.thermal?.post_heat && t`hydrogen post-heat`,
    coupon.procedure.thermal?.pwht && t`post-weld heat treatment`,
  ].filter(Boolean)
  const [kind, setKind] = useState<Kind>('hydrogen-post-heat')
  const [hold, setHold] = useState<Range | null>(null)
  const [minutes, setMinutes] = useState('')
  const [chart, setChart] = useState<string | null>(null)
  const [added, setAdded] = useState(0)
  const time = /^\d+(\.\d+)?$/.test(minutes.trim()) ? Number(minutes) : null
  return (
    <div className="grid gap-2 pb-1 text-[14px]">
      {planned.length > 0 && (
        <p className="text-steel2">
          <Trans>Planned: {planned.join(', ')}.</Trans>
        </p>
      )}
      <ul>
        {done.map((one, index) => (
          <li key={index}>
            {KINDS.find(([key]) => key === one.kind)?.[1]}:{' '}
            {one.hold_c
              ? `${units.range(one.hold_c, 'temperature')} ${units.unit('temperature')}`
              : t`temperature not read`}
            {one.hold_min != null && t`, ${one.hold_min} min`} {one.chart && `(${one.chart})`} {one.started_at}{' '}
            {!disabled && (
              <button
                type="button"
                className="link"
                onClick={() =>
                  onSave((now) => ({ treatments_done: now.treatments_done.filter((_, at) => at !== index) }))
                }
              >
                <Trans>remove</Trans>
              </button>
            )}
          </li>
        ))}
      </ul>
      {!disabled && (
        <div className="grid grid-cols-[repeat(auto-fill,minmax(150px,1fr))] items-end gap-2">
          <Choice
            label={t`Treatment`}
            value={kind}
            options={KINDS}
            onChange={(next) => {
              if (next) setKind(next as Kind)
            }}
          />
          <QuantityField
            key={added}
            mode="range"
            label={t`Holding temperature`}
            kind="temperature"
            placeholder={t`held at`}
            value={hold}
            onChange={setHold}
          />
          <input
            className="field"
            aria-label={t`Holding time in minutes`}
            placeholder={t`minutes`}
            inputMode="decimal"
            value={minutes}
            onChange={(event) => setMinutes(event.target.value)}
          />
          <TextField label={t`Chart`} placeholder={t`chart or file`} value={chart} onChange={setChart} />
          <Button
            disabled={!hold || time === null}
            onClick={() => {
              const made = {
                kind,
                hold_c: hold,
                hold_min: time,
                chart,
                started_at: new Date().toISOString().slice(0, 16),
              }
              onSave((now) => ({ treatments_done: [...now.treatments_done, made] }))
              setHold(null)
              setMinutes('')
              setChart(null)
              setAdded(added + 1)
            }}
          >
            <Trans>Add</Trans>
          </Button>
        </div>
      )}
    </div>
  )
}
