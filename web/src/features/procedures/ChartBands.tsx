import { t } from '@lingui/core/macro'
import { Trans } from '@lingui/react/macro'
import type { PassBands, Range, SourceBands } from '../../api/types'
import { useUnits } from '../../session/units'
import { ROLES } from '../../domain/words'
import { Band } from '../../ui/Band'
import { MarkIcon } from '../../ui/Verdict'

const COLUMNS = [
  ['current_a', 'current', t`Amps`, 'current_scale_a'],
  ['voltage_v', 'voltage', t`Volts`, 'voltage_scale_v'],
  ['wire_feed_m_min', 'wire_feed', t`Feed`, 'wire_feed_scale_m_min'],
] as const

type Props = { groups: readonly PassBands[]; title?: string; typed?: boolean }

/** What charts, sheets, own trials and the code say of the same passes, each quantity on one scale. */
export function ChartBands({ groups, title = t`Charts, trials and limits beside the proposal`, typed = false }: Props) {
  const units = useUnits()
  if (groups.length === 0) return null
  return (
    <section aria-label={title} className="mt-4">
      <h2 className="border-b border-line pb-1 text-[17px]">{title}</h2>
      {groups.map((group) => {
        const shown = COLUMNS.filter(([, , , scale]) => group[scale])
        const role = ROLES.find(([key]) => key === group.role)?.[1] ?? group.role
        const last = group.passes.at(-1)
        return (
          <table key={group.passes.join()} className="panel mt-2 w-full table-fixed text-[13px]">
            <caption className="label pb-1 text-left">
              {group.passes.length > 1
                ? t`Passes ${group.passes[0] ?? 0} to ${last ?? 0}`
                : t`Pass ${group.passes[0] ?? 0}`}
              , {role}
            </caption>
            <thead className="label text-left">
              <tr className="border-b border-line">
                <th className="w-[21%] px-2.5 py-1.5 font-medium">
                  <Trans>Source</Trans>
                </th>
                {shown.map(([field, kind, words]) => (
                  <th key={field} className="w-[15%] px-2.5 py-1.5 font-medium">
                    {words}, {units.unit(kind)}
                  </th>
                ))}
                <th className="px-2.5 py-1.5 font-medium">
                  <Trans>How it compares</Trans>
                </th>
              </tr>
            </thead>
            <tbody>
              {group.sources.map((source, index) => (
                <tr key={index} className="border-b border-hair align-top">
                  <td className={`px-2.5 py-1.5 break-words ${source.kind === 'own' ? 'font-semibold' : ''}`}>
                    {source.source}
                  </td>
                  {shown.map(([field, kind, words, scale]) => (
                    <Cell
                      key={field}
                      range={source[field]}
                      scale={group[scale]}
                      kind={kind}
                      words={t`${words} of ${source.source}`}
                      own={source.kind === 'own'}
                    />
                  ))}
                  <td className="px-2.5 py-1.5">
                    <Compared source={source} typed={typed} />
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
        )
      })}
    </section>
  )
}

function Cell({
  range,
  scale,
  kind,
  words,
  own,
}: {
  range: Range | null | undefined
  scale: Range | null | undefined
  kind: string
  words: string
  own: boolean
}) {
  const units = useUnits()
  if (!range || !scale) return <td className="px-2.5 py-1.5 text-steel2">—</td>
  const text = units.range(range, kind)
  return (
    <td className="px-2.5 py-1.5 tabular-nums">
      {text}
      <Band
        scale={scale}
        range={{ min: Math.max(range.min, scale.min), max: Math.min(range.max, scale.max) }}
        label={`${words}: ${text}`}
        height={12}
        {...(own ? {} : { colour: 'var(--color-steel2)' })}
      />
    </td>
  )
}

const WITHIN: Partial<Record<SourceBands['kind'], string>> = {
  code: t`these passes keep within the limit`,
  product: t`the sheet of this product`,
}

function Compared({ source, typed }: { source: SourceBands; typed: boolean }) {
  if (source.kind === 'own')
    return (
      <span className="text-steel2">
        <Trans>the ranges of these passes</Trans>
      </span>
    )
  if (source.differs.length > 0)
    return (
      <span className="flex items-start gap-1.5">
        <span className="mt-0.5">
          <MarkIcon mark={source.wrong ? 'breach' : 'caution'} />
        </span>
        <span>
          {source.differs.join(' ')}
          {source.kind === 'chart' && !typed ? t` Not followed.` : ''}
        </span>
      </span>
    )
  if (source.followed)
    return (
      <span className="flex items-start gap-1.5">
        <span className="mt-0.5">
          <MarkIcon mark="holds" />
        </span>
        <span>{WITHIN[source.kind] ?? t`for just this; these passes keep inside it`}</span>
      </span>
    )
  return (
    <span className="text-steel2">
      {source.kind === 'trial'
        ? t`kept; offered before every estimate`
        : t`for just this, but these passes go beyond it`}
    </span>
  )
}
