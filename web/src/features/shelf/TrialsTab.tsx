import { queryOptions, useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import { useState } from 'react'

import { Refusal, api, unwrap } from '../../api/client'
import type { Trial, TrialRow } from '../../api/types'
import { useSession } from '../../app/session'
import { useUsage } from '../../app/terms'
import { useUnits } from '../../app/units'
import { gasText } from '../../domain/procedure'
import { POSITIONS, TRANSFERS, processOptions } from '../../domain/words'
import { Button } from '../../ui/Button'
import { Choice } from '../../ui/Choice'
import { GasField } from '../../ui/GasField'
import { Labelled } from '../../ui/Labelled'
import { Modal } from '../../ui/Modal'
import { counted } from '../../ui/counted'
import { Notice } from '../../ui/Notice'
import { QuantityField } from '../../ui/QuantityField'
import { TextField } from '../../ui/TextField'
import { Rows } from './Rows'

const trialsQuery = queryOptions({ queryKey: ['trials'], queryFn: () => unwrap(api.GET('/api/trials')), staleTime: 5_000 })

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
    const told = [trial.process, trial.position, trial.filler?.designation, trial.gas, trial.seen, trial.verdict, one.entered_by].join(' ').toLowerCase()
    return wanted.every((word) => told.includes(word))
  })
  const value = (number: number | null | undefined, kind: string) => (number == null ? '—' : units.value(number, kind))
  return (
    <>
      <div className="mb-2 flex items-center gap-4">
        <p role="status" className="text-[13px] text-steel2">{found.data ? counted(rows.length, 'trial') : ''}</p>
        {may('LOG_TRIAL') && <Button className="ml-auto" onClick={() => setEntering(true)}>Log a trial</Button>}
      </div>
      {found.isError && <Notice mark="breach">{found.error.message}</Notice>}
      {damaged.map((one) => (
        <Notice key={one.id} mark="breach" className="mb-2 text-[13px]">
          A trial that {one.entered_by} entered on {new Date(one.entered_at).toLocaleDateString()} is damaged. {one.damaged}
        </Notice>
      ))}
      {found.data && rows.length === 0 && (
        <p className="panel p-6 text-steel">{found.data.length === 0 ? 'No trial weld logged. Log what was set in a trial weld and what was seen: the next draft for the same wire, gas, position and thickness begins with it.' : 'No trial like that.'}</p>
      )}
      {rows.length > 0 && (
        <Rows label="Trials" heads={['Process', 'Tried on', 'Filler', 'Gas', 'Position', `Thickness, ${units.unit('thickness')}`, 'A', 'V', `Feed, ${units.unit('wire_feed')}`, 'Seen', 'Verdict']}
          lines={rows.map((one) => ({
            key: String(one.id),
            cells: [
              one.trial.process, one.trial.made_on ?? one.entered_at.slice(0, 10),
              `${one.trial.filler?.designation ?? '—'} ${one.trial.filler?.diameter_mm == null ? '' : units.value(one.trial.filler.diameter_mm, 'wire_diameter')}`,
              one.trial.gas ?? '—', one.trial.position, value(one.trial.thickness_mm, 'thickness'), value(one.trial.current_a, 'current'), value(one.trial.voltage_v, 'voltage'),
              value(one.trial.wire_feed_m_min, 'wire_feed'), one.trial.seen ?? '—',
              one.struck_because ? <s key="struck">{one.trial.verdict}</s> : one.trial.verdict,
            ],
            details: () => (
              <div className="text-[13px]">
                <p>Entered by {one.entered_by}, {new Date(one.entered_at).toLocaleString()}.{one.trial.transfer ? ` Transfer ${one.trial.transfer.replaceAll('-', ' ')}.` : ''}{one.trial.travel_mm_min == null ? '' : ` Travel ${units.value(one.trial.travel_mm_min, 'travel')} ${units.unit('travel')}.`}</p>
                {one.struck_because ? <p className="text-steel2">Struck: {one.struck_because}. It counts no more.</p>
                  : may('LOG_TRIAL') && <button type="button" className="link" onClick={() => setStriking(one)}>Void it</button>}
              </div>
            ),
          }))} />
      )}
      {entering && <EnterDialog onClose={() => setEntering(false)} />}
      {striking && <StrikeDialog row={striking} onClose={() => setStriking(null)} />}
    </>
  )
}

