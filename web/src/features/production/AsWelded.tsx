import { t } from '@lingui/core/macro'

import type { WeldDetail } from '../../api/types'
import { digits } from '../../session/language'
import { MarkIcon } from '../../ui/Verdict'

type Reading = number | { mean: number } | null | undefined
const mean = (reading: Reading) => (typeof reading === 'object' ? reading?.mean : reading)
const shown = (value: number | null | undefined, places = 0) =>
  value === null || value === undefined ? '–' : digits(value.toFixed(places))

/** Readings of a weld, pass by pass, and what of them leaves the WPS. */
export function AsWelded({ weld }: { weld: WeldDetail }) {
  if (weld.passes.length === 0) return null
  return (
    <section className="panel overflow-x-auto px-3 py-2" aria-label={t`As welded`}>
      <table className="w-full text-[14px]">
        <thead>
          <tr className="text-left font-head">
            {[t`Pass`, t`A`, t`V`, t`mm/min`, t`kJ/mm`, t`Against the WPS`].map((words) => (
              <th key={words} scope="col" className="pr-3">
                {words}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {weld.passes.map((one, at) => {
            const judged = weld.judged[at]
            const against = judged?.findings.filter((found) => found.verdict === 'violates') ?? []
            const decided = judged?.findings.length && judged.findings.every((found) => found.verdict !== 'undecided')
            return (
              <tr key={one.number} className="align-top">
                <td className="pr-3">{one.number}</td>
                <td className="pr-3">{shown(mean(one.current_a))}</td>
                <td className="pr-3">{shown(mean(one.voltage_v), 1)}</td>
                <td className="pr-3">{shown(judged?.travel_mm_min)}</td>
                <td className="pr-3">{shown(judged?.heat_input_kj_mm, 2)}</td>
                <td>
                  {against.length === 0 ? (
                    <MarkIcon mark={decided ? 'holds' : 'unknown'} size={10} />
                  ) : (
                    against.map((found) => (
                      <span key={found.rule} className="flex items-baseline gap-1.5">
                        <MarkIcon mark="breach" size={10} silent />
                        {found.message}
                      </span>
                    ))
                  )}
                </td>
              </tr>
            )
          })}
        </tbody>
      </table>
    </section>
  )
}
