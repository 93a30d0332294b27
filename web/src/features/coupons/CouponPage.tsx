import { keepPreviousData, useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import { useCallback, useEffect, useMemo, useState } from 'react'
import { Link, useParams } from 'react-router'

import { Refusal, api, unwrap } from '../../api/client'
import type { Coupon } from '../../api/types'
import { CodeInForce } from '../../app/CodeInForce'
import { useJobOf } from '../../app/job'
import { useSession } from '../../app/session'
import { useUnits } from '../../app/units'
import type { Stopwatch } from '../../domain/stopwatch'
import { Button } from '../../ui/Button'
import { Modal } from '../../ui/Modal'
import { Notice } from '../../ui/Notice'
import { SectionDrawing } from '../../ui/SectionDrawing'
import { TextField } from '../../ui/TextField'
import { EntryPanel } from './EntryPanel'
import { HeatChart } from './HeatChart'
import { LogLadder } from './LogLadder'
import { PiecePanel } from './PiecePanel'
import { StopwatchPanel } from './StopwatchPanel'
import { entryOf, isTouched, newEntry, nextPass, recordOf, type Entry } from './model'
import { couponQuery, judgeQuery } from './queries'
import { useEntry } from './useEntry'

export function CouponPage() {
  const id = Number(useParams().id)
  const { system } = useUnits()
  const coupon = useQuery({ ...couponQuery(id, system), enabled: Number.isInteger(id), placeholderData: keepPreviousData })
  if (coupon.data) return <RunLog key={coupon.data.id} coupon={coupon.data} away={coupon.failureReason?.message ?? null} />
  if (coupon.isError) return <div className="p-5"><Notice mark="breach">{coupon.error.message} <Link className="link" to="/coupons">All coupons</Link></Notice></div>
  return <p className="p-5 text-steel">{coupon.failureReason ? `${coupon.failureReason.message} Trying again …` : 'Opening …'}</p>
}

const AGAIN_MS = 3000
const FORM = 'pass-entry'

/** Leave the field that is being typed in, give it time to be read, then save the pass. */
function commitAndSubmit(): void {
  if (document.activeElement instanceof HTMLElement) document.activeElement.blur()
  window.setTimeout(() => (document.getElementById(FORM) as HTMLFormElement | null)?.requestSubmit(), 200)
}

function RunLog({ coupon, away }: { coupon: Coupon; away: string | null }) {
  const { system } = useUnits()
  const { may } = useSession()
  const queries = useQueryClient()
  useJobOf(coupon.job_id)
  const { entry, put } = useEntry(coupon.id, nextPass(coupon))
  const [booth, setBooth] = useBooth()
  const [striking, setStriking] = useState(false)
  const mayLog = may('LOG_PASS') && coupon.status === 'welding'
  const before = entry.correcting ? (coupon.rows.find((row) => row.id === entry.correcting?.id)?.record ?? null) : null
  const record = useMemo(() => recordOf(entry, before), [entry, before])
  const judged = useQuery({ ...judgeQuery(coupon.id, record, system), placeholderData: keepPreviousData })
  const result = judged.data?.pass_number === entry.number ? judged.data : null
  const planned = coupon.procedure.passes.find((one) => one.number === entry.number) ?? null
  const planMax = coupon.evaluation.heat_input.find((one) => one.pass_number === entry.number)?.max_kj_mm ?? null

  const save = useMutation({
    mutationFn: async (sent: Entry) => {
      const body = recordOf(sent, before)
      if (sent.correcting)
        await unwrap(api.PUT('/api/passes/{pass_id}', { params: { path: { pass_id: sent.correcting.id } }, body: { version: sent.correcting.version, record: body } }))
      else
        await unwrap(api.POST('/api/coupons/{coupon_id}/passes', { params: { path: { coupon_id: coupon.id } }, body: { client_id: sent.clientId, record: body } }))
      // What stands now comes first, so that the next pass is numbered after it.
      await queries.refetchQueries({ queryKey: ['coupon', coupon.id] })
      void queries.invalidateQueries({ queryKey: ['coupons'] })
    },
    onSuccess: (_, sent) => {
      const fresh = queries.getQueryData(couponQuery(coupon.id, system).queryKey) ?? coupon
      put(() => newEntry(nextPass(fresh), sent.lengthMm))
      save.reset()
    },
  })
  const refusal = save.error instanceof Refusal ? save.error : null
  const send = save.mutate
  // Not answered: send again by itself. The same client id makes sure it is logged once.
  useEffect(() => {
    if (!refusal?.passing) return
    const timer = window.setTimeout(() => send(entry), AGAIN_MS)
    return () => window.clearTimeout(timer)
  }, [refusal, send, entry])
  useEffect(() => {
    const again = () => {
      if (refusal?.status === 401) send(entry)
    }
    window.addEventListener('signed-in', again)
    return () => window.removeEventListener('signed-in', again)
  }, [refusal, send, entry])

  // Another person logged this pass: move on, unless something was typed for it already.
  const next = nextPass(coupon)
  useEffect(() => {
    if (!entry.correcting && !isTouched(entry) && entry.number !== next && coupon.rows.some((row) => row.record.number === entry.number))
      put((old) => ({ ...old, number: next }))
  }, [coupon.rows, entry, next, put])

  const canSave = mayLog && isTouched(entry) && entry.watch.startedAt === null && !save.isPending
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      if (event.key === 'Enter' && event.ctrlKey) {
        event.preventDefault()
        commitAndSubmit()
      }
    }
    window.addEventListener('keydown', onKey)
    return () => window.removeEventListener('keydown', onKey)
  }, [])

  const setWatch = useCallback((watch: Stopwatch) => put((old) => ({ ...old, watch, timeS: null })), [put])
  const heat = useMemo(() => new Map(coupon.log.passes.map((one) => [one.pass_number, one.heat_input_kj_mm ?? 0])), [coupon.log])
  const last = coupon.rows.toSorted((a, b) => a.id - b.id).at(-1)

  const piece = <PiecePanel coupon={coupon} disabled={!may('EDIT_PIECE') || coupon.status !== 'welding'} />

  return (
    <div className="min-h-full">
      <div className="mx-auto max-w-[1240px] px-4 py-3">
        <CodeInForce code={coupon.procedure.code} />
        <Head coupon={coupon} booth={booth} onBooth={() => setBooth(!booth)} away={away} />
        <div className="grid grid-cols-[minmax(0,1.12fr)_minmax(0,1fr)] items-start gap-3 max-[1100px]:grid-cols-1">
          <div className="grid min-w-0 gap-3">
            {/* Before the first arc the fit-up comes first, afterwards the pass does. */}
            {coupon.rows.length === 0 && piece}
            {mayLog ? (
              <form
                id={FORM}
                className="grid min-w-0 gap-3"
                onSubmit={(event) => {
                  event.preventDefault()
                  // What could not be read must not be lost with a save: it is mended first.
                  const wrong = event.currentTarget.querySelector<HTMLElement>('[aria-invalid="true"]')
                  if (wrong) wrong.focus()
                  else if (canSave) save.mutate(entry)
                }}
              >
                {entry.correcting && (
                  <Notice className="text-[14px]">
                    Correcting pass {entry.number}. The change is kept in the trail.{' '}
                    <button type="button" className="link" onClick={() => put(() => newEntry(nextPass(coupon)))}>Leave it as it was</button>
                  </Notice>
                )}
                <StopwatchPanel watch={entry.watch} onWatch={setWatch} number={entry.number} heat={result?.heat_input_kj_mm ?? planMax} disabled={save.isPending}
                  title={planned ? [planned.role, planned.process, planned.filler?.designation].filter(Boolean).join(', ') : 'not planned'} />
                {/* A new entry starts with empty fields: nothing of the last pass may hang on. */}
                <EntryPanel key={entry.clientId} entry={entry} put={put} planned={planned} result={result} judged={!judged.isError} disabled={save.isPending && !refusal} />
                {refusal && (
                  <Notice mark="breach" className="text-[15px]">
                    {refusal.body.errors.length > 0 ? refusal.body.errors.map((one) => `${one.path}: ${one.message}`).join('; ') : refusal.message}
                    {refusal.passing && ' It is sent again by itself.'}
                    {refusal.status === 409 && (
                      <>
                        {' '}
                        <button type="button" className="link" onClick={() => { put((old) => ({ ...old, number: nextPass(coupon), correcting: null })); save.reset() }}>
                          Keep mine as pass {nextPass(coupon)}
                        </button>
                      </>
                    )}
                  </Notice>
                )}
                <div className="grid grid-cols-[1fr_2fr] gap-3">
                  <Button className="min-h-14 text-[18px]!" disabled={!last || save.isPending} onClick={() => setStriking(true)}>
                    Strike the last
                  </Button>
                  <Button look="main" className="min-h-14 text-[18px]!" disabled={!canSave} onClick={commitAndSubmit}>
                    {save.isPending ? 'Saving …' : entry.correcting ? `Save the correction` : `Save pass ${String(entry.number)}`}
                  </Button>
                </div>
              </form>
            ) : (
              <Notice mark="unknown" className="border-line!">
                {coupon.status === 'welded' ? 'This coupon is welded; its log is closed.' : 'You may look at this log, not write in it.'}
              </Notice>
            )}
            {coupon.rows.length > 0 && piece}
          </div>
          <div className="grid min-w-0 gap-3">
            <HeatChart coupon={coupon} />
            <LogLadder coupon={coupon} current={mayLog ? entry.number : -1}
              onPick={(rowId) => {
                const row = coupon.rows.find((one) => one.id === rowId)
                if (row && mayLog) put(() => entryOf(row))
              }} />
            {coupon.evaluation.drawing && (
              <div className="panel h-64 p-2">
                <SectionDrawing drawing={coupon.evaluation.drawing} heat={heat} welded={new Set(heat.keys())} lit={entry.number} fit />
              </div>
            )}
            <p className="border-l-3 border-straw bg-note px-3 py-2 text-[12.5px]">{coupon.evaluation.cautions.join(' ')}</p>
          </div>
        </div>
      </div>
      {last && <StrikeDialog coupon={coupon} row={last} open={striking} onClose={() => setStriking(false)} />}
    </div>
  )
}

