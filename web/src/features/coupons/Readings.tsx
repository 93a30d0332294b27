import { t } from '@lingui/core/macro'
import { Trans } from '@lingui/react/macro'
import { useState } from 'react'
import type { Coupon } from '../../api/types'
import { useUnits } from '../../session/units'
import { Button } from '../../ui/Button'
import { QuantityField } from '../../ui/QuantityField'
import { TextField } from '../../ui/TextField'
import { useSavePiece } from './useSavePiece'
import { Props, Typed } from './AtTheBooth'

export function PersonField({
  coupon,
  role,
  words,
  disabled,
}: {
  coupon: Coupon
  role: string
  words: string
  disabled: boolean
}) {
  const who = coupon.people.find((one) => one.role === role)
  const save = useSavePiece(coupon.id)
  const put = (text: string | null) => {
    const [name, ...organisation] = (text ?? '').split(',').map((one) => one.trim())
    const at = who?.at ?? new Date().toISOString().slice(0, 16)
    save.mutate({
      people: (now) => [
        ...now.filter((one) => one.role !== role),
        ...(name ? [{ role, name, organisation: organisation.join(', ') || null, at }] : []),
      ],
    })
  }
  return (
    <Typed
      words={words}
      label={words}
      placeholder={t`name, organisation`}
      disabled={disabled}
      error={save.isError ? save.error.message : undefined}
      value={who ? [who.name, who.organisation].filter(Boolean).join(', ') : null}
      onSave={put}
    />
  )
}

export function Readings({ coupon, disabled, onSave }: Props) {
  const units = useUnits()
  const read = coupon.piece.preheat_readings
  const [temperature, setTemperature] = useState<number | null>(null)
  const [place, setPlace] = useState<string | null>(null)
  const [added, setAdded] = useState(0)
  return (
    <div>
      <span className="label">
        <Trans>Preheat readings</Trans>
      </span>
      <ul className="mb-1 flex flex-wrap gap-x-4">
        {read.map((one, index) => (
          <li key={index}>
            {units.value(one.temperature_c, 'temperature')} {units.unit('temperature')} {one.place} {one.at}{' '}
            {!disabled && (
              <button
                type="button"
                className="link"
                onClick={() =>
                  onSave((now) => ({ preheat_readings: now.preheat_readings.filter((_, at) => at !== index) }))
                }
              >
                <Trans>remove</Trans>
              </button>
            )}
          </li>
        ))}
      </ul>
      {!disabled && (
        <div className="grid grid-cols-[110px_minmax(0,1fr)_auto] gap-2">
          <QuantityField
            key={added}
            label={t`Temperature read`}
            kind="temperature"
            value={temperature}
            onChange={setTemperature}
          />
          <TextField
            label={t`Where it was read`}
            placeholder={t`where, such as 75 mm beside the middle`}
            value={place}
            onChange={setPlace}
          />
          <Button
            disabled={temperature === null}
            onClick={() => {
              if (temperature === null) return
              const made = { temperature_c: temperature, place, at: new Date().toTimeString().slice(0, 5) }
              onSave((now) => ({ preheat_readings: [...now.preheat_readings, made] }))
              setTemperature(null)
              setPlace(null)
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
