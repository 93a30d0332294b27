import { t } from '@lingui/core/macro'
import { Trans } from '@lingui/react/macro'
import type { Evaluation } from '../../api/types'
import { Sources } from '../../ui/Sources'
import { fixed } from '../../session/language'

const shown = (value: number | null | undefined, digits: number) => (value == null ? '—' : fixed(value, digits))

/** Weld metal, filler, gas and time: per metre, and for the length of the joint where it is stated. */
export function UsePanel({ evaluation }: { evaluation: Evaluation }) {
  const { use } = evaluation
  if (!use)
    return (
      <p className="p-3 text-[13px] text-steel2">
        <Trans>Metal and time are reckoned once the joint is drawn and has a pass.</Trans>
      </p>
    )
  const { length_m: length } = use
  const rows: [string, string, number | null | undefined, number][] = [
    [t`Weld metal`, 'kg', use.weld_metal_kg_m, 3],
    [t`Filler bought`, 'kg', use.filler_kg_m, 3],
    [t`Gas`, 'L', use.gas_l_m, 0],
    [t`Arc time`, 'min', use.arc_min_m, 1],
    [t`At the joint, about`, 'min', use.at_joint_min_m, 0],
  ]
  return (
    <div className="grid gap-5 text-[13px] min-[1180px]:grid-cols-2">
      <section aria-label={t`Metal and time of the joint`}>
        <h3 className="text-[15px]">
          <Trans>Of the joint</Trans>
        </h3>
        <table className="w-full">
          <thead className="label text-left">
            <tr>
              <th className="font-medium">
                <Trans>What</Trans>
              </th>
              <th className="font-medium">
                <Trans>a metre</Trans>
              </th>
              <th className="font-medium">{length == null ? t`whole` : t`whole, ${length} m`}</th>
            </tr>
          </thead>
          <tbody>
            {rows.map(([what, unit, value, digits]) => (
              <tr key={what} className="border-t border-hair">
                <td className="py-0.5">{what}</td>
                <td className="py-0.5 whitespace-nowrap">
                  {shown(value, digits)} <span className="text-steel2">{unit}</span>
                </td>
                <td className="py-0.5">
                  {length == null || value == null ? (
                    '—'
                  ) : (
                    <>
                      {shown(value * length, Math.max(digits - 1, 0))} <span className="text-steel2">{unit}</span>
                    </>
                  )}
                </td>
              </tr>
            ))}
            <tr className="border-t border-hair">
              <td className="py-0.5">
                <Trans>Waits, about</Trans>
              </td>
              <td className="py-0.5">—</td>
              <td className="py-0.5">
                {use.waits_min == null ? (
                  '—'
                ) : (
                  <>
                    {shown(use.waits_min, 0)}{' '}
                    <span className="text-steel2">
                      <Trans>min</Trans>
                    </span>
                  </>
                )}
              </td>
            </tr>
            <tr className="border-t border-hair font-semibold">
              <td className="py-0.5">
                <Trans>First to last arc</Trans>
              </td>
              <td className="py-0.5">—</td>
              <td className="py-0.5">
                {use.elapsed_min == null ? (
                  '—'
                ) : (
                  <>
                    {shown(use.elapsed_min, 0)}{' '}
                    <span className="font-normal text-steel2">
                      <Trans>min</Trans>
                    </span>
                  </>
                )}
              </td>
            </tr>
          </tbody>
        </table>
        {length == null && (
          <p className="mt-1 text-[12px] text-steel2">
            <Trans>State the length of the weld to have the whole joint reckoned.</Trans>
          </p>
        )}
        <p className="mt-1 text-[12px] text-steel2">
          <Trans>Times at the joint and waits are estimates; shops differ by half.</Trans>
        </p>
        <Sources citations={use.citations} />
      </section>
      <section aria-label={t`Metal and time by pass`}>
        <h3 className="text-[15px]">
          <Trans>By pass, a metre</Trans>
        </h3>
        <table className="w-full">
          <thead className="label text-left">
            <tr>
              {[t`Pass`, t`bead, mm²`, t`metal, kg`, t`filler, kg`, t`gas, L`, t`arc, min`].map((one) => (
                <th key={one} className="font-medium">
                  {one}
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {use.passes.map((one) => (
              <tr key={one.pass_number} className="border-t border-hair">
                <td className="py-0.5">{one.pass_number}</td>
                <td className="py-0.5">
                  {shown(evaluation.section?.beads.find((bead) => bead.pass_number === one.pass_number)?.area_mm2, 1)}
                </td>
                <td className="py-0.5">{shown(one.weld_metal_kg_m, 3)}</td>
                <td className="py-0.5">{shown(one.filler_kg_m, 3)}</td>
                <td className="py-0.5">{shown(one.gas_l_m, 0)}</td>
                <td className="py-0.5">{shown(one.arc_min_m, 1)}</td>
              </tr>
            ))}
          </tbody>
        </table>
      </section>
    </div>
  )
}
