import type { Coupon, PassResult } from '../../api/types'
import { useUnits } from '../../app/units'
import { meanOf } from '../../domain/reading'
import { temper } from '../../domain/temper'
import { MarkIcon } from '../../ui/Verdict'

type Props = { coupon: Coupon; current: number; onPick: ((rowId: number) => void) | null; onFlags: (rowId: number) => void; onPhotos: (rowId: number) => void }

/** The ladder filling up: root at the bottom, planned passes empty until they are welded. */
export function LogLadder({ coupon, current, onPick, onFlags, onPhotos }: Props) {
  const units = useUnits()
  const results = new Map(coupon.log.passes.map((one) => [one.pass_number, one]))
  const rows = new Map(coupon.rows.map((row) => [row.record.number, row]))
  const planned = new Map(coupon.procedure.passes.map((one) => [one.number, one]))
  const numbers = [...new Set([...planned.keys(), ...rows.keys()])].sort((a, b) => b - a)
  return (
    <section aria-label="Log" className="panel overflow-x-auto p-3">
      <table className="w-full text-[13px] tabular-nums">
        <thead className="label text-left">
          <tr className="border-b border-line">
            <th className="py-1 font-medium">Pass</th>
            <th className="font-medium">Before, {units.unit('temperature')}</th>
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
              <tr key={number} className={`border-b border-hair ${number === current ? 'bg-accent-soft' : ''}`} data-logged={row ? number : undefined} title={row ? writtenBy(row) : undefined}>
                <td className="py-1.5 whitespace-nowrap">
                  <span className="mr-1.5 inline-grid size-6 place-items-center rounded-full text-[12px] font-semibold text-white" style={{ background: temper(result?.heat_input_kj_mm) }}>{number}</span>
                  <span className="font-head text-[14px] font-semibold">{planned.get(number)?.role ?? 'not planned'}</span>
                </td>
                {record && result ? (
                  <>
                    <td>{record.before_c == null ? <span className="text-steel2">not read</span> : units.value(record.before_c, 'temperature')}</td>
                    <td>{mean(record.current_a, 'current', units)}</td>
                    <td>{mean(record.voltage_v, 'voltage', units)}</td>
                    <td>{result.travel_mm_min == null ? '—' : units.value(result.travel_mm_min, 'travel')}</td>
                    <td className="font-semibold">{result.heat_input_kj_mm == null ? '—' : units.value(result.heat_input_kj_mm, 'heat_input')}</td>
                    <td className="text-right whitespace-nowrap">
                      {record.flags.length > 0 && (
                        <button type="button" className="link p-1" onClick={() => onFlags(row.id)} aria-label={`Flags of pass ${String(number)}`}
                          title={record.flags.map((one) => one.title).join('; ')}>
                          {record.flags.length === 1 ? '1 flag' : `${String(record.flags.length)} flags`}{record.flags.every((one) => one.explanation) ? ', explained' : ''}
                        </button>
                      )}{' '}
                      <Flags result={result} />{' '}
                      <button type="button" className="link p-1" onClick={() => onPhotos(row.id)} aria-label={`Photos of pass ${String(number)}`}>{row.photos.length > 0 ? `${String(row.photos.length)} photo${row.photos.length === 1 ? '' : 's'}` : 'photo'}</button>{' '}
                      {onPick && <button type="button" className="link p-1" onClick={() => onPick(row.id)} aria-label={`Correct pass ${String(number)}`}>correct</button>}
                    </td>
                  </>
                ) : (
                  <td colSpan={6} className="text-steel2">{number === current ? 'being welded' : 'to weld'}</td>
                )}
              </tr>
            )
          })}
        </tbody>
      </table>
      {coupon.struck.length > 0 && (
        <details className="mt-2 text-[13px] text-steel2">
          <summary>{coupon.struck.length} voided</summary>
          <ul>{coupon.struck.map((one, index) => <li key={index}>pass {one.number}, logged by {one.logged_by}, voided by {one.struck_by || 'somebody'}: {one.reason}</li>)}</ul>
        </details>
      )}
    </section>
  )
}

/** Who logged it and when, by the server's clock, with what the device's clock said. */
function writtenBy(row: Coupon['rows'][number]): string {
  const time = new Date(row.ended_at).toLocaleTimeString([], { hour: '2-digit', minute: '2-digit' })
  const off = row.device_offset_s
  const clock = off !== null && Math.abs(off) > 2 ? `; the clock of that device was ${Math.abs(off).toFixed(0)} s ${off > 0 ? 'ahead' : 'behind'}` : ''
  const corrected = row.corrected_by ? `; corrected by ${row.corrected_by}` : ''
  return `logged by ${row.logged_by}, arc ended ${time}${clock}${corrected}`
}

function mean(reading: Coupon['rows'][number]['record']['current_a'], kind: string, units: ReturnType<typeof useUnits>): string {
  const value = meanOf(reading)
  return value === null ? '—' : units.value(value, kind)
}

function Flags({ result }: { result: PassResult }) {
  const breaches = result.findings.filter((one) => one.verdict === 'violates')
  if (breaches.length === 0) return <MarkIcon mark="holds" />
  return (
    <span className="font-semibold text-breach" title={breaches.map((one) => `${one.title}: ${one.message}`).join('\n')}>
      <MarkIcon mark="breach" /> out of range
    </span>
  )
}
