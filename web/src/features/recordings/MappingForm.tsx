import { t } from '@lingui/core/macro'
import { Trans } from '@lingui/react/macro'
import { useMutation, useQueryClient } from '@tanstack/react-query'
import { useState } from 'react'

import { api, unwrap } from '../../api/client'
import type { Mapping, Recording } from '../../api/types'
import { Button } from '../../ui/Button'
import { Choice } from '../../ui/Choice'

type Channel = 'time' | 'voltage' | 'current' | 'wire_feed' | 'gas'
type Unit = Mapping['voltage']['unit']
const CHANNELS: { key: Channel; words: string; units: Unit[]; needed: boolean }[] = [
  { key: 'time', words: t`Time`, units: ['s', 'ms', 'us', 'min', 'clock'], needed: false },
  { key: 'voltage', words: t`Voltage`, units: ['V', 'mV', '1'], needed: true },
  { key: 'current', words: t`Current`, units: ['A', 'mA', 'kA', '1'], needed: true },
  { key: 'wire_feed', words: t`Wire feed`, units: ['m/min', 'in/min'], needed: false },
  { key: 'gas', words: t`Gas flow`, units: ['L/min', 'cfh'], needed: false },
]

/** Which column is what; the answer is remembered for the recorder. */
export function MappingForm({ recording, onDone }: { recording: Recording; onDone: () => void }) {
  const queries = useQueryClient()
  const { guess } = recording
  const before = recording.mapping ?? guess?.mapping ?? null
  const [chosen, setChosen] = useState<Record<Channel, { column: string | null; unit: Unit; scale: string }>>(() => {
    const of = (key: Channel, unit: Unit) => ({
      column: before?.[key]?.column ?? null,
      unit: before?.[key]?.unit ?? unit,
      scale: String(before?.[key]?.scale ?? 1),
    })
    return {
      time: of('time', 's'),
      voltage: of('voltage', 'V'),
      current: of('current', 'A'),
      wire_feed: of('wire_feed', 'm/min'),
      gas: of('gas', 'L/min'),
    }
  })
  const [rate, setRate] = useState(before?.sample_rate_hz ? String(before.sample_rate_hz) : '')
  const save = useMutation({
    mutationFn: () => {
      const column = (key: Channel) => {
        const one = chosen[key]
        return one.column === null
          ? null
          : {
              column: one.column,
              unit: one.unit,
              scale: Number(one.scale.replace(',', '.')) || 1,
              offset: before?.[key]?.offset ?? 0,
            }
      }
      const [voltage, current] = [column('voltage'), column('current')]
      if (!voltage || !current) throw new Error('Choose the columns of voltage and current.')
      const mapping: Mapping = {
        delimiter: guess?.delimiter ?? ',',
        decimal: guess?.decimal ?? '.',
        encoding: guess?.encoding ?? 'utf-8',
        header_line: guess?.header_line ?? 0,
        first_line: guess?.first_line ?? 1,
        time: column('time'),
        sample_rate_hz: chosen.time.column === null && rate ? Number(rate.replace(',', '.')) : null,
        voltage,
        current,
        wire_feed: column('wire_feed'),
        gas: column('gas'),
      }
      return unwrap(
        api.POST('/api/recordings/{recording_id}/mapping', {
          params: { path: { recording_id: recording.id } },
          body: { version: recording.version, mapping },
        }),
      )
    },
    onSuccess: (found) => {
      queries.setQueryData(['recording', recording.id], found)
      if (found.status === 'ready') onDone()
    },
  })
  if (!guess) return null
  return (
    <form
      className="panel grid gap-3 p-3"
      aria-label={t`Columns`}
      onSubmit={(event) => {
        event.preventDefault()
        save.mutate()
      }}
    >
      <h2 className="text-[16px]">
        <Trans>Which column is what?</Trans>
      </h2>
      <div className="overflow-x-auto">
        <table className="text-[13px] tabular-nums">
          <thead className="label text-left">
            <tr>
              {guess.names.map((name) => (
                <th key={name} className="pr-4 font-medium">
                  {name}
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {guess.rows.slice(0, 4).map((row, at) => (
              <tr key={at}>
                {row.map((cell, column) => (
                  <td key={column} className="pr-4 whitespace-nowrap">
                    {cell}
                  </td>
                ))}
              </tr>
            ))}
          </tbody>
        </table>
      </div>
      <div className="grid grid-cols-[90px_minmax(0,220px)_110px_110px] max-sm:grid-cols-2 items-center gap-x-3 gap-y-1">
        <span />
        <span className="label">
          <Trans>Column</Trans>
        </span>
        <span className="label">
          <Trans>Unit</Trans>
        </span>
        <span className="label">
          <Trans>Times</Trans>
        </span>
        {CHANNELS.map(({ key, words, units, needed }) => (
          <Row key={key} words={words}>
            <Choice
              label={t`Column of ${words.toLowerCase()}`}
              value={chosen[key].column}
              options={guess.names.map((name) => [name, name] as const)}
              none={needed ? t`choose` : t`not there`}
              onChange={(column) => setChosen({ ...chosen, [key]: { ...chosen[key], column } })}
            />
            <Choice
              label={t`Unit of ${words.toLowerCase()}`}
              value={chosen[key].unit}
              options={units.map(
                (unit) => [unit, unit === '1' ? 'as it stands' : unit === 'clock' ? 'clock time' : unit] as const,
              )}
              onChange={(unit) => {
                if (unit) setChosen({ ...chosen, [key]: { ...chosen[key], unit } })
              }}
            />
            <input
              className="field"
              aria-label={t`Scale of ${words.toLowerCase()}`}
              inputMode="decimal"
              value={chosen[key].scale}
              onChange={(event) => setChosen({ ...chosen, [key]: { ...chosen[key], scale: event.target.value } })}
            />
          </Row>
        ))}
        {chosen.time.column === null && (
          <Row words={t`Rate`}>
            <input
              className="field"
              aria-label={t`Samples a second`}
              placeholder={t`samples a second`}
              inputMode="decimal"
              value={rate}
              onChange={(event) => setRate(event.target.value)}
            />
            <span className="text-[13px] text-steel2">
              <Trans>samples a second</Trans>
            </span>
            <span />
          </Row>
        )}
      </div>
      {save.isError && (
        <p role="alert" className="text-breach">
          {save.error.message}
        </p>
      )}
      <div className="flex gap-2">
        <Button look="main" type="submit" disabled={save.isPending}>
          {save.isPending ? t`Reading …` : t`Read it like this`}
        </Button>
        {recording.recorder && (
          <span className="self-center text-[13px] text-steel2">
            <Trans>Remembered for {recording.recorder}.</Trans>
          </span>
        )}
      </div>
    </form>
  )
}

function Row({ words, children }: { words: string; children: React.ReactNode }) {
  return (
    <>
      <span className="text-steel">{words}</span>
      {children}
    </>
  )
}
