import { plural, t } from '@lingui/core/macro'
import { Trans } from '@lingui/react/macro'
import { queryOptions, useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import { useState } from 'react'

import { Refusal, api, unwrap } from '../../api/client'
import type { Trial, TrialRow } from '../../api/types'
import { useSession } from '../../session/session'
import { useUsage } from '../../session/terms'
import { useUnits } from '../../session/units'
import { gasText } from '../../domain/procedure'
import { POSITIONS, TRANSFERS, processOptions } from '../../domain/words'
import { Button } from '../../ui/Button'
import { Choice } from '../../ui/Choice'
import { GasField } from '../../ui/GasField'
import { Labelled } from '../../ui/Labelled'
import { Modal } from '../../ui/Modal'
import { Notice } from '../../ui/Notice'
import { QuantityField } from '../../ui/QuantityField'
import { TextField } from '../../ui/TextField'
import { Rows } from './Rows'
import { locale } from '../../session/language'

const trialsQuery = queryOptions({
  queryKey: ['trials'],
  queryFn: () => unwrap(api.GET('/api/trials')),
  staleTime: 5_000,
})

type Whole = TrialRow & { trial: Trial }
const isWhole = (one: TrialRow): one is Whole => one.trial !== null

/** Trials on scrap. Kept ones come first when the same is planned again. */
export function TrialsTab({ text }: { text: string }) {
  const { may } = useSession()
  const units = useUnits()
  const found = useQuery(trialsQuery)
  const [entering, setEntering] = useState(false)
  const [striking, setStriking] = useState<TrialRow | null>(null)
  const wanted = text.trim().toLowerCase().split(/\s+/).filter(Boolean)
  const damaged = (found.data ?? []).filter((one) => one.trial === null)
  const whole = (found.data ?? []).filter(isWhole)
  const rows = whole.filter((one) => {
    const { trial } = one
    const told = [
      trial.process,
      trial.position,
      trial.filler?.designation,
      trial.gas,
      trial.seen,
      trial.verdict,
      one.entered_by,
    ]
      .join(' ')
      .toLowerCase()
    return wanted.every((word) => told.includes(word))
  })
  const value = (number: number | null | undefined, kind: string) => (number == null ? '—' : units.value(number, kind))
  return (
    <>
      <div className="mb-2 flex items-center gap-4">
        <p role="status" className="text-[13px] text-steel2">
          {found.data ? plural(rows.length, { one: '# trial', other: '# trials' }) : ''}
        </p>
        {may('LOG_TRIAL') && (
          <Button className="ml-auto" onClick={() => setEntering(true)}>
            <Trans>Log a trial</Trans>
          </Button>
        )}
      </div>
      {found.isError && <Notice mark="breach">{found.error.message}</Notice>}
      {damaged.map((one) => (
        <Notice key={one.id} mark="breach" className="mb-2 text-[13px]">
          <Trans>
            A trial that {one.entered_by} entered on {new Date(one.entered_at).toLocaleDateString(locale())} is damaged.{' '}
            {one.damaged}
          </Trans>
        </Notice>
      ))}
      {found.data && rows.length === 0 && (
        <p className="panel p-6 text-steel">
          {found.data.length === 0
            ? t`No trial weld logged. Log what was set in a trial weld and what was seen: the next draft for the same wire, gas, position and thickness begins with it.`
            : t`No trial like that.`}
        </p>
      )}
      {rows.length > 0 && (
        <Rows
          label={t`Trials`}
          heads={[
            t`Process`,
            t`Tried on`,
            t`Filler`,
            t`Gas`,
            t`Position`,
            t`Thickness, ${units.unit('thickness')}`,
            'A',
            'V',
            t`Feed, ${units.unit('wire_feed')}`,
            t`Seen`,
            t`Verdict`,
          ]}
          lines={rows.map((one) => ({
            key: String(one.id),
            cells: [
              one.trial.process,
              one.trial.made_on ?? one.entered_at.slice(0, 10),
              `${one.trial.filler?.designation ?? '—'} ${one.trial.filler?.diameter_mm == null ? '' : units.value(one.trial.filler.diameter_mm, 'wire_diameter')}`,
              one.trial.gas ?? '—',
              one.trial.position,
              value(one.trial.thickness_mm, 'thickness'),
              value(one.trial.current_a, 'current'),
              value(one.trial.voltage_v, 'voltage'),
              value(one.trial.wire_feed_m_min, 'wire_feed'),
              one.trial.seen ?? '—',
              one.struck_because ? <s key="struck">{one.trial.verdict}</s> : one.trial.verdict,
            ],
            details: () => (
              <div className="text-[13px]">
                <p>
                  <Trans>
                    Entered by {one.entered_by}, {new Date(one.entered_at).toLocaleString(locale())}.
                  </Trans>
                  {one.trial.transfer ? t` Transfer ${one.trial.transfer.replaceAll('-', ' ')}.` : ''}
                  {one.trial.travel_mm_min == null
                    ? ''
                    : t` Travel ${units.value(one.trial.travel_mm_min, 'travel')} ${units.unit('travel')}.`}
                </p>
                {one.struck_because ? (
                  <p className="text-steel2">
                    <Trans>Struck: {one.struck_because}. It counts no more.</Trans>
                  </p>
                ) : (
                  may('LOG_TRIAL') && (
                    <button type="button" className="link" onClick={() => setStriking(one)}>
                      <Trans>Void it</Trans>
                    </button>
                  )
                )}
              </div>
            ),
          }))}
        />
      )}
      {entering && <EnterDialog onClose={() => setEntering(false)} />}
      {striking && <StrikeDialog row={striking} onClose={() => setStriking(null)} />}
    </>
  )
}

type Draft = Partial<Omit<Trial, 'filler' | 'verdict' | 'thickness_mm'>> & {
  thickness_mm?: number | null
  filler: NonNullable<Trial['filler']>
  verdict: Trial['verdict']
}

function EnterDialog({ onClose }: { onClose: () => void }) {
  const queries = useQueryClient()
  const usage = useUsage(null)
  const [trial, setTrial] = useState<Draft>({ filler: {}, verdict: 'kept' })
  const put = (changes: Partial<Draft>) => setTrial((before) => ({ ...before, ...changes }))
  const enter = useMutation({
    mutationFn: (document: Trial) => unwrap(api.POST('/api/trials', { body: { trial: document } })),
    onSuccess: () => {
      void queries.invalidateQueries({ queryKey: ['trials'] })
      void queries.invalidateQueries({ queryKey: ['propose'] })
      onClose()
    },
  })
  const { process, position, thickness_mm } = trial
  const whole: Trial | null =
    process && position && thickness_mm != null ? { ...trial, process, position, thickness_mm } : null
  const refusal = enter.error instanceof Refusal ? enter.error : null
  const errors = new Map(
    (refusal?.body.errors ?? []).map((one) => [one.path.split('.').slice(-1)[0] ?? '', one.message]),
  )
  return (
    <Modal title={t`Log a trial`} open onClose={onClose} wide>
      <form
        className="grid gap-3"
        onSubmit={(event) => {
          event.preventDefault()
          if (whole) enter.mutate(whole)
        }}
      >
        <div className="grid grid-cols-4 gap-x-3 gap-y-2">
          <Labelled words={t`Process`} wide>
            <Choice<Trial['process']>
              label={t`Process`}
              value={process}
              options={processOptions(usage)}
              onChange={(next) => next && put({ process: next })}
            />
          </Labelled>
          <Labelled words={t`Filler`}>
            <TextField
              label={t`Filler`}
              value={trial.filler.designation}
              onChange={(designation) => put({ filler: { ...trial.filler, designation } })}
              placeholder={t`ER70S-6`}
              error={errors.get('designation')}
            />
          </Labelled>
          <Labelled words={t`Diameter`}>
            <QuantityField
              label={t`Diameter`}
              kind="wire_diameter"
              value={trial.filler.diameter_mm}
              onChange={(diameter_mm) =>
                setTrial((before) => ({ ...before, filler: { ...before.filler, diameter_mm } }))
              }
            />
          </Labelled>
          <Labelled words={t`Gas`}>
            <GasField
              label={t`Gas`}
              value={null}
              onChange={(shares) => put({ gas: shares ? gasText(shares) : null })}
            />
          </Labelled>
          <Labelled words={t`Transfer`}>
            <Choice<NonNullable<Trial['transfer']>>
              label={t`Transfer`}
              value={trial.transfer}
              none={t`not stated`}
              options={TRANSFERS}
              onChange={(transfer) => put({ transfer })}
            />
          </Labelled>
          <Labelled words={t`Position`}>
            <Choice<Trial['position']>
              label={t`Position`}
              value={position}
              options={POSITIONS}
              onChange={(next) => next && put({ position: next })}
            />
          </Labelled>
          <Labelled words={t`Thickness`}>
            <QuantityField
              label={t`Thickness`}
              kind="thickness"
              metal="steel"
              value={thickness_mm}
              onChange={(next) => put({ thickness_mm: next })}
            />
          </Labelled>
          <Labelled words={t`Amps`}>
            <QuantityField
              label={t`Amps`}
              kind="current"
              value={trial.current_a}
              onChange={(current_a) => put({ current_a })}
              error={errors.get('current_a')}
            />
          </Labelled>
          <Labelled words={t`Volts`}>
            <QuantityField
              label={t`Volts`}
              kind="voltage"
              value={trial.voltage_v}
              onChange={(voltage_v) => put({ voltage_v })}
            />
          </Labelled>
          <Labelled words={t`Wire feed`}>
            <QuantityField
              label={t`Wire feed`}
              kind="wire_feed"
              value={trial.wire_feed_m_min}
              onChange={(wire_feed_m_min) => put({ wire_feed_m_min })}
            />
          </Labelled>
          <Labelled words={t`Travel`}>
            <QuantityField
              label={t`Travel`}
              kind="travel"
              value={trial.travel_mm_min}
              onChange={(travel_mm_min) => put({ travel_mm_min })}
            />
          </Labelled>
        </div>
        <div className="grid grid-cols-[minmax(0,1fr)_140px] gap-3">
          <Labelled words={t`What was seen`}>
            <TextField
              label={t`What was seen`}
              value={trial.seen}
              onChange={(seen) => put({ seen })}
              placeholder={t`even, toes wetted, no spatter`}
            />
          </Labelled>
          <Labelled words={t`Verdict`}>
            <Choice<Trial['verdict']>
              label={t`Verdict`}
              value={trial.verdict}
              options={[
                ['kept', t`kept`],
                ['rejected', t`rejected`],
              ]}
              onChange={(verdict) => verdict && put({ verdict })}
            />
          </Labelled>
        </div>
        {enter.isError && (
          <p role="alert" className="text-[13px] text-breach">
            {refusal
              ? refusal.body.errors.map((one) => one.message).join('; ') || refusal.message
              : enter.error.message}
          </p>
        )}
        <div className="flex items-center justify-end gap-2">
          {!whole && (
            <span className="mr-auto text-[13px] text-steel2">
              <Trans>Needed: process, position, thickness.</Trans>
            </span>
          )}
          <Button onClick={onClose}>
            <Trans>Not now</Trans>
          </Button>
          <Button look="main" type="submit" disabled={!whole || enter.isPending}>
            <Trans>Keep the trial</Trans>
          </Button>
        </div>
      </form>
    </Modal>
  )
}

function StrikeDialog({ row, onClose }: { row: TrialRow; onClose: () => void }) {
  const queries = useQueryClient()
  const [reason, setReason] = useState<string | null>(null)
  const strike = useMutation({
    mutationFn: () =>
      unwrap(
        api.POST('/api/trials/{entry_id}/strike', {
          params: { path: { entry_id: row.id } },
          body: { reason: reason ?? '' },
        }),
      ),
    onSuccess: () => {
      void queries.invalidateQueries({ queryKey: ['trials'] })
      void queries.invalidateQueries({ queryKey: ['propose'] })
      onClose()
    },
  })
  return (
    <Modal title={t`Void a trial`} open onClose={onClose}>
      <form
        className="grid gap-3"
        onSubmit={(event) => {
          event.preventDefault()
          strike.mutate()
        }}
      >
        <p className="text-steel">
          <Trans>It stays on record with the reason, and counts no more.</Trans>
        </p>
        <Labelled words={t`Why`}>
          <TextField
            label={t`Why`}
            value={reason}
            onChange={setReason}
            error={strike.isError ? strike.error.message : undefined}
          />
        </Labelled>
        <div className="flex justify-end gap-2">
          <Button onClick={onClose}>
            <Trans>Not now</Trans>
          </Button>
          <Button look="main" type="submit" disabled={strike.isPending}>
            <Trans>Void it</Trans>
          </Button>
        </div>
      </form>
    </Modal>
  )
}
