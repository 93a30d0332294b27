import { t } from '@lingui/core/macro'
import { Fragment } from 'react'

import type { BeadFigure, BeadPrediction } from '../../api/types'
import { rangeText, unitOf } from '../../domain/quantity'
import { digits, fixed } from '../../session/language'
import { useUnits } from '../../session/units'

const GROUPS: readonly (readonly [BeadFigure['group'], string])[] = [
  ['bead', t`Bead and fusion`],
  ['arc', t`Arc`],
  ['heat', t`Heat`],
  ['shielding', t`Shielding and colour`],
  ['distortion', t`Distortion`],
]
const LEVELS: Readonly<Record<BeadFigure['level'], readonly [string, string]>> = {
  '': ['', ''],
  fine: ['●', 'text-holds'],
  watch: ['▲', 'text-caution'],
  bad: ['■', 'text-breach'],
}
const LEVEL_WORDS: Readonly<Record<BeadFigure['level'], string>> = {
  '': '',
  fine: t`fine`,
  watch: t`to be watched`,
  bad: t`bad`,
}

/** Figures of up to four settings side by side, with their bands and where they come from. */
export function FiguresTable({ items, names }: { items: readonly BeadPrediction[]; names: readonly string[] }) {
  const keys = GROUPS.map(([group, words]) => {
    const found = new Map<string, string>()
    for (const item of items)
      for (const one of item.figures) if (one.group === group && !found.has(one.key)) found.set(one.key, one.title)
    return { group, words, rows: [...found] }
  })
  return (
    <table className="w-full text-[13px]" aria-label={t`Figures of the settings`}>
      <thead>
        <tr className="text-left text-steel2">
          <th className="py-1 font-normal">{items.length > 1 ? t`Side by side` : t`Figure`}</th>
          {names.map((name) => (
            <th key={name} className="py-1 pl-3 font-semibold text-ink">
              {name}
            </th>
          ))}
        </tr>
      </thead>
      <tbody>
        {keys
          .filter((one) => one.rows.length > 0)
          .map(({ group, words, rows }) => (
            <Fragment key={group}>
              <tr>
                <th
                  colSpan={names.length + 1}
                  scope="colgroup"
                  className="pt-3 pb-0.5 text-left text-[12px] text-steel2"
                >
                  {words}
                </th>
              </tr>
              {rows.map(([key, title]) => (
                <tr key={key} className="border-t border-hair align-top">
                  <th scope="row" className="py-1 pr-2 text-left font-normal">
                    {title}
                  </th>
                  {items.map((item, index) => (
                    <FigureCell
                      key={names[index]}
                      figure={item.figures.find((one) => one.key === key)}
                      wide={items.length === 1}
                    />
                  ))}
                </tr>
              ))}
            </Fragment>
          ))}
      </tbody>
    </table>
  )
}

function FigureCell({ figure, wide }: { figure: BeadFigure | undefined; wide: boolean }) {
  const text = useFigureText()
  if (!figure) return <td className="py-1 pl-3 text-steel2">–</td>
  if (figure.no_model)
    return (
      <td className="py-1 pl-3 text-steel2">
        {t`No model.`} {figure.no_model}
      </td>
    )
  const { value, band } = text(figure)
  const [sign, colour] = LEVELS[figure.level]
  return (
    <td className="py-1 pl-3">
      <span className="inline-flex flex-wrap items-baseline gap-x-1.5 empty:hidden">
        {sign && (
          <span className={colour} role="img" aria-label={LEVEL_WORDS[figure.level]}>
            {sign}
          </span>
        )}
        {figure.swatch && (
          <span
            aria-hidden
            className="inline-block h-3 w-5 self-center rounded-sm border border-edge"
            style={{ background: figure.swatch }}
          />
        )}
        {value && <b className="tabular-nums">{value}</b>}
        {band && <span className="text-steel2 tabular-nums">{band}</span>}
      </span>
      {figure.words && <span className="block">{figure.words}</span>}
      {wide && (
        <span className="block text-[12px] text-steel2">
          {[figure.error, figure.source].filter(Boolean).join(' · ')}
        </span>
      )}
    </td>
  )
}

/** Their numbers are points that only put settings in order. */
const IN_WORDS = new Set(['spatter', 'stability', 'porosity'])

/** A figure's number and its band as the person reads them. */
function useFigureText() {
  const units = useUnits()
  return (figure: BeadFigure): { value: string; band: string } => {
    if (figure.value === null || IN_WORDS.has(figure.key)) return { value: '', band: '' }
    const kind = figure.quantity && figure.quantity !== 'number' ? units.kind(figure.quantity) : null
    const unit = kind ? unitOf(kind, units.system) : figure.unit
    const said = (low: number, high: number) =>
      kind
        ? digits(rangeText({ min: low, max: high }, kind, units.system))
        : low === high
          ? plainNumber(low)
          : `${plainNumber(low)}–${plainNumber(high)}`
    const exact = figure.low === null || figure.high === null || figure.high - figure.low < 1e-9
    return {
      value: `${said(figure.value, figure.value)} ${unit}`.trim(),
      band: exact ? '' : `(${said(figure.low ?? 0, figure.high ?? 0)})`,
    }
  }
}

function plainNumber(value: number): string {
  const size = Math.abs(value)
  return fixed(value, size >= 100 ? 0 : size >= 10 ? 1 : 2)
}