function Head({ coupon, booth, onBooth, away }: { coupon: Coupon; booth: boolean; onBooth: () => void; away: string | null }) {
  const { may } = useSession()
  const queries = useQueryClient()
  const finish = useMutation({
    mutationFn: (status: 'welding' | 'welded') => unwrap(api.PATCH('/api/coupons/{coupon_id}', { params: { path: { coupon_id: coupon.id } }, body: { version: coupon.version, status } })),
    onSettled: () => queries.invalidateQueries(),
  })
  const welder = coupon.people.find((one) => one.role === 'welder')?.name
  const thickness = useUnits()
  return (
    <div className="mb-3 flex flex-wrap items-center gap-x-4 gap-y-1">
      <div className="min-w-0">
        <h1 className="truncate text-[25px]">Coupon {coupon.number}</h1>
        <p className="text-[14px] text-steel2">
          for <Link className="link" to={`/procedures/${String(coupon.revision_id)}`}>{coupon.procedure_number} rev {coupon.letter}</Link> ·{' '}
          {[coupon.piece.product, ...[...new Set(coupon.piece.thickness_mm)].map((value) => `${thickness.value(value, 'thickness')} ${thickness.unit('thickness')}`), coupon.piece.position, welder && `${welder} welds`].filter(Boolean).join(' · ')}
        </p>
      </div>
      <p className="text-[13px] text-steel2" role="status">
        {away ? <b className="text-breach">{away}</b> : `${String(coupon.rows.length)} of ${String(coupon.procedure.passes.length)} passes logged`}
      </p>
      <div className="ml-auto flex items-center gap-2">
        <Button onClick={onBooth} aria-pressed={booth}>{booth ? 'Light' : 'Booth'}</Button>
        <a className="rounded-sm border border-line bg-panel px-3 py-1.5 font-head text-[15px] font-medium" href={`/api/coupons/${String(coupon.id)}/print`} target="_blank" rel="noreferrer">Print</a>
        <a className="rounded-sm border border-line bg-panel px-3 py-1.5 font-head text-[15px] font-medium" href={`/api/coupons/${String(coupon.id)}/export`} download="">Export JSON</a>
        {may('EDIT_PIECE') && (
          <Button disabled={finish.isPending} onClick={() => finish.mutate(coupon.status === 'welding' ? 'welded' : 'welding')}>
            {coupon.status === 'welding' ? 'Close the log' : 'Open the log again'}
          </Button>
        )}
      </div>
      {finish.isError && <p role="alert" className="w-full text-[13px] text-breach">{finish.error.message}</p>}
    </div>
  )
}

