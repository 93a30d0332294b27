import { t } from '@lingui/core/macro'
import { Trans } from '@lingui/react/macro'
import { useMutation, useQuery, useQueryClient, type UseQueryResult } from '@tanstack/react-query'
import { useState } from 'react'
import { Link, useParams } from 'react-router'

import { api, unwrap } from '../../api/client'
import type { Coupon, Fault, Recording } from '../../api/types'
import { useSession } from '../../session/session'
import { useUnits } from '../../session/units'
import { Button } from '../../ui/Button'
import { Notice } from '../../ui/Notice'
import { PageTitle } from '../../ui/PageTitle'
import { MarkIcon } from '../../ui/Verdict'
import { couponQuery } from '../../queries/coupons'
import { Live } from './Live'
import { MappingForm } from './MappingForm'
import { Parts } from './Parts'
import { TraceChart } from './TraceChart'
import { partsOf, type Part } from './model'
import { recordingQuery, traceQuery, type Span } from '../../queries/recordings'
import { fixed, locale } from '../../session/language'

export function RecordingPage() {
  const id = Number(useParams().id)
  const { system } = useUnits()
  const found = useQuery({ ...recordingQuery(id), enabled: Number.isInteger(id) })
  const coupon = useQuery({
    ...couponQuery(found.data?.coupon_id ?? 0, system),
    enabled: Boolean(found.data?.coupon_id),
  })
  if (found.isError)
    return (
      <div className="p-5">
        <Notice mark="breach">{found.error.message}</Notice>
      </div>
    )
  if (!found.data || (found.data.coupon_id !== null && !coupon.data && !coupon.isError))
    return (
      <p className="p-5 text-steel">
        <Trans>Opening …</Trans>
      </p>
    )
  return (
    <Page
      key={`${String(found.data.id)}-${String(found.data.version)}-${found.data.status}`}
      recording={found.data}
      coupon={coupon}
    />
  )
}

function Page({ recording, coupon }: { recording: Recording; coupon: UseQueryResult<Coupon> }) {
  const { may } = useSession()
  const [span, setSpan] = useState<Span>(null)
  const [mapping, setMapping] = useState(false)
  const [parts, setParts] = useState<Part[]>(() => partsOf(recording, coupon.data?.log.to_weld ?? []))
  const closed = coupon.data?.status === 'welded'
  const disabled = !may('LOG_PASS') || closed
  const trace = useQuery({
    ...traceQuery(recording.id, recording.version, span),
    enabled: recording.status === 'ready',
  })
  const found = recording.analysis
  return (
    <div className="mx-auto grid max-w-[1240px] grid-cols-[minmax(0,1fr)] gap-3 px-4 py-3">
      <div>
        <PageTitle words={t`Recording ${recording.name}`} className="truncate" />
        <p className="text-[14px] text-steel2">
          {coupon.data && (
            <>
              <Trans>
                of{' '}
                <Link className="link" to={`/coupons/${coupon.data.id}`}>
                  coupon {coupon.data.number}
                </Link>{' '}
                ·{' '}
              </Trans>
            </>
          )}
          {recording.recorder && <>{recording.recorder} · </>}
          {found && (
            <>
              <Trans>
                {fixed(found.lasts_s, 1)} s, {found.samples.toLocaleString(locale())} samples,{' '}
                {fixed(found.samples_per_s, 0)} a second ·{' '}
              </Trans>
            </>
          )}
          <a className="link" href={`/api/recordings/${String(recording.id)}/file`} download="">
            <Trans>the file as it came</Trans>
          </a>
          {recording.sha256 && (
            <span title={`SHA-256 ${recording.sha256}`}>
              {' '}
              <Trans>· sha-256 {recording.sha256.slice(0, 12)}…</Trans>
            </span>
          )}
          {recording.device_offset_s !== null && Math.abs(recording.device_offset_s) > 2 && (
            <>
              <Trans> · its clock is {fixed(Math.abs(recording.device_offset_s), 0)} s </Trans>
              {recording.device_offset_s > 0 ? t`ahead` : t`behind`}
            </>
          )}
        </p>
      </div>
      {recording.message && (
        <Notice mark={recording.status === 'refused' ? 'breach' : 'caution'}>{recording.message}</Notice>
      )}
      {recording.status === 'received' && <Unread recording={recording} disabled={disabled} />}
      {recording.status === 'streaming' && <Live recording={recording} disabled={disabled} />}
      {(recording.status === 'asking' || mapping) && !disabled && (
        <MappingForm recording={recording} onDone={() => setMapping(false)} />
      )}
      {recording.status === 'ready' && (
        <>
          <Faults faults={recording.faults} onZoom={setSpan} />
          {parts.length > 0 && (
            <Parts recording={recording} parts={parts} onParts={setParts} onZoom={setSpan} disabled={disabled} />
          )}
          <section aria-label={t`Trace`} className="panel p-3">
            <div className="mb-1 flex flex-wrap items-center gap-3">
              <h2 className="text-[16px]">
                <Trans>Trace</Trans>
              </h2>
              <span className="text-[13px] text-steel2">
                {trace.data &&
                  (trace.data.samples_a_bucket > 1
                    ? t`lowest and highest of ${trace.data.samples_a_bucket} samples a point`
                    : t`every sample`)}
                <Trans>; drag to look closer</Trans>
              </span>
              <span className="ml-auto flex gap-2">
                <Button disabled={!span} onClick={() => setSpan((old) => wider(old, found?.lasts_s ?? 0))}>
                  <Trans>Wider</Trans>
                </Button>
                <Button disabled={!span} onClick={() => setSpan(null)}>
                  <Trans>Whole</Trans>
                </Button>
                {!disabled && recording.taken.length === 0 && (
                  <Button onClick={() => setMapping(!mapping)}>
                    <Trans>Columns</Trans>
                  </Button>
                )}
              </span>
            </div>
            {trace.data && (
              <TraceChart
                trace={trace.data}
                parts={parts.map((one) => ({ ...one, label: String(one.number ?? '') }))}
                onZoom={setSpan}
              />
            )}
            {trace.isError && (
              <p role="alert" className="text-breach">
                {trace.error.message}
              </p>
            )}
          </section>
          {closed && (
            <p className="text-[13px] text-steel2">
              {coupon.data?.signed_record
                ? t`Record ${coupon.data.signed_record} is signed: nothing beneath it changes.`
                : t`The coupon’s log is closed; open it again to take passes.`}
            </p>
          )}
        </>
      )}
    </div>
  )
}

