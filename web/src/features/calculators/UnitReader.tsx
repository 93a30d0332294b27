import { t } from '@lingui/core/macro'
import { Trans } from '@lingui/react/macro'
import { keepPreviousData, useQuery } from '@tanstack/react-query'
import { useState } from 'react'

import { useUnits } from '../../session/units'
import { shown as inUnit, unitOf } from '../../domain/quantity'
import { Choice } from '../../ui/Choice'
import { TextField } from '../../ui/TextField'
import { useSettled } from '../../ui/useSettled'
import { Card, Spellings } from './Card'
import { readQuery } from '../../queries/calculators'

const KINDS: readonly [string, string][] = [
  ['length', t`a length`],
  ['thickness', t`a thickness, steel gauge`],
  ['wire_diameter', t`a wire size`],
  ['diameter', t`a pipe`],
  ['travel', t`a travel speed`],
  ['wire_feed', t`a wire feed`],
  ['flow', t`a gas flow`],
  ['temperature', t`a temperature`],
  ['heat_input', t`a heat input`],
]

/** Any quantity as people say it, in both units. */
export function UnitReader() {
  const units = useUnits()
  const [text, setText] = useState<string | null>(null)
  const [kind, setKind] = useState('length')
  const asked = useSettled(text ?? '')
  const found = useQuery({ ...readQuery(asked, kind, units.system), placeholderData: keepPreviousData, retry: false })
  const answer = asked.trim() && !found.isError ? found.data : undefined
  const shown = units.kind(kind)
  // More figures than a field shows: here they are what was asked for.
  const both = (value: number) =>
    (['si', 'us'] as const).map(
      (system) => `${String(Number(inUnit(value, shown, system).toPrecision(6)))} ${unitOf(shown, system)}`,
    )
  return (
    <Card title={t`Unit reader`}>
      <div className="grid grid-cols-[minmax(0,1fr)_190px] items-start gap-2 max-sm:grid-cols-1">
        <TextField
          label={t`Quantity`}
          value={text}
          onChange={setText}
          placeholder="3/32"
          error={asked.trim() && found.isError ? found.error.message : undefined}
        />
        <Choice label={t`What it is`} value={kind} options={KINDS} onChange={(next) => next && setKind(next)} />
      </div>
      {!asked.trim() && (
        <Spellings words={t`for example`} options={['3/32', '.045', '11ga', t`2in sch40`]} onTake={setText} />
      )}
      {answer && answer.value != null && (
        <p role="status" className="mt-2">
          <b className="font-head text-[20px]">{both(answer.value)[0]}</b>
          {both(answer.value)[1] !== both(answer.value)[0] && (
            <span className="ml-3 text-[16px]">{both(answer.value)[1]}</span>
          )}
          {answer.wall_mm != null && (
            <span className="ml-3 text-[14px]">
              <Trans>
                wall {units.value(answer.wall_mm, 'thickness')} {units.unit('thickness')}
              </Trans>
            </span>
          )}
          <span className="ml-3 text-[13px] text-steel2">
            <Trans>read as {answer.understood}</Trans>
          </span>
        </p>
      )}
    </Card>
  )
}
