import { plural, t } from '@lingui/core/macro'
import { Trans } from '@lingui/react/macro'
import { useQuery } from '@tanstack/react-query'
import { useState } from 'react'
import { Link, useNavigate } from 'react-router'

import type { Weld, WeldsAsked } from '../../api/types'
import { weldsQuery } from '../../queries/production'
import { useJob } from '../../session/job'
import { useSession } from '../../session/session'
import { Button } from '../../ui/Button'
import { NOT_QUALIFIED, standingSaid } from '../../ui/NamedWelders'
import { Notice } from '../../ui/Notice'
import { useSettled } from '../../ui/useSettled'
import { MarkIcon } from '../../ui/Verdict'
import { Filters } from './Filters'
import { ProductionHead } from './ProductionHead'
import { STATE_MARK, STATE_WORDS } from './states'

/** Every weld of the job as it was made, found by any of its facts. */
export function LogPage() {
  const { job } = useJob()
  return job ? <OfJob key={job.id} jobId={job.id} /> : <ProductionHead more={t`Weld log`} />
}

function OfJob({ jobId }: { jobId: number }) {
  const [asked, setAsked] = useState<WeldsAsked>({})
  const settled = useSettled(asked, 250)
  const { may } = useSession()
  const log = useQuery(weldsQuery(jobId, settled))
  const total = log.data?.total ?? 0
  const query = new URLSearchParams(
    Object.entries(settled).flatMap(([name, value]) =>
      name === 'before' || value === null || value === '' ? [] : [[name, String(value)]],
    ),
  )
  return (
    <div className="px-5 py-4">
      <ProductionHead more={t`Weld log`}>{may('LOG_WELD') && <OpenJoint />}</ProductionHead>
      <Filters jobId={jobId} asked={asked} onAsk={setAsked} />
      {log.isError && <Notice mark="breach">{log.error.message}</Notice>}
      {log.data && (
        <>
          <div className="mb-2 flex flex-wrap items-baseline gap-4">
            <b className="font-head text-[17px]" role="status">
              {log.data.more
                ? t`more than ${total} welds`
                : plural(total, { 0: 'no weld', one: '# weld', other: '# welds' })}
            </b>
            <a className="link" href={`/api/jobs/${String(jobId)}/welds/file?kind=xlsx&${query.toString()}`}>
              <Trans>Download as XLSX</Trans>
            </a>
            {asked.before && (
              <Button look="quiet" onClick={() => setAsked({ ...asked, before: null })}>
                <Trans>Back to the latest</Trans>
              </Button>
            )}
          </div>
          {log.data.welds.length > 0 && <Table welds={log.data.welds} />}
          {log.data.next !== null && (
            <Button className="mt-2" onClick={() => setAsked({ ...asked, before: log.data.next })}>
              <Trans>Earlier welds</Trans>
            </Button>
          )}
        </>
      )}
    </div>
  )
}

/** By its mark a joint is opened, as its QR code does. */
function OpenJoint() {
  const navigate = useNavigate()
  const [mark, setMark] = useState('')
  return (
    <form
      className="ml-auto flex items-end gap-2"
      onSubmit={(event) => {
        event.preventDefault()
        if (mark.trim()) void navigate(`/production/joint?mark=${encodeURIComponent(mark.trim())}`)
      }}
    >
      <label className="w-36">
        <span className="label">{t`Mark of the joint`}</span>
        <input className="field" value={mark} autoComplete="off" onChange={(event) => setMark(event.target.value)} />
      </label>
      <Button type="submit" look="main">
        <Trans>Log a weld</Trans>
      </Button>
    </form>
  )
}

function Table({ welds }: { welds: readonly Weld[] }) {
  return (
    <div className="panel overflow-x-auto">
      <table className="w-full text-[14px]">
        <thead>
          <tr className="border-b border-line text-left font-head">
            {[t`Weld`, t`Welded on`, t`WPS`, t`Welders`, t`Filler batches`, t`Heats`, t`Results`, t`State`].map(
              (words) => (
                <th key={words} scope="col" className="px-2 py-1.5 first:px-3">
                  {words}
                </th>
              ),
            )}
          </tr>
        </thead>
        <tbody>
          {welds.map((one) => (
            <tr key={one.id} className="border-b border-line align-top">
              <td className="px-3 py-1.5">
                <Link className="link font-head font-semibold" to={`/production/welds/${String(one.id)}`}>
                  {one.mark} / {one.item}
                  {one.repair_of !== null && ` ${t`repair`}`}
                </Link>
                <div className="max-w-xs truncate text-[12.5px] text-steel2" title={one.joint}>
                  {one.joint}
                </div>
              </td>
              <td className="px-2 py-1.5 whitespace-nowrap">{one.welded_on}</td>
              <td className="px-2 py-1.5 whitespace-nowrap">
                <span className="flex items-baseline gap-1.5" title={one.against.join(' ')}>
                  {one.fit !== 'covered' && <MarkIcon mark={one.fit === 'open' ? 'unknown' : 'breach'} size={10} />}
                  {one.wps}
                </span>
              </td>
              <td className="px-2 py-1.5">
                <span
                  className="flex items-baseline gap-1.5"
                  title={one.qualified
                    .flatMap((each) => (each.standing === 'may' ? [] : [standingSaid(each)]))
                    .join(' ')}
                >
                  {one.qualified.some((each) => NOT_QUALIFIED.includes(each.standing)) && (
                    <MarkIcon mark="breach" size={10} />
                  )}
                  {one.welders.join(', ')}
                </span>
              </td>
              <td className="px-2 py-1.5">{one.batches.join(', ') || '–'}</td>
              <td className="px-2 py-1.5">{one.heats.join(', ') || '–'}</td>
              <td className="px-2 py-1.5">
                {one.results
                  .filter((result) => !result.struck_reason)
                  .map((result) => (
                    <span key={result.id} className="mr-2 inline-flex items-baseline gap-1 whitespace-nowrap">
                      <MarkIcon mark={result.accepted ? 'holds' : 'breach'} size={10} />
                      {result.method}
                    </span>
                  ))}
              </td>
              <td className="px-2 py-1.5">
                <span className="flex items-baseline gap-1.5 whitespace-nowrap">
                  <MarkIcon mark={STATE_MARK[one.state]} size={10} silent />
                  {STATE_WORDS[one.state]}
                </span>
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  )
}
