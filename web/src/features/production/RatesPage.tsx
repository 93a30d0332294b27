import { t } from '@lingui/core/macro'
import { Trans } from '@lingui/react/macro'
import { useQuery } from '@tanstack/react-query'
import { useState } from 'react'

import type { RejectRateLine } from '../../api/types'
import { ratesQuery, type RateBy } from '../../queries/production'
import { useJob } from '../../session/job'
import { digits } from '../../session/language'
import { Choice } from '../../ui/Choice'
import { Labelled } from '../../ui/Labelled'
import { Notice } from '../../ui/Notice'
import { ProductionHead } from './ProductionHead'
import { METHODS, METHOD_WORDS, type Method } from './states'

const BY: readonly [RateBy, string][] = [
  ['welder', t`by welder`],
  ['wps', t`by WPS`],
  ['position', t`by position`],
  ['month', t`by month`],
]
const OF: Record<RateBy, string> = { welder: t`Welder`, wps: t`WPS`, position: t`Position`, month: t`Month` }
const FEW = 20

/** How often welds were rejected, with the interval that the number of welds leaves open. */
export function RatesPage() {
  const { job } = useJob()
  return job ? <OfJob key={job.id} jobId={job.id} /> : <ProductionHead more={t`Reject rates`} />
}

function OfJob({ jobId }: { jobId: number }) {
  const [by, setBy] = useState<RateBy>('welder')
  const [method, setMethod] = useState<Method | ''>('')
  const rates = useQuery(ratesQuery(jobId, by, method))
  return (
    <div className="px-5 py-4">
      <ProductionHead more={t`Reject rates`} />
      <div className="mb-3 flex flex-wrap gap-3">
        <div className="w-40">
          <Labelled words={t`Grouped`}>
            <Choice
              label={t`Grouped`}
              value={by}
              options={BY}
              onChange={(next: RateBy | null) => next && setBy(next)}
            />
          </Labelled>
        </div>
        <div className="w-64">
          <Labelled words={t`Method of testing`}>
            <Choice
              label={t`Method of testing`}
              value={method || null}
              none={t`all methods`}
              options={METHODS.map((one) => [one, METHOD_WORDS[one]])}
              onChange={(next: Method | null) => setMethod(next ?? '')}
            />
          </Labelled>
        </div>
      </div>
      {rates.isError && <Notice mark="breach">{rates.error.message}</Notice>}
      {rates.data?.length === 0 && (
        <p className="panel p-4 text-steel">
          <Trans>No weld of this job was inspected yet.</Trans>
        </p>
      )}
      {rates.data && rates.data.length > 0 && <Table lines={rates.data} by={by} />}
      <p className="mt-3 max-w-2xl text-[13px] text-steel2">
        <Trans>
          The bar is the interval that holds the true rate at 95 % confidence (Clopper and Pearson, 1934). Two welders
          whose bars overlap widely are not shown to differ. A weld counts as rejected where any result ever rejected
          it; its repair is a weld of its own.
        </Trans>
      </p>
    </div>
  )
}

const percent = (share: number) => `${digits((100 * share).toFixed(1))} %`

function Table({ lines, by }: { lines: readonly RejectRateLine[]; by: RateBy }) {
  const top = Math.max(0.05, ...lines.map((one) => one.rate.high))
  return (
    <div className="panel overflow-x-auto">
      <table className="w-full text-[14px]">
        <thead>
          <tr className="border-b border-line text-left font-head">
            <th scope="col" className="px-3 py-1.5">
              {OF[by]}
            </th>
            <th scope="col" className="px-2 py-1.5 text-right">{t`Inspected`}</th>
            <th scope="col" className="px-2 py-1.5 text-right">{t`Rejected`}</th>
            <th scope="col" className="px-2 py-1.5 text-right">{t`Reject rate`}</th>
            <th scope="col" className="px-2 py-1.5 text-right">{t`95 % interval`}</th>
            <th scope="col" className="w-[38%] px-2 py-1.5">
              <span className="flex justify-between font-sans text-[12px] font-normal text-steel2">
                <span>{percent(0)}</span>
                <span>{percent(top)}</span>
              </span>
            </th>
          </tr>
        </thead>
        <tbody>
          {lines.map((one) => (
            <Line key={one.of} line={one} top={top} />
          ))}
        </tbody>
      </table>
    </div>
  )
}

function Line({ line, top }: { line: RejectRateLine; top: number }) {
  const { rate } = line
  const low = percent(rate.low)
  const high = percent(rate.high)
  return (
    <tr className="border-b border-line">
      <td className="px-3 py-1.5">{line.of || t`not stated`}</td>
      <td className="px-2 py-1.5 text-right">{rate.inspected}</td>
      <td className="px-2 py-1.5 text-right">{rate.rejected}</td>
      <td className="px-2 py-1.5 text-right font-semibold">{rate.share === null ? '–' : percent(rate.share)}</td>
      <td className="px-2 py-1.5 text-right whitespace-nowrap">
        {t`${low} to ${high}`}
        {rate.inspected < FEW && <div className="text-[12px] text-steel2">{t`few welds`}</div>}
      </td>
      <td className="px-2 py-1.5">
        <svg viewBox="0 0 100 12" preserveAspectRatio="none" className="block h-3 w-full" aria-hidden="true">
          <rect x="0" y="5.5" width="100" height="1" className="fill-line" />
          <rect
            x={(100 * rate.low) / top}
            y="3"
            width={(100 * (rate.high - rate.low)) / top}
            height="6"
            className="fill-accent opacity-35"
          />
          {rate.share !== null && (
            <rect x={(100 * rate.share) / top - 0.4} y="1" width="0.8" height="10" className="fill-accent" />
          )}
        </svg>
      </td>
    </tr>
  )
}
