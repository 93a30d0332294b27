import { t } from '@lingui/core/macro'
import { Trans } from '@lingui/react/macro'
import { useQuery } from '@tanstack/react-query'
import { useState } from 'react'
import { Link, useParams } from 'react-router'

import type { RangeItem, Ranges } from '../../api/types'
import { inWords } from '../../domain/words'
import { Notice } from '../../ui/Notice'
import { PageTitle } from '../../ui/PageTitle'
import { RangeCell } from '../../ui/RangeCell'
import { CouponTabs } from '../evidence'
import { CoversBox } from './CoversBox'
import { rangesQuery } from '../../queries/qualification'

export function RangePage() {
  const id = Number(useParams().id)
  const found = useQuery({ ...rangesQuery(id), enabled: Number.isInteger(id) })
  if (found.data) return <Page id={id} ranges={found.data} />
  if (found.isError)
    return (
      <div className="p-5">
        <Notice mark="breach">
          {found.error.message}{' '}
          <Link className="link" to="/coupons">
            <Trans>All coupons</Trans>
          </Link>
        </Notice>
      </div>
    )
  return (
    <p className="p-5 text-steel">
      <Trans>Opening …</Trans>
    </p>
  )
}

/** Whether two codes read a variable differently. */
const differ = (items: (RangeItem | null)[]) =>
  new Set(items.map((one) => one && JSON.stringify([one.kind, one.min, one.max, one.values]))).size > 1

const keyOf = (item: RangeItem) =>
  [
    item.process ?? '',
    item.filler_diameter_mm ?? '',
    item.role ?? '',
    item.member ?? '',
    item.weld === 'cjp-groove' ? '' : (item.weld ?? ''),
  ].join('|')

const WELD_WORDS: Record<string, string> = {
  groove: t`grooves`,
  fillet: t`fillets`,
  'cjp-groove': t`CJP grooves`,
  'pjp-groove': t`PJP grooves`,
}

/** What tells one part of a variable from another: its process, size, runs, member or weld. */
function scopeOf(item: RangeItem): string {
  return [
    item.process,
    item.filler_diameter_mm && t`${item.filler_diameter_mm} mm`,
    item.role && (item.role === 'root' ? inWords('root') : t`fill and cap`),
    item.member && t`member ${item.member}`,
    item.weld && item.weld !== 'cjp-groove' && WELD_WORDS[item.weld],
  ]
    .filter(Boolean)
    .join(', ')
}

function Page({ id, ranges }: { id: number; ranges: Ranges }) {
  const [shown, setShown] = useState<ReadonlySet<string>>(
    () => new Set(ranges.ranges.filter((one) => one.own).map((one) => one.short)),
  )
  const [free, setFree] = useState(false)
  const [apart, setApart] = useState(false)
  const columns = ranges.ranges.filter((one) => shown.has(one.short))
  const toggle = (short: string) =>
    setShown((before) => {
      const next = new Set(before)
      if (next.has(short)) next.delete(short)
      else next.add(short)
      return next.size > 0 ? next : before
    })
  return (
    <div className="px-5 py-4">
      <div className="mb-3 flex flex-wrap items-center gap-x-4 gap-y-1">
        <div className="min-w-0">
          <PageTitle words={t`Range of ${ranges.record_number}`} className="truncate" />
          <p className="text-[14px] text-steel2">
            <Trans>coupon {ranges.coupon_number} · dots are what was tested, brackets what that qualifies</Trans>
          </p>
        </div>
        <CouponTabs id={id} />
        <fieldset className="ml-auto flex flex-wrap items-center gap-x-4 text-[13px]">
          <legend className="sr-only">
            <Trans>Codes side by side</Trans>
          </legend>
          {ranges.ranges.map((one) => (
            <label key={one.short} className="flex items-center gap-1.5">
              <input type="checkbox" checked={shown.has(one.short)} onChange={() => toggle(one.short)} />
              {one.short}
              {one.own && t` (its own)`}
            </label>
          ))}
          <label className="flex items-center gap-1.5">
            <input type="checkbox" checked={free} onChange={() => setFree(!free)} />
            <Trans>what is free, too</Trans>
          </label>
          {columns.length > 1 && (
            <label className="flex items-center gap-1.5">
              <input type="checkbox" checked={apart} onChange={() => setApart(!apart)} />
              <Trans>only where they differ</Trans>
            </label>
          )}
        </fieldset>
      </div>
      <div className="grid grid-cols-[minmax(0,1fr)_290px] gap-4 max-md:grid-cols-1">
        <div className="min-w-0">
          <Validity columns={columns} />
          {ranges.groups.map((group) => (
            <Group
              key={group}
              group={group}
              ranges={ranges}
              columns={columns}
              free={free}
              apart={apart && columns.length > 1}
            />
          ))}
        </div>
        <CoversBox couponId={id} code={ranges.ranges.find((one) => one.own)?.code ?? null} />
      </div>
    </div>
  )
}

function Validity({ columns }: { columns: Ranges['ranges'] }) {
  return (
    <div className="mb-3 grid gap-2">
      {columns.flatMap((one) =>
        one.range.findings.map((finding) => (
          <Notice
            key={one.short + finding.title + finding.path}
            mark={finding.verdict === 'violates' ? 'breach' : 'unknown'}
            className="text-[13px]"
          >
            <b>
              {one.short}: {finding.title}.
            </b>{' '}
            {finding.message} {finding.remedy}
          </Notice>
        )),
      )}
    </div>
  )
}

function Group({
  group,
  ranges,
  columns,
  free,
  apart,
}: {
  group: string
  ranges: Ranges
  columns: Ranges['ranges']
  free: boolean
  apart: boolean
}) {
  const variables = ranges.variables.filter((one) => one.group === group)
  const rows = variables
    .flatMap((variable) => {
      const keys = [
        ...new Set(
          columns.flatMap((one) => one.range.items.filter((item) => item.variable === variable.name).map(keyOf)),
        ),
      ]
      return keys.map((key) => ({
        variable,
        key,
        items: columns.map(
          (one) => one.range.items.find((item) => item.variable === variable.name && keyOf(item) === key) ?? null,
        ),
      }))
    })
    .filter((row) => free || row.items.some((item) => item !== null && item.kind !== 'any'))
    .filter((row) => !apart || differ(row.items))
  if (rows.length === 0) return null
  return (
    <section aria-label={group} className="panel mb-3 overflow-x-auto">
      <table className="w-full table-fixed text-[13px]">
        <thead className="text-left text-[12px] text-steel2">
          <tr>
            <th scope="col" className="w-48 px-2.5 py-1.5 font-head text-[15px] font-semibold text-ink">
              {group}
            </th>
            {columns.map((one) => (
              <th key={one.short} scope="col" className="px-2.5 py-1.5 font-medium">
                {one.short}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {rows.map((row) => (
            <tr key={row.variable.name + row.key} className="border-t border-hair align-top">
              <th scope="row" className="px-2.5 py-1.5 text-left font-medium">
                {row.variable.title}
                <small className="block font-normal text-steel2">
                  {scopeOf(row.items.find((item) => item !== null) as RangeItem)}
                </small>
              </th>
              {row.items.map((item, index) => (
                <td key={columns[index]?.short} className="px-2.5 py-1.5">
                  {item ? (
                    <RangeCell item={item} quantity={row.variable.quantity} others={row.items} />
                  ) : (
                    <span className="text-steel2">—</span>
                  )}
                </td>
              ))}
            </tr>
          ))}
        </tbody>
      </table>
    </section>
  )
}