type Draft = Partial<Omit<Trial, 'filler' | 'verdict' | 'thickness_mm'>> & { thickness_mm?: number | null; filler: NonNullable<Trial['filler']>; verdict: Trial['verdict'] }

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
  const whole: Trial | null = process && position && thickness_mm != null ? { ...trial, process, position, thickness_mm } : null
  const refusal = enter.error instanceof Refusal ? enter.error : null
  const errors = new Map((refusal?.body.errors ?? []).map((one) => [one.path.split('.').slice(-1)[0] ?? '', one.message]))
  return (
    <Modal title="Log a trial" open onClose={onClose} wide>
      <form className="grid gap-3" onSubmit={(event) => { event.preventDefault(); if (whole) enter.mutate(whole) }}>
        <div className="grid grid-cols-4 gap-x-3 gap-y-2">
          <Labelled words="Process" wide><Choice<Trial['process']> label="Process" value={process} options={processOptions(usage)} onChange={(next) => next && put({ process: next })} /></Labelled>
          <Labelled words="Filler"><TextField label="Filler" value={trial.filler.designation} onChange={(designation) => put({ filler: { ...trial.filler, designation } })} placeholder="ER70S-6" error={errors.get('designation')} /></Labelled>
          <Labelled words="Diameter"><QuantityField label="Diameter" kind="wire_diameter" value={trial.filler.diameter_mm} onChange={(diameter_mm) => setTrial((before) => ({ ...before, filler: { ...before.filler, diameter_mm } }))} /></Labelled>
          <Labelled words="Gas"><GasField label="Gas" value={null} onChange={(shares) => put({ gas: shares ? gasText(shares) : null })} /></Labelled>
          <Labelled words="Transfer"><Choice<NonNullable<Trial['transfer']>> label="Transfer" value={trial.transfer} none="not stated" options={TRANSFERS} onChange={(transfer) => put({ transfer })} /></Labelled>
          <Labelled words="Position"><Choice<Trial['position']> label="Position" value={position} options={POSITIONS} onChange={(next) => next && put({ position: next })} /></Labelled>
          <Labelled words="Thickness"><QuantityField label="Thickness" kind="thickness" metal="steel" value={thickness_mm} onChange={(next) => put({ thickness_mm: next })} /></Labelled>
          <Labelled words="Amps"><QuantityField label="Amps" kind="current" value={trial.current_a} onChange={(current_a) => put({ current_a })} error={errors.get('current_a')} /></Labelled>
          <Labelled words="Volts"><QuantityField label="Volts" kind="voltage" value={trial.voltage_v} onChange={(voltage_v) => put({ voltage_v })} /></Labelled>
          <Labelled words="Wire feed"><QuantityField label="Wire feed" kind="wire_feed" value={trial.wire_feed_m_min} onChange={(wire_feed_m_min) => put({ wire_feed_m_min })} /></Labelled>
          <Labelled words="Travel"><QuantityField label="Travel" kind="travel" value={trial.travel_mm_min} onChange={(travel_mm_min) => put({ travel_mm_min })} /></Labelled>
        </div>
        <div className="grid grid-cols-[minmax(0,1fr)_140px] gap-3">
          <Labelled words="What was seen"><TextField label="What was seen" value={trial.seen} onChange={(seen) => put({ seen })} placeholder="even, toes wetted, no spatter" /></Labelled>
          <Labelled words="Verdict"><Choice<Trial['verdict']> label="Verdict" value={trial.verdict} options={[['kept', 'kept'], ['rejected', 'rejected']]} onChange={(verdict) => verdict && put({ verdict })} /></Labelled>
        </div>
        {enter.isError && <p role="alert" className="text-[13px] text-breach">{refusal ? refusal.body.errors.map((one) => one.message).join('; ') || refusal.message : enter.error.message}</p>}
        <div className="flex items-center justify-end gap-2">
          {!whole && <span className="mr-auto text-[13px] text-steel2">Needed: process, position, thickness.</span>}
          <Button onClick={onClose}>Not now</Button>
          <Button look="main" type="submit" disabled={!whole || enter.isPending}>Keep the trial</Button>
        </div>
      </form>
    </Modal>
  )
}

function StrikeDialog({ row, onClose }: { row: TrialRow; onClose: () => void }) {
  const queries = useQueryClient()
  const [reason, setReason] = useState<string | null>(null)
  const strike = useMutation({
    mutationFn: () => unwrap(api.POST('/api/trials/{entry_id}/strike', { params: { path: { entry_id: row.id } }, body: { reason: reason ?? '' } })),
    onSuccess: () => {
      void queries.invalidateQueries({ queryKey: ['trials'] })
      void queries.invalidateQueries({ queryKey: ['propose'] })
      onClose()
    },
  })
  return (
    <Modal title="Void a trial" open onClose={onClose}>
      <form className="grid gap-3" onSubmit={(event) => { event.preventDefault(); strike.mutate() }}>
        <p className="text-steel">It stays on record with the reason, and counts no more.</p>
        <Labelled words="Why"><TextField label="Why" value={reason} onChange={setReason} error={strike.isError ? strike.error.message : undefined} /></Labelled>
        <div className="flex justify-end gap-2">
          <Button onClick={onClose}>Not now</Button>
          <Button look="main" type="submit" disabled={strike.isPending}>Void it</Button>
        </div>
      </form>
    </Modal>
  )
}
