import { useQuery } from '@tanstack/react-query'

import type { TungstenKind } from '../../api/types'
import { useUnits } from '../../app/units'
import { Notice } from '../../ui/Notice'
import { Sources } from '../../ui/Sources'
import { tungstensQuery } from '../procedures'
import { Facts, Rows } from './Rows'
import { Used } from './Used'
import { listedUsedQuery } from './queries'

// Tip colours as they are ground-marked; they name a thing and judge nothing.
const TIPS: Record<string, string> = { green: '#2e8b57', grey: '#8d9499', black: '#1b2126', gold: '#c9a227', blue: '#2f6fb0', yellow: '#e3c520', red: '#c0392b', violet: '#7d4aa0', brown: '#7a4a2b', white: '#ffffff' }

/** Tungsten types with their colours, and what each diameter carries. */
export function TungstenTab({ text }: { text: string }) {
  const units = useUnits()
  const found = useQuery(tungstensQuery)
  const wanted = text.trim().toLowerCase()
  const types = (found.data?.types ?? []).filter((one) => [one.iso, one.aws, ...one.also, one.colour, one.older, one.addition].join(' ').toLowerCase().includes(wanted))
  const families = (ranges: readonly { min: number; max: number }[]) => ranges.map((one) => `${String(one.min)}–${String(one.max)}`).join(' or ') || '—'
  if (found.isError) return <Notice mark="breach">{found.error.message}</Notice>
  if (!found.data) return null
  return (
    <>
      {types.length === 0 && <p className="panel p-6 text-steel">No tungsten by that name or colour.</p>}
      <Rows label="Tungsten types" heads={['ISO 6848', 'AWS A5.12', 'Addition', 'Tip', 'Also called', 'DCEN', 'AC']}
        lines={types.map((one) => ({
          key: one.iso,
          cells: [one.iso, one.aws, one.addition, <Tip key="tip" one={one} />, one.also.join(', ') || '—', one.dcen || 'varies', one.ac || 'varies'],
          details: () => <Details one={one} />,
        }))} />
      <h2 className="mt-5 mb-2 text-[18px]">What a tungsten carries in argon, A</h2>
      <table className="panel text-[13px] tabular-nums" aria-label="Currents of tungsten">
        <thead className="label text-left">
          <tr className="border-b border-line">{['Diameter', 'DCEN, with oxide', 'AC, with oxide', 'DCEN, pure', 'AC, pure', 'DCEP'].map((words) => <th key={words} className="px-3 py-1.5 font-medium">{words}</th>)}</tr>
        </thead>
        <tbody>
          {found.data.oxide.map((row, index) => (
            <tr key={row.diameter_mm} className="border-b border-hair">
              <td className="px-3 py-1 font-semibold">{units.value(row.diameter_mm, 'wire_diameter')} {units.unit('wire_diameter')}</td>
              <td className="px-3 py-1">{families(row.dcen)}</td>
              <td className="px-3 py-1">{families(row.ac)}</td>
              <td className="px-3 py-1">{families(found.data.pure[index]?.dcen ?? [])}</td>
              <td className="px-3 py-1">{families(found.data.pure[index]?.ac ?? [])}</td>
              <td className="px-3 py-1">{families(row.dcep)}</td>
            </tr>
          ))}
        </tbody>
      </table>
      <p className="mt-1 text-[12px] text-steel2">Two published families differ; both are shown.</p>
      <Sources citations={[found.data.citation]} />
    </>
  )
}

function Tip({ one }: { one: TungstenKind }) {
  const colour = TIPS[one.colour]
  return (
    <span className="flex items-center gap-1.5">
      {colour && <i className="inline-block size-3 rounded-full border border-edge" style={{ background: colour }} aria-hidden="true" />}
      {one.colour}
    </span>
  )
}

function Details({ one }: { one: TungstenKind }) {
  const used = useQuery(listedUsedQuery('tungsten', one.iso))
  return (
    <div className="grid grid-cols-3 gap-6">
      <Facts words="To know">
        <p>{one.older || 'This colour never meant another type.'}</p>
        {one.thoriated && <p className="mt-1">Grinding dust is slightly radioactive: extraction, or choose another type. Local rules and qualified people decide.</p>}
      </Facts>
      <Facts words="Source"><Sources citations={[one.citation]} /></Facts>
      <Facts words="Used in"><Used found={used} /></Facts>
    </div>
  )
}
