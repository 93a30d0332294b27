import { t } from '@lingui/core/macro'
import { Trans } from '@lingui/react/macro'
import { useQuery } from '@tanstack/react-query'

import type { TungstenKind } from '../../api/types'
import { useUnits } from '../../session/units'
import { Notice } from '../../ui/Notice'
import { Sources } from '../../ui/Sources'
import { tungstensQuery } from '../../queries/procedures'
import { Facts, Rows } from './Rows'
import { Used } from './Used'
import { listedUsedQuery } from '../../queries/library'

// Tip colours as they are ground-marked; they name a thing and judge nothing.
const TIPS: Record<string, string> = {
  green: '#2e8b57',
  grey: '#8d9499',
  black: '#1b2126',
  gold: '#c9a227',
  blue: '#2f6fb0',
  yellow: '#e3c520',
  red: '#c0392b',
  violet: '#7d4aa0',
  brown: '#7a4a2b',
  white: '#ffffff',
}

/** Tungsten types with their colours, and what each diameter carries. */
export function TungstenTab({ text }: { text: string }) {
  const units = useUnits()
  const found = useQuery(tungstensQuery)
  const wanted = text.trim().toLowerCase()
  const types = (found.data?.types ?? []).filter((one) =>
    [one.iso, one.aws, ...one.also, one.colour, one.older, one.addition].join(' ').toLowerCase().includes(wanted),
  )
  const families = (ranges: readonly { min: number; max: number }[]) =>
    ranges.map((one) => `${String(one.min)}–${String(one.max)}`).join(t` or `) || '—'
  if (found.isError) return <Notice mark="breach">{found.error.message}</Notice>
  if (!found.data) return null
  return (
    <>
      {types.length === 0 && (
        <p className="panel p-6 text-steel">
          <Trans>No tungsten by that name or colour.</Trans>
        </p>
      )}
      <Rows
        label={t`Tungsten types`}
        heads={[t`ISO 6848`, t`AWS A5.12`, t`Addition`, t`Tip`, t`Also called`, 'DCEN', 'AC']}
        lines={types.map((one) => ({
          key: one.iso,
          cells: [
            one.iso,
            one.aws,
            one.addition,
            <Tip key="tip" one={one} />,
            one.also.join(', ') || '—',
            one.dcen || t`varies`,
            one.ac || t`varies`,
          ],
          details: () => <Details one={one} />,
        }))}
      />
      <h2 className="mt-5 mb-2 text-[18px]">
        <Trans>What a tungsten carries in argon, A</Trans>
      </h2>
      <table className="panel text-[13px] tabular-nums" aria-label={t`Currents of tungsten`}>
        <thead className="label text-left">
          <tr className="border-b border-line">
            {[t`Diameter`, t`DCEN, with oxide`, t`AC, with oxide`, t`DCEN, pure`, t`AC, pure`, 'DCEP'].map((words) => (
              <th key={words} className="px-3 py-1.5 font-medium">
                {words}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {found.data.oxide.map((row, index) => (
            <tr key={row.diameter_mm} className="border-b border-hair">
              <td className="px-3 py-1 font-semibold">
                {units.value(row.diameter_mm, 'wire_diameter')} {units.unit('wire_diameter')}
              </td>
              <td className="px-3 py-1">{families(row.dcen)}</td>
              <td className="px-3 py-1">{families(row.ac)}</td>
              <td className="px-3 py-1">{families(found.data.pure[index]?.dcen ?? [])}</td>
              <td className="px-3 py-1">{families(found.data.pure[index]?.ac ?? [])}</td>
              <td className="px-3 py-1">{families(row.dcep)}</td>
            </tr>
          ))}
        </tbody>
      </table>
      <p className="mt-1 text-[12px] text-steel2">
        <Trans>Two published families differ; both are shown.</Trans>
      </p>
      <Sources citations={[found.data.citation]} />
    </>
  )
}

function Tip({ one }: { one: TungstenKind }) {
  const colour = TIPS[one.colour]
  return (
    <span className="flex items-center gap-1.5">
      {colour && (
        <i
          className="inline-block size-3 rounded-full border border-edge"
          style={{ background: colour }}
          aria-hidden="true"
        />
      )}
      {one.colour}
    </span>
  )
}

function Details({ one }: { one: TungstenKind }) {
  const used = useQuery(listedUsedQuery('tungsten', one.iso))
  return (
    <div className="grid grid-cols-3 gap-6">
      <Facts words={t`To know`}>
        <p>{one.older || t`This colour never meant another type.`}</p>
        {one.thoriated && (
          <p className="mt-1">
            <Trans>
              Grinding dust is slightly radioactive: extraction, or choose another type. Local rules and qualified
              people decide.
            </Trans>
          </p>
        )}
      </Facts>
      <Facts words={t`Source`}>
        <Sources citations={[one.citation]} />
      </Facts>
      <Facts words={t`Used in`}>
        <Used found={used} />
      </Facts>
    </div>
  )
}
