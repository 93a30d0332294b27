import { plural, t } from '@lingui/core/macro'
import { Trans } from '@lingui/react/macro'
import { Link } from 'react-router'

import type { Coupon, PassResult } from '../../api/types'
import { useUnits } from '../../session/units'
import { meanOf } from '../../domain/reading'
import { temper } from '../../domain/temper'
import { MarkIcon } from '../../ui/Verdict'
import { inWords } from '../../domain/words'
import { locale, fixed } from '../../session/language'

type Props = {
  coupon: Coupon
  current: number
  onPick: ((rowId: number) => void) | null
  onFlags: (rowId: number) => void
  onPhotos: (rowId: number) => void
}

/** The ladder filling up: root at the bottom, planned passes empty until they are welded. */
export function LogLadder({ coupon, current, onPick, onFlags, onPhotos }: Props) {
  const units = useUnits()
  const results = new Map(coupon.log.passes.map((one) => [one.pass_number, one]))
  const rows = new Map(coupon.rows.map((row) => [row.record.number, row]))
  const planned = new Map(coupon.procedure.passes.map((one) => [one.number, one]))
  const numbers = [...new Set([...planned.keys(), ...rows.keys()])].sort((a, b) => b - a)
  return (
    <section aria-label={t`Log`} className="panel overflow-x-auto p-3">
      <table className="w-full text-[13px] tabular-nums [&_td]:pr-2 [&_th]:pr-2">
        <thead className="label text-left">
          <tr className="border-b border-line">
            <th className="py-1 font-medium">
              <Trans>Pass</Trans>
            </th>
            <th className="font-medium">
              <Trans>Before, {units.unit('temperature')}</Trans>
            </th>
            <th className="font-medium">A</th>
            <th className="font-medium">V</th>
            <th className="font-medium">{units.unit('travel')}</th>
            <th className="font-medium">{units.unit('heat_input')}</th>
            <th />
          </tr>
        </thead>
        <tbody>
          {numbers.map((number) => {
            const row = rows.get(number)
            const result = results.get(number)
            const record = row?.record
            return (
              <tr
                key={number}
                className={`border-b border-hair ${number === current ? 'bg-accent-soft' : ''}`}
                data-logged={row ? number : undefined}
                title={row ? writtenBy(row) : undefined}
              >
                <td className="py-1.5 whitespace-nowrap">
                  <span
                    className="mr-1.5 inline-grid size-6 place-items-center rounded-full text-[12px] font-semibold text-white"
                    style={{ background: temper(result?.heat_input_kj_mm) }}
                  >
                    {number}
                  </span>
                  <span className="font-head text-[14px] font-semibold">
                    {inWords(planned.get(number)?.role ?? t`not planned`)}
                  </span>
                </td>
                {record && result ? (
                  <>
                    <td>
                      {record.before_c == null ? (
                        <span className="text-steel2">
                          <Trans>not read</Trans>
                        </span>
                      ) : (
                        units.value(record.before_c, 'temperature')
                      )}
                    </td>
                    <td>{mean(record.current_a, 'current', units)}</td>
                    <td>{mean(record.voltage_v, 'voltage', units)}</td>
                    <td>{result.travel_mm_min == null ? '—' : units.value(result.travel_mm_min, 'travel')}</td>
                    <td className="font-semibold">
                      {result.heat_input_kj_mm == null ? '—' : units.value(result.heat_input_kj_mm, 'heat_input')}
                    </td>
                    <td>
                      <div className="flex flex-wrap items-center justify-end gap-x-1 whitespace-nowrap">
                        {record.flags.length > 0 && (
                          <button
                            type="button"
                            className="link p-1"
                            onClick={() => onFlags(row.id)}
                            aria-label={t`Flags of pass ${number}`}
                            title={record.flags.map((one) => one.title).join('; ')}
                          >
                            {plural(record.flags.length, { one: '# flag', other: '# flags' })}
                            {record.flags.every((one) => one.explanation) ? t`, explained` : ''}
                          </button>
                        )}
                        <Flags result={result} />
                        {(record.flags.length > 0 || result.findings.some((one) => one.verdict === 'violates')) && (
                          <Link
                            className="link p-1"
                            to={`/faults?pass=${row.id}`}
                            aria-label={t`Find the cause on pass ${number}`}
                          >
                            <Trans>cause</Trans>
                          </Link>
                        )}
                        <button
                          type="button"
                          className="link p-1"
                          onClick={() => onPhotos(row.id)}
                          aria-label={t`Photos of pass ${number}`}
                        >
                          {row.photos.length > 0
                            ? plural(row.photos.length, { one: '# photo', other: '# photos' })
                            : t`photo`}
                        </button>
                        {onPick && (
                          <button
                            type="button"
                            className="link p-1"
                            onClick={() => onPick(row.id)}
                            aria-label={t`Correct pass ${number}`}
                          >
                            <Trans>correct</Trans>
                          </button>
                        )}
                      </div>
                    </td>
                  </>
                ) : (
                  <td colSpan={6} className="text-steel2">
                    {number === current ? t`being welded` : t`to weld`}
                  </td>
                )}
              </tr>
            )
          })}
        </tbody>
      </table>
      {coupon.struck.length > 0 && (
        <details className="mt-2 text-[13px] text-steel2">
          <summary>
            <Trans>{coupon.struck.length} voided</Trans>
          </summary>
          <ul>
            {coupon.struck.map((one, index) => (
              <li key={index}>
                <Trans>
                  pass {one.number}, logged by {one.logged_by}, voided by
                </Trans>{' '}
                {one.struck_by || t`somebody`}: {one.reason}
              </li>
            ))}
          </ul>
        </details>
      )}
    </section>
  )
}

/** Who logged it and when, by the server's clock, with what the device's clock said. */
function writtenBy(row: Coupon['rows'][number]): string {
  const time = new Date(row.ended_at).toLocaleTimeString(locale(), { hour: '2-digit', minute: '2-digit' })
  const off = row.device_offset_s
  const clock =
    off !== null && Math.abs(off) > 2
      ? t`; the clock of that device was ${fixed(Math.abs(off), 0)} s ${off > 0 ? t`ahead` : t`behind`}`
      : ''
  const corrected = row.corrected_by ? t`; corrected by ${row.corrected_by}` : ''
  return t`logged by ${row.logged_by}, arc ended ${time}${clock}${corrected}`
}

function mean(
  reading: Coupon['rows'][number]['record']['current_a'],
  kind: string,
  units: ReturnType<typeof useUnits>,
): string {
  const value = meanOf(reading)
  return value === null ? '—' : units.value(value, kind)
}

function Flags({ result }: { result: PassResult }) {
  const breaches = result.findings.filter((one) => one.verdict === 'violates')
  if (breaches.length === 0) return <MarkIcon mark="holds" />
  return (
    <span
      className="font-semibold text-breach"
      title={breaches.map((one) => `${one.title}: ${one.message}`).join('\n')}
    >
      <MarkIcon mark="breach" /> <Trans>out of range</Trans>
    </span>
  )
}