/** Kept, but the server stopped before it was read. */
function Unread({ recording, disabled }: { recording: Recording; disabled: boolean }) {
  const queries = useQueryClient()
  const read = useMutation({
    mutationFn: () =>
      unwrap(api.POST('/api/recordings/{recording_id}/examine', { params: { path: { recording_id: recording.id } } })),
    onSuccess: () => queries.invalidateQueries(),
  })
  return (
    <Notice mark="caution">
      <Trans>The file is kept but was not read yet: the server stopped in between. </Trans>
      {!disabled && (
        <Button disabled={read.isPending} onClick={() => read.mutate()}>
          {read.isPending ? t`Reading …` : t`Read it now`}
        </Button>
      )}
      {read.isError && <span role="alert"> {read.error.message}</span>}
    </Notice>
  )
}

function wider(span: Span, lasts: number): Span {
  if (!span) return null
  const more = (span.end_s - span.start_s) / 2
  return more * 4 >= lasts ? null : { start_s: span.start_s - more, end_s: span.end_s + more }
}

function Faults({ faults, onZoom }: { faults: readonly Fault[]; onZoom: (span: Span) => void }) {
  if (faults.length === 0)
    return (
      <p className="text-[14px]">
        <MarkIcon mark="holds" /> <Trans>Nothing odd was found in this recording.</Trans>
      </p>
    )
  return (
    <section aria-label={t`Findings`} className="panel p-3">
      <h2 className="mb-1 text-[16px]">
        <Trans>Findings</Trans>
      </h2>
      <ul className="grid gap-1 text-[14px]">
        {faults.map((one, at) => (
          <li key={at} className="flex items-start gap-2">
            <span className="mt-1">
              <MarkIcon mark={one.severity} />
            </span>
            <span>
              {one.message}
              {one.lines.length > 0 && t` Line ${one.lines.slice(0, 5).join(', ')}${one.count > 5 ? ' …' : ''}.`}{' '}
              {one.at_s != null && (
                <button
                  type="button"
                  className="link"
                  onClick={() =>
                    onZoom({ start_s: (one.at_s ?? 0) - 0.5, end_s: (one.at_s ?? 0) + (one.lasts_s ?? 0.5) + 0.5 })
                  }
                >
                  <Trans>look</Trans>
                </button>
              )}
            </span>
          </li>
        ))}
      </ul>
    </section>
  )
}
