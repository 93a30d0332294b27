import { t } from '@lingui/core/macro'
import { Trans } from '@lingui/react/macro'
import { keepPreviousData, useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import { useCallback, useEffect, useMemo, useState } from 'react'
import { Link, useParams } from 'react-router'

import { Refusal, api, unwrap } from '../../api/client'
import type { Coupon } from '../../api/types'
import { CodeInForce } from '../../ui/CodeInForce'
import { useJobOf } from '../../session/job'
import { outboxOfPasses, useOutbox, writer } from '../../session/sending'
import { useSession } from '../../session/session'
import { useUnits } from '../../session/units'
import type { Stopwatch } from '../../domain/stopwatch'
import { Button } from '../../ui/Button'
import { Cautions } from '../../ui/Cautions'
import { Notice } from '../../ui/Notice'
import { commitAndSubmit, showWrong } from '../../ui/commit'
import { SectionDrawing } from '../../ui/SectionDrawing'
import { RecordingsPanel } from '../recordings'
import { recordsQuery } from '../../queries/library'
import { BoothPanel } from './BoothPanel'
import { Countdown } from './Countdown'
import { EntryPanel } from './EntryPanel'
import { FlagsDialog } from './FlagsDialog'
import { HeatChart } from './HeatChart'
import { LogLadder } from './LogLadder'
import { PhotosDialog } from './PhotosDialog'
import { RunLogHead } from './RunLogHead'
import { StopwatchPanel } from './StopwatchPanel'
import { STATE_WORDS } from '../evidence'
import { StrikeDialog } from './StrikeDialog'
import { WaitingPasses } from './Waiting'
import { entryOf, isTouched, mirroredHeat, newEntry, nextPass, recordOf, type Entry } from './model'
import { couponQuery, judgeQuery } from '../../queries/coupons'
import { useCauseKey } from './useCauseKey'
import { useBooth } from './useBooth'
import { WelderCheck } from './WelderCheck'
import { useEntry } from './useEntry'
import { inWords } from '../../domain/words'

export function CouponPage() {
  const id = Number(useParams().id)
  const { system } = useUnits()
  const coupon = useQuery({
    ...couponQuery(id, system),
    enabled: Number.isInteger(id),
    placeholderData: keepPreviousData,
  })
  if (coupon.data)
    return (
      <RunLog
        key={coupon.data.id}
        coupon={coupon.data}
        fetchedAt={coupon.dataUpdatedAt}
        away={coupon.failureReason?.message ?? (coupon.fetchStatus === 'paused' ? t`No network.` : null)}
      />
    )
  if (coupon.isError)
    return (
      <div className="p-5">
        <Notice mark="breach">
          {coupon.error.message}{' '}
          <Link className="link" to="/coupons">
            <Trans>All coupons</Trans>
          </Link>
        </Notice>
      </div>
    )
  return (
    <p className="p-5 text-steel">
      {coupon.failureReason ? t`${coupon.failureReason.message} Trying again …` : t`Opening …`}
    </p>
  )
}

const FORM = 'pass-entry'

function RunLog({ coupon, fetchedAt, away }: { coupon: Coupon; fetchedAt: number; away: string | null }) {
  const { system } = useUnits()
  const { may } = useSession()
  const queries = useQueryClient()
  useJobOf(coupon.job_id)
  const queue = outboxOfPasses(coupon.id, queries)
  const sending = useOutbox(queue)
  const unsent = sending.waiting.findLast((one) => one.refused === null)?.record.number ?? null
  const { entry, put } = useEntry(`entry-${String(coupon.id)}`, nextPass(coupon, sending.waiting))
  const [booth, setBooth] = useBooth()
  const [striking, setStriking] = useState(false)
  const [flagged, setFlagged] = useState<number | null>(null)
  const [pictured, setPictured] = useState<number | null>(null)
  const mayLog = may('LOG_PASS') && coupon.status === 'welding' && !coupon.signed_record
  const before = entry.correcting ? (coupon.rows.find((row) => row.id === entry.correcting?.id)?.record ?? null) : null
  const planned = coupon.procedure.passes.find((one) => one.number === entry.number) ?? null
  const record = useMemo(() => recordOf(entry, before, planned), [entry, before, planned])
  const judged = useQuery({ ...judgeQuery(coupon.id, record, system), placeholderData: keepPreviousData })
  // A question that waits for a network is no answer either.
  const unjudged = judged.isError || judged.fetchStatus === 'paused'
  const result = judged.data?.pass_number === entry.number ? judged.data : null
  const planMax = coupon.evaluation.heat_input.find((one) => one.pass_number === entry.number)?.max_kj_mm ?? null
  const next = nextPass(coupon, sending.waiting)
  const machines = useQuery(recordsQuery('machine'))
  const machine = machines.data?.find((one) => one.name === coupon.piece.machine?.name)?.document
  const feedDial = machine && 'dial' in machine ? machine.dial : null

  const correct = useMutation({
    mutationFn: (sent: Entry) =>
      unwrap(
        api.PUT('/api/passes/{pass_id}', {
          params: { path: { pass_id: sent.correcting?.id ?? 0 } },
          body: { version: sent.correcting?.version ?? 0, record: recordOf(sent, before, planned) },
        }),
      ),
    onSuccess: async () => {
      await queries.refetchQueries({ queryKey: ['coupon', coupon.id] })
      put(() => newEntry(next, carried(entry)))
    },
  })
  const refusal = correct.error instanceof Refusal ? correct.error : null
  const save = () => {
    if (entry.correcting) {
      correct.mutate(entry)
      return
    }
    const savedAt = new Date().toISOString()
    const one = { clientId: entry.clientId, by: writer(queries), record, savedAt, refused: null }
    // Kept here first: from now on neither a closed tab nor a dead network can lose it.
    queue.add(one)
    put(() => newEntry(nextPass(coupon, [...sending.waiting, one]), carried(entry)))
  }

  // Another person logged this pass: move on, unless something was typed for it already.
  useEffect(() => {
    if (
      !entry.correcting &&
      !isTouched(entry) &&
      entry.number !== next &&
      (coupon.rows.some((row) => row.record.number === entry.number) || coupon.log.to_weld.includes(next))
    )
      put((old) => ({ ...old, number: next }))
  }, [coupon, entry, next, put])

  const canSave = mayLog && isTouched(entry) && entry.watch.startedAt === null && !correct.isPending
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      if (event.key === 'Enter' && event.ctrlKey) {
        event.preventDefault()
        commitAndSubmit(FORM)
      }
    }
    window.addEventListener('keydown', onKey)
    return () => window.removeEventListener('keydown', onKey)
  }, [])
  useCauseKey(coupon)

  const setWatch = useCallback((watch: Stopwatch) => put((old) => ({ ...old, watch, timeS: null })), [put])
  const heat = useMemo(
    () => new Map(coupon.log.passes.map((one) => [one.pass_number, one.heat_input_kj_mm ?? 0])),
    [coupon.log],
  )
  const last = coupon.rows.toSorted((a, b) => a.id - b.id).at(-1)
  const picturedRow = coupon.rows.find((row) => row.id === pictured)
  const flaggedRow = coupon.rows.find((row) => row.id === flagged)

  const boothPanel = <BoothPanel coupon={coupon} disabled={!may('EDIT_PIECE') || coupon.status !== 'welding'} />

  return (
    <div className="min-h-full">
      <div className="mx-auto max-w-[1240px] px-4 py-3">
        <CodeInForce code={coupon.procedure.code} />
        <RunLogHead coupon={coupon} booth={booth} onBooth={() => setBooth(!booth)} away={away} />
        <div className="grid grid-cols-[minmax(0,1.12fr)_minmax(0,1fr)] items-start gap-3 max-[1100px]:grid-cols-1">
          <div className="grid min-w-0 gap-3">
            {/* Before the first arc the booth comes first, afterwards the pass does. */}
            {coupon.rows.length === 0 && sending.waiting.length === 0 && boothPanel}
            <WaitingPasses
              coupon={coupon}
              state={sending}
              queue={queue}
              mayTakeBack={!isTouched(entry)}
              onTakeBack={(clientId) => {
                const one = sending.waiting.find((each) => each.clientId === clientId)
                if (!one) return
                put(() => ({ ...entryOf({ id: 0, version: 0, record: one.record }), clientId, correcting: null }))
                queue.remove(clientId)
              }}
            />
            {mayLog && <WelderCheck coupon={coupon} />}
            <Countdown coupon={coupon} fetchedAt={fetchedAt} readC={entry.beforeC} unsent={unsent} />
            {mayLog ? (
              <form
                id={FORM}
                className="grid min-w-0 gap-3"
                onSubmit={(event) => {
                  event.preventDefault()
                  // What could not be read must not be lost with a save: it is mended first.
                  if (!showWrong(event.currentTarget) && canSave) save()
                }}
              >
                {entry.correcting && (
                  <Notice className="text-[14px]">
                    <Trans>Correcting pass {entry.number}. The change is kept in the trail. </Trans>
                    <button type="button" className="link" onClick={() => put(() => newEntry(next))}>
                      <Trans>Leave it as it was</Trans>
                    </button>
                  </Notice>
                )}
                <StopwatchPanel
                  watch={entry.watch}
                  onWatch={setWatch}
                  number={entry.number}
                  heat={result?.heat_input_kj_mm ?? planMax}
                  disabled={correct.isPending}
                  title={
                    planned
                      ? [inWords(planned.role), planned.process, planned.filler?.designation].filter(Boolean).join(', ')
                      : t`not planned`
                  }
                />
                {/* A new entry starts with empty fields: nothing of the last pass may hang on. */}
                <EntryPanel
                  key={entry.clientId}
                  entry={entry}
                  put={put}
                  planned={planned}
                  result={result}
                  judged={!unjudged}
                  feedDial={feedDial ?? null}
                  mirrored={unjudged ? mirroredHeat(record, coupon) : null}
                  batches={coupon.piece.batches.filter((one) => one.kind === 'filler').map((one) => one.batch)}
                  disabled={correct.isPending && !refusal}
                />
                {correct.isError && (
                  <Notice mark="breach" className="text-[15px]">
                    {refusal && refusal.body.errors.length > 0
                      ? refusal.body.errors.map((one) => `${one.path}: ${one.message}`).join('; ')
                      : correct.error.message}
                  </Notice>
                )}
                <div className="grid grid-cols-[1fr_2fr] gap-3">
                  <Button
                    className="min-h-14 text-[18px]!"
                    disabled={!last || correct.isPending}
                    onClick={() => setStriking(true)}
                  >
                    <Trans>Void the last</Trans>
                  </Button>
                  <Button
                    look="main"
                    className="min-h-14 text-[18px]!"
                    disabled={!canSave}
                    onClick={() => commitAndSubmit(FORM)}
                  >
                    {correct.isPending
                      ? t`Saving …`
                      : entry.correcting
                        ? t`Save the correction`
                        : t`Save pass ${entry.number}`}
                  </Button>
                </div>
              </form>
            ) : (
              <Notice mark="unknown" className="border-line!">
                {coupon.signed_record ? (
                  <>
                    <Trans>
                      Record {coupon.signed_record} {STATE_WORDS[coupon.record_state] ?? t`is signed`}: this log is
                      shown as it was signed and no longer changes. If it is wrong,{' '}
                      <Link className="link" to={`/coupons/${coupon.id}/tests`}>
                        amend the record
                      </Link>
                      .
                    </Trans>
                  </>
                ) : coupon.status === 'welded' ? (
                  t`This coupon is welded; its log is closed.`
                ) : (
                  t`You may look at this log, not write in it.`
                )}
              </Notice>
            )}
            {(coupon.rows.length > 0 || sending.waiting.length > 0) && boothPanel}
          </div>
          <div className="grid min-w-0 gap-3">
            <HeatChart coupon={coupon} />
            <LogLadder
              coupon={coupon}
              current={mayLog ? entry.number : -1}
              onFlags={setFlagged}
              onPhotos={setPictured}
              onPick={
                mayLog
                  ? (rowId) => {
                      const row = coupon.rows.find((one) => one.id === rowId)
                      if (row) put(() => entryOf(row))
                    }
                  : null
              }
            />
            <RecordingsPanel couponId={coupon.id} disabled={!mayLog} />
            {coupon.evaluation.drawing && (
              <div className="panel h-64 p-2">
                <SectionDrawing
                  drawing={coupon.evaluation.drawing}
                  heat={heat}
                  welded={new Set(heat.keys())}
                  lit={entry.number}
                  fit
                />
              </div>
            )}
            <Cautions texts={coupon.evaluation.cautions} />
          </div>
        </div>
      </div>
      {last && <StrikeDialog coupon={coupon} row={last} open={striking} onClose={() => setStriking(false)} />}
      {picturedRow && <PhotosDialog row={picturedRow} disabled={!mayLog} onClose={() => setPictured(null)} />}
      {flaggedRow && (
        <FlagsDialog
          key={flaggedRow.version}
          row={flaggedRow}
          disabled={!may('LOG_PASS') || coupon.signed_record !== ''}
          onClose={() => setFlagged(null)}
        />
      )}
    </div>
  )
}

/** What is the same from pass to pass is not typed again. */
function carried(entry: Entry): Partial<Pick<Entry, 'lengthMm' | 'place' | 'batch'>> {
  return { lengthMm: entry.lengthMm, place: entry.place, batch: entry.batch }
}
