import { t } from '@lingui/core/macro'
import { Trans } from '@lingui/react/macro'
import { useQuery } from '@tanstack/react-query'
import { useState } from 'react'

import type { Coupon } from '../../api/types'
import { useUnits } from '../../session/units'
import { Button } from '../../ui/Button'
import { Choice } from '../../ui/Choice'
import { QuantityField } from '../../ui/QuantityField'
import { TextField } from '../../ui/TextField'
import { recordsQuery } from '../../queries/library'
import { useSavePiece, type SavePiece } from './useSavePiece'

type Props = { coupon: Coupon; disabled: boolean; onSave: SavePiece }

/** Machine, batches, people, cleaning, preheat readings: what a record names beside the passes. */
export function AtTheBooth({ coupon, disabled, onSave }: Props) {
  const { piece } = coupon
  return (
    <div className="grid gap-2 pb-1 text-[14px]">
      <div className="grid grid-cols-[repeat(auto-fill,minmax(180px,1fr))] gap-x-3 gap-y-2">
        <Typed
          words={t`Welded on`}
          label={t`Welded on`}
          placeholder="2026-11-26"
          value={piece.welded_on}
          disabled={disabled}
          onSave={(welded_on) => onSave(() => ({ welded_on }))}
        />
        <MachineFields coupon={coupon} disabled={disabled} onSave={onSave} />
        <Typed
          words={t`Cleaning`}
          label={t`Cleaning`}
          placeholder={t`how, how wide`}
          value={piece.fit_up?.cleaning}
          disabled={disabled}
          onSave={(cleaning) => onSave((now) => ({ fit_up: { ...now.fit_up, cleaning } }))}
        />
        <PersonField coupon={coupon} role="welder" words={t`Welder`} disabled={disabled} />
        <PersonField coupon={coupon} role="witness" words={t`Witness`} disabled={disabled} />
      </div>
      <Batches coupon={coupon} disabled={disabled} onSave={onSave} />
      <Readings coupon={coupon} disabled={disabled} onSave={onSave} />
    </div>
  )
}

type TypedProps = {
  words: string
  label: string
  placeholder?: string
  value: string | null | undefined
  disabled: boolean
  error?: string | undefined
  onSave: (value: string | null) => void
}

/** A text that is saved when its field is left. */
function Typed({ words, label, placeholder, value, disabled, error, onSave }: TypedProps) {
  const [text, setText] = useState<string | null>(null)
  return (
    <div
      onBlur={() => {
        if (text !== null && (text || null) !== (value ?? null)) onSave(text || null)
        setText(null)
      }}
    >
      <span className="label">{words}</span>
      <TextField
        label={label}
        value={text ?? value ?? null}
        disabled={disabled}
        error={error}
        onChange={(next) => setText(next ?? '')}
        {...(placeholder ? { placeholder } : {})}
      />
    </div>
  )
}

function MachineFields({ coupon, disabled, onSave }: Props) {
  const machines = useQuery(recordsQuery('machine'))
  const machine = coupon.piece.machine
  const due = (name: string) => {
    const found = machines.data?.find((one) => one.name === name)?.document
    const days =
      found && 'meters' in found
        ? found.meters.map((one) => one.due_on).filter((day): day is string => Boolean(day))
        : []
    return days.toSorted()[0] ?? null
  }
  const names = [...new Set([...(machines.data ?? []).map((one) => one.name), ...(machine ? [machine.name] : [])])]
  return (
    <>
      <div>
        <span className="label">
          <Trans>Machine</Trans>
        </span>
        <Choice
          label={t`Machine`}
          value={machine?.name ?? null}
          none={t`not stated`}
          options={names.map((name) => [name, name] as const)}
          disabled={disabled}
          onChange={(name) =>
            onSave((now) => ({
              machine: name
                ? {
                    name,
                    calibrated_until: due(name) ?? (now.machine?.name === name ? now.machine.calibrated_until : null),
                  }
                : null,
            }))
          }
        />
      </div>
      <Typed
        words={t`Meters calibrated until`}
        label={t`Meters calibrated until`}
        placeholder="2027-03-31"
        value={machine?.calibrated_until}
        disabled={disabled || !machine}
        onSave={(calibrated_until) =>
          onSave((now) => ({ machine: now.machine ? { ...now.machine, calibrated_until } : null }))
        }
      />
    </>
  )
}

const KINDS = [
  ['filler', t`filler`],
  ['gas', t`gas`],
] as const

function Batches({ coupon, disabled, onSave }: Props) {
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

function PersonField({
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

function Readings({ coupon, disabled, onSave }: Props) {
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
