import { plural, t } from '@lingui/core/macro'
import { Trans } from '@lingui/react/macro'
import { useQuery } from '@tanstack/react-query'
import type { ReactNode } from 'react'
import { Link } from 'react-router'

import type { ListTotals } from '../../api/types'
import { listTotalsQuery } from '../../queries/joints'
import { useJob } from '../../session/job'
import { digits } from '../../session/language'
import { ListProblem } from '../../ui/ListProblem'
import { Notice } from '../../ui/Notice'
import { JointsHead } from './JointsHead'

/** What the job takes: metal, filler, gas, time and cost, of the welds whose length and WPS are known. */
export function TotalsPage() {
  const { job } = useJob()
  return job ? <OfJob key={job.id} jobId={job.id} /> : <JointsHead more={t`Totals`} />
}

function OfJob({ jobId }: { jobId: number }) {
  const found = useQuery(listTotalsQuery(jobId))
  return (
    <div className="px-5 py-4">
      <JointsHead more={t`Totals`} code={found.data?.code}>
        <a className="link ml-auto" href={`/api/jobs/${String(jobId)}/weld-list/totals/file?kind=xlsx`}>
          <Trans>Download as XLSX</Trans>
        </a>
      </JointsHead>
      {found.isError && <ListProblem error={found.error} />}
      {found.data && <Shown found={found.data} />}
    </div>
  )
}

const shown = (value: number | null | undefined, places = 0) =>
  value === null || value === undefined ? t`not known` : digits(value.toFixed(places))

const amount = (value: number | null | undefined, unit: string, places = 1) =>
  value === null || value === undefined ? t`not known` : `${shown(value, places)} ${unit}`

function Shown({ found }: { found: ListTotals }) {
  const { totals, currency } = found
  const hours = totals.parts.reduce((sum, one) => sum + one.at_joint_h, 0)
  const packs = (one: ListTotals['totals']['fillers'][number]) => {
    const count = one.packs
    const kg = shown(one.pack_kg, 0)
    const { pack } = one
    return count === null || count === undefined ? t`not known` : t`${count} × ${pack} of ${kg} kg`
  }
  return (
    <div className="grid gap-4">
      <p className="panel flex flex-wrap items-baseline gap-x-8 gap-y-1 px-4 py-3 font-head text-[17px]">
        <b>{plural(totals.welds, { one: '# weld counted', other: '# welds counted' })}</b>
        <span>{shown(totals.length_m, 1)} m</span>
        <span>
          <Trans>{shown(totals.weld_metal_kg, 1)} kg weld metal</Trans>
        </span>
        <span>
          <Trans>{shown(hours)} h at the joint</Trans>
        </span>
        <b>
          {shown(totals.cost)} {currency}
        </b>
      </p>
      {totals.left_out.length > 0 && (
        <Notice>
          <b>
            <Trans>Not counted:</Trans>
          </b>{' '}
          {totals.left_out.map((one) => (
            <span key={one.reason} className="mr-4">
              {plural(one.welds, { one: '# weld', other: '# welds' })}, {one.reason} ({one.types.join(', ')}).
            </span>
          ))}
          <Link className="link" to="/joints/wps">
            <Trans>Assign WPSs</Trans>
          </Link>
        </Notice>
      )}
      <div className="grid grid-cols-2 items-start gap-4 max-lg:grid-cols-1">
        <Table
          title={t`Filler`}
          head={[t`Classification`, t`Process`, t`Diameter`, t`Used`, t`To buy`, t`Packs`]}
          rows={totals.fillers.map((one) => [
            one.filler,
            one.process,
            one.diameter_mm ? amount(one.diameter_mm, 'mm') : '–',
            amount(one.used_kg, 'kg'),
            amount(one.bought_kg, 'kg'),
            packs(one),
          ])}
        />
        <Table
          title={t`Shielding gas, while the arc burns`}
          head={[t`Gas`, t`Volume`]}
          rows={Object.entries(totals.gas_l).map(([name, litres]) => [
            name,
            litres === null ? t`not known: a pass states no flow` : `${shown(litres / 1000, 1)} m³`,
          ])}
        />
        <Table
          title={t`By process and position`}
          head={[t`Process and position`, t`Welds`, t`Weld metal`, t`Arc time`, t`Time at the joint`, t`Cost`]}
          rows={totals.hours.map((one) => line(one, currency))}
        />
        <Table
          title={t`By part`}
          head={[t`Part`, t`Welds`, t`Weld metal`, t`Arc time`, t`Time at the joint`, t`Cost`]}
          rows={totals.parts.map((one) => line({ ...one, of: one.of || t`not stated` }, currency))}
        />
      </div>
      <p className="max-w-3xl text-[13px] text-steel2">
        <Trans>
          The joint’s section with its cap is filled by the passes of its WPS: root passes once, the others as often as
          it takes. Time at the joint is an estimate by the usual operating factor. Prices are those of Fewest coupons.
        </Trans>
      </p>
    </div>
  )
}

const line = (one: ListTotals['totals']['hours'][number], currency: string): ReactNode[] => [
  one.of,
  String(one.welds),
  amount(one.weld_metal_kg, 'kg'),
  amount(one.arc_h, 'h'),
  amount(one.at_joint_h, 'h'),
  `${shown(one.cost)} ${currency}`,
]

function Table({ title, head, rows }: { title: string; head: string[]; rows: ReactNode[][] }) {
  if (rows.length === 0) return null
  return (
    <section className="panel overflow-x-auto px-3 py-2" aria-label={title}>
      <h2 className="mb-1 font-head text-[16px] font-semibold">{title}</h2>
      <table className="w-full text-[14px]">
        <thead>
          <tr className="border-b border-line text-left font-head">
            {head.map((words, at) => (
              <th key={words} scope="col" className={`py-1 pr-3 ${at > 0 && head.length > 2 ? 'text-right' : ''}`}>
                {words}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {rows.map((cells, row) => (
            <tr key={row} className="border-b border-line last:border-b-0">
              {cells.map((cell, at) => (
                <td key={at} className={`py-1 pr-3 ${at > 0 && cells.length > 2 ? 'text-right' : ''}`}>
                  {cell}
                </td>
              ))}
            </tr>
          ))}
        </tbody>
      </table>
    </section>
  )
}
