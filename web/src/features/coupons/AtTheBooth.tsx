import { t } from '@lingui/core/macro'
import { Trans } from '@lingui/react/macro'
import { useQuery } from '@tanstack/react-query'
import { useState } from 'react'

import type { Coupon } from '../../api/types'
import { Choice } from '../../ui/Choice'
import { TextField } from '../../ui/TextField'
import { recordsQuery } from '../../queries/library'
import { type SavePiece } from './useSavePiece'
import { Batches } from './Batches'
import { PersonField, Readings } from './Readings'

export type Props = { coupon: Coupon; disabled: boolean; onSave: SavePiece }

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
export function Typed({ words, label, placeholder, value, disabled, error, onSave }: TypedProps) {
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
