import { useMutation, useQuery, useQueryClient, type UseQueryResult } from '@tanstack/react-query'
import { useState } from 'react'
import { Link, useParams } from 'react-router'

import { api, unwrap } from '../../api/client'
import type { Coupon, Fault, Recording } from '../../api/types'
import { useSession } from '../../app/session'
import { useUnits } from '../../app/units'
import { Button } from '../../ui/Button'
import { Notice } from '../../ui/Notice'
import { PageTitle } from '../../ui/PageTitle'
import { MarkIcon } from '../../ui/Verdict'
import { couponQuery } from '../coupons/queries'
import { Live } from './Live'
import { MappingForm } from './MappingForm'
import { Parts } from './Parts'
import { TraceChart } from './TraceChart'
import { partsOf, type Part } from './model'
import { recordingQuery, traceQuery, type Span } from './queries'

export function RecordingPage() {
  const id = Number(useParams().id)
  const { system } = useUnits()
  const found = useQuery({ ...recordingQuery(id), enabled: Number.isInteger(id) })
  const coupon = useQuery({ ...couponQuery(found.data?.coupon_id ?? 0, system), enabled: Boolean(found.data?.coupon_id) })
  if (found.isError) return <div className="p-5"><Notice mark="breach">{found.error.message}</Notice></div>
  if (!found.data || (found.data.coupon_id !== null && !coupon.data && !coupon.isError)) return <p className="p-5 text-steel">Opening …</p>
  return <Page key={`${String(found.data.id)}-${String(found.data.version)}-${found.data.status}`} recording={found.data} coupon={coupon} />
}

function Page({ recording, coupon }: { recording: Recording; coupon: UseQueryResult<Coupon> }) {
  const { may } = useSession()
  const [span, setSpan] = useState<Span>(null)
  const [mapping, setMapping] = useState(false)
  const [parts, setParts] = useState<Part[]>(() => partsOf(recording, coupon.data?.log.to_weld ?? []))
  const closed = coupon.data?.status === 'welded'
  const disabled = !may('LOG_PASS') || closed
  const trace = useQuery({ ...traceQuery(recording.id, recording.version, span), enabled: recording.status === 'ready' })
  const found = recording.analysis
  return (
    <div className="mx-auto grid max-w-[1240px] grid-cols-[minmax(0,1fr)] gap-3 px-4 py-3">
      <div>
        <PageTitle words={`Recording ${recording.name}`} className="truncate" />
        <p className="text-[14px] text-steel2">
          {coupon.data && <>of <Link className="link" to={`/coupons/${String(coupon.data.id)}`}>coupon {coupon.data.number}</Link> · </>}
          {recording.recorder && <>{recording.recorder} · </>}
          {found && <>{found.lasts_s.toFixed(1)} s, {found.samples.toLocaleString('en')} samples, {found.samples_per_s.toFixed(0)} a second · </>}
          <a className="link" href={`/api/recordings/${String(recording.id)}/file`} download="">the file as it came</a>
          {recording.sha256 && <span title={`SHA-256 ${recording.sha256}`}> · sha-256 {recording.sha256.slice(0, 12)}…</span>}
          {recording.device_offset_s !== null && Math.abs(recording.device_offset_s) > 2 && <> · its clock is {Math.abs(recording.device_offset_s).toFixed(0)} s {recording.device_offset_s > 0 ? 'ahead' : 'behind'}</>}
        </p>
      </div>
      {recording.message && <Notice mark={recording.status === 'refused' ? 'breach' : 'caution'}>{recording.message}</Notice>}
      {recording.status === 'received' && <Unread recording={recording} disabled={disabled} />}
      {recording.status === 'streaming' && <Live recording={recording} disabled={disabled} />}
      {(recording.status === 'asking' || mapping) && !disabled && <MappingForm recording={recording} onDone={() => setMapping(false)} />}
      {recording.status === 'ready' && (
        <>
          <Faults faults={recording.faults} onZoom={setSpan} />
          {parts.length > 0 && <Parts recording={recording} parts={parts} onParts={setParts} onZoom={setSpan} disabled={disabled} />}
          <section aria-label="Trace" className="panel p-3">
            <div className="mb-1 flex flex-wrap items-center gap-3">
              <h2 className="text-[16px]">Trace</h2>
              <span className="text-[13px] text-steel2">{trace.data && (trace.data.samples_a_bucket > 1 ? `lowest and highest of ${String(trace.data.samples_a_bucket)} samples a point` : 'every sample')}; drag to look closer</span>
              <span className="ml-auto flex gap-2">
                <Button disabled={!span} onClick={() => setSpan((old) => wider(old, found?.lasts_s ?? 0))}>Wider</Button>
                <Button disabled={!span} onClick={() => setSpan(null)}>Whole</Button>
                {!disabled && recording.taken.length === 0 && <Button onClick={() => setMapping(!mapping)}>Columns</Button>}
              </span>
            </div>
            {trace.data && <TraceChart trace={trace.data} parts={parts.map((one) => ({ ...one, label: String(one.number ?? '') }))} onZoom={setSpan} />}
            {trace.isError && <p role="alert" className="text-breach">{trace.error.message}</p>}
          </section>
          {closed && <p className="text-[13px] text-steel2">{coupon.data?.signed_record ? `Record ${coupon.data.signed_record} is signed: nothing beneath it changes.` : 'The coupon’s log is closed; open it again to take passes.'}</p>}
        </>
      )}
    </div>
  )
}

/** Kept, but the server stopped before it was read. */
function Unread({ recording, disabled }: { recording: Recording; disabled: boolean }) {
  const queries = useQueryClient()
  const read = useMutation({
    mutationFn: () => unwrap(api.POST('/api/recordings/{recording_id}/examine', { params: { path: { recording_id: recording.id } } })),
    onSuccess: () => queries.invalidateQueries(),
  })
  return (
    <Notice mark="caution">
      The file is kept but was not read yet: the server stopped in between.{' '}
      {!disabled && <Button disabled={read.isPending} onClick={() => read.mutate()}>{read.isPending ? 'Reading …' : 'Read it now'}</Button>}
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
  if (faults.length === 0) return <p className="text-[14px]"><MarkIcon mark="holds" /> Nothing odd was found in this recording.</p>
  return (
    <section aria-label="Findings" className="panel p-3">
      <h2 className="mb-1 text-[16px]">Findings</h2>
      <ul className="grid gap-1 text-[14px]">
        {faults.map((one, at) => (
          <li key={at} className="flex items-start gap-2">
            <span className="mt-1"><MarkIcon mark={one.severity} /></span>
            <span>
              {one.message}{one.lines.length > 0 && ` Line ${one.lines.slice(0, 5).join(', ')}${one.count > 5 ? ' …' : ''}.`}{' '}
              {one.at_s != null && <button type="button" className="link" onClick={() => onZoom({ start_s: (one.at_s ?? 0) - 0.5, end_s: (one.at_s ?? 0) + (one.lasts_s ?? 0.5) + 0.5 })}>look</button>}
            </span>
          </li>
        ))}
      </ul>
    </section>
  )
}
