import { t } from '@lingui/core/macro'
import { Trans } from '@lingui/react/macro'
import { keepPreviousData, useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import { useCallback, useMemo, useRef, useState } from 'react'
import { Link, useLocation, useParams } from 'react-router'

import { api, unwrap } from '../../api/client'
import type { Revision, Trial } from '../../api/types'
import { useSession } from '../../session/session'
import { useUnits } from '../../session/units'
import type { Stopwatch } from '../../domain/stopwatch'
import { Button } from '../../ui/Button'
import { Notice } from '../../ui/Notice'
import { PageTitle } from '../../ui/PageTitle'
import { MarkIcon } from '../../ui/Verdict'
import { commitAndSubmit, showWrong } from '../../ui/commit'
import { revisionQuery } from '../../queries/procedures'
import { EntryPanel } from './EntryPanel'
import { StopwatchPanel } from './StopwatchPanel'
import { isTouched, newEntry, recordOf } from './model'
import { useEntry } from './useEntry'
import { useFilled } from './useFilled'
import { readTried } from '../../domain/tried'
import { inWords } from '../../domain/words'

/** Dialling in on scrap: the same entry as on a coupon, kept or rejected with one key. */
export function ScrapPage() {
  const id = Number(useParams().id)
  const { system } = useUnits()
  const revision = useQuery({ ...revisionQuery(id, system), enabled: Number.isInteger(id) })
  if (revision.data) return <Scrap key={id} revision={revision.data} />
  if (revision.isError)
    return (
      <div className="p-5">
        <Notice mark="breach">{revision.error.message}</Notice>
      </div>
    )
  return (
    <p className="p-5 text-steel">
      <Trans>Opening …</Trans>
    </p>
  )
}

const FORM = 'scrap-entry'

function Scrap({ revision }: { revision: Revision }) {
  const { system } = useUnits()
  const { may } = useSession()
  const queries = useQueryClient()
  const passes = revision.document.passes
  const { entry, put } = useEntry(`scrap-${String(revision.id)}`, passes[0]?.number ?? 1)
  const [done, setDone] = useState('')
  const tried = readTried(useLocation().state)
  const filled = useFilled(tried, entry, put)
  const planned = passes.find((one) => one.number === entry.number) ?? null
  const record = useMemo(() => recordOf(entry, null, planned), [entry, planned])
  const judged = useQuery({
    queryKey: ['judge', 'scrap', revision.id, system, record],
    queryFn: ({ signal }) =>
      unwrap(
        api.POST('/api/revisions/{revision_id}/judge', {
          params: { path: { revision_id: revision.id } },
          body: { record, units: system },
          signal,
        }),
      ),
    placeholderData: keepPreviousData,
    retry: false,
  })
  const result = judged.data?.pass_number === entry.number ? judged.data : null
  const save = useMutation({
    mutationFn: (verdict: Trial['verdict']) =>
      unwrap(
        api.POST('/api/revisions/{revision_id}/trials', {
          params: { path: { revision_id: revision.id } },
          body: { record, verdict },
        }),
      ),
    onSuccess: (_, verdict) => {
      setDone(
        verdict === 'kept'
          ? t`Kept: the next draft for this wire, gas, position and thickness begins with it.`
          : t`Rejected: the next draft says so nearby.`,
      )
      put((old) => newEntry(old.number, { lengthMm: old.lengthMm }))
      void queries.invalidateQueries({ queryKey: ['trials'] })
    },
  })
  const setWatch = useCallback((watch: Stopwatch) => put((old) => ({ ...old, watch, timeS: null })), [put])
  const verdict = useRef<Trial['verdict']>('kept')
  const commit = (chosen: Trial['verdict']) => {
    verdict.current = chosen
    commitAndSubmit(FORM)
  }
  const ready =
    may('LOG_TRIAL') &&
    isTouched(entry) &&
    entry.watch.startedAt === null &&
    !save.isPending &&
    (entry.current !== null || entry.voltage !== null || entry.feed !== null)
  if (passes.length === 0)
    return (
      <div className="p-5">
        <Notice>
          <Trans>
            The procedure has no pass yet.{' '}
            <Link className="link" to={`/procedures/${revision.id}`}>
              Add one
            </Link>
          </Trans>
        </Notice>
      </div>
    )
  return (
    <form
      id={FORM}
      className="mx-auto grid max-w-[760px] gap-3 px-4 py-3"
      onSubmit={(event) => {
        event.preventDefault()
        if (!showWrong(event.currentTarget) && ready) save.mutate(verdict.current)
      }}
    >
      <div>
        <PageTitle words={t`Trial weld for ${revision.number} rev ${revision.letter}`} />
        <p className="text-[14px] text-steel2">
          <Trans>
            Set it, burn it, keep it or reject it.{' '}
            <Link className="link" to={`/procedures/${revision.id}`}>
              Back to the procedure
            </Link>
          </Trans>
        </p>
      </div>
      {filled && (
        <Notice>
          {filled === 'filled'
            ? t`Filled in with the setting that was tried. Correct it by what the meters show while you weld.`
            : t`Something was typed here before and stands: the setting that was tried is not filled in.`}
        </Notice>
      )}
      <div role="group" aria-label={t`Pass tried`} className="flex flex-wrap gap-2">
        {passes.map((one) => (
          <button
            type="button"
            key={one.number}
            aria-pressed={one.number === entry.number}
            onClick={() => put((old) => ({ ...old, number: one.number }))}
            className={`min-h-12 min-w-14 rounded-sm border px-3 font-head text-[16px] font-semibold ${one.number === entry.number ? 'border-accent bg-accent text-on-accent' : 'border-line'}`}
          >
            {one.number} {inWords(one.role)}
          </button>
        ))}
      </div>
      <StopwatchPanel
        watch={entry.watch}
        onWatch={setWatch}
        number={entry.number}
        heat={result?.heat_input_kj_mm ?? null}
        disabled={save.isPending}
        title={[planned?.process, planned?.filler?.designation].filter(Boolean).join(', ')}
      />
      <EntryPanel
        key={entry.clientId}
        entry={entry}
        put={put}
        planned={planned}
        result={result}
        judged={!judged.isError}
        mirrored={null}
        batches={[]}
        disabled={save.isPending}
      />
      {save.isError && <Notice mark="breach">{save.error.message}</Notice>}
      {done && !isTouched(entry) && (
        <p role="status">
          <MarkIcon mark="holds" /> {done}
        </p>
      )}
      <div className="grid grid-cols-2 gap-3 max-md:grid-cols-1">
        <Button className="min-h-14 text-[18px]!" disabled={!ready} onClick={() => commit('rejected')}>
          <Trans>Rejected</Trans>
        </Button>
        <Button look="main" className="min-h-14 text-[18px]!" disabled={!ready} onClick={() => commit('kept')}>
          <Trans>Kept</Trans>
        </Button>
      </div>
    </form>
  )
}