function StrikeDialog({ coupon, row, open, onClose }: { coupon: Coupon; row: Coupon['rows'][number]; open: boolean; onClose: () => void }) {
  const queries = useQueryClient()
  const [reason, setReason] = useState<string | null>(null)
  const strike = useMutation({
    mutationFn: () => unwrap(api.POST('/api/passes/{pass_id}/strike', { params: { path: { pass_id: row.id } }, body: { version: row.version, reason: reason ?? '' } })),
    onSuccess: async () => {
      setReason(null)
      onClose()
      await queries.invalidateQueries({ queryKey: ['coupon', coupon.id] })
    },
  })
  return (
    <Modal title={`Strike pass ${String(row.record.number)}`} open={open} onClose={onClose}>
      <form className="grid gap-3" onSubmit={(event) => { event.preventDefault(); strike.mutate() }}>
        <p className="text-steel">It stays in the trail, with your reason, and no longer counts.</p>
        <TextField label="Reason" placeholder="Why" value={reason} onChange={setReason} error={strike.isError ? strike.error.message : undefined} />
        <div className="flex justify-end gap-2">
          <Button onClick={onClose}>Keep it</Button>
          <Button look="main" type="submit" disabled={strike.isPending}>Strike it</Button>
        </div>
      </form>
    </Modal>
  )
}

/** Booth theme: chosen once for this browser; until then dark where the system is dark or the screen small. */
function useBooth(): [boolean, (on: boolean) => void] {
  const [on, setOn] = useState(() => {
    const chosen = localStorage.getItem('booth')
    if (chosen) return chosen === 'on'
    return window.matchMedia('(prefers-color-scheme: dark)').matches || window.innerWidth < 900
  })
  // The whole window goes dark with it, rail and strip too.
  useEffect(() => {
    document.documentElement.classList.toggle('booth', on)
    return () => document.documentElement.classList.remove('booth')
  }, [on])
  return [
    on,
    (next) => {
      localStorage.setItem('booth', next ? 'on' : 'off')
      setOn(next)
    },
  ]
}
