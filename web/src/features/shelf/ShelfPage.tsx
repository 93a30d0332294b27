import { keepPreviousData, useQuery } from '@tanstack/react-query'
import { useState } from 'react'

import type { MetalFound } from '../../api/types'
import { useUnits } from '../../app/units'
import { Notice } from '../../ui/Notice'
import { Sources } from '../../ui/Sources'
import { TextField } from '../../ui/TextField'
import { useSettled } from '../../ui/useSettled'
import { shelfQuery } from './queries'

/** The catalogue of base metals: searched as one types, one opened at a time. */
export function ShelfPage() {
  const [text, setText] = useState<string | null>(null)
  const [open, setOpen] = useState<string | null>(null)
  const asked = useSettled(text ?? '')
  const found = useQuery({ ...shelfQuery(asked), placeholderData: keepPreviousData })
  const metals = found.data ?? []
  return (
    <div className="px-5 py-4">
      <div className="mb-3 flex items-end gap-4">
        <h1 className="text-[25px]">Shelf</h1>
        <div className="w-80">
          <TextField label="Search the metals" value={text} onChange={setText} placeholder="304, S690, duplex, 6061-T6 …" />
        </div>
        <p role="status" className="pb-1 text-[13px] text-steel2">{found.data ? `${String(metals.length)} base metals` : ''}</p>
      </div>
      {found.isError && <Notice mark="breach">{found.error.message}</Notice>}
      {found.data && metals.length === 0 && (
        <p className="panel p-6 text-steel">No base metal by that name. Try a number, a family such as “austenitic”, or a standard.</p>
      )}
      {metals.length > 0 && (
        <table className="panel w-full text-[13px]">
          <thead className="label text-left">
            <tr className="border-b border-line">
              {['Metal', 'Standard', 'Family', 'Condition', 'Group ISO/TR 15608', 'AWS D1.1', 'Yield, MPa', 'Tensile, MPa'].map((words) => (
                <th key={words} className="px-2.5 py-1.5 font-medium">{words}</th>
              ))}
            </tr>
          </thead>
          <tbody>
            {metals.map((one) => (
              <Row key={one.name} one={one} open={open === one.name} onOpen={() => setOpen(open === one.name ? null : one.name)} />
            ))}
          </tbody>
        </table>
      )}
    </div>
  )
}

function Row({ one, open, onOpen }: { one: MetalFound; open: boolean; onOpen: () => void }) {
  const cell = 'px-2.5 py-1.5'
  return (
    <>
      <tr className={`border-b border-hair hover:bg-accent-soft ${open ? 'bg-accent-soft' : ''}`}>
        <td className={`${cell} font-semibold`}>
          <button type="button" className="link text-left" aria-expanded={open} onClick={onOpen}>{one.name}</button>
        </td>
        <td className={cell}>{one.standard}</td>
        <td className={cell}>{one.family}</td>
        <td className={cell}>{one.condition}</td>
        <td className={cell}>{one.iso_15608}</td>
        <td className={cell}>{one.aws_d1_1 ?? '—'}</td>
        <td className={`${cell} tabular-nums`}>{one.yield_mpa ?? '—'}</td>
        <td className={`${cell} tabular-nums`}>{one.tensile_mpa}</td>
      </tr>
      {open && (
        <tr className="border-b border-line">
          <td colSpan={8} className="px-2.5 py-3"><Details one={one} /></td>
        </tr>
      )}
    </>
  )
}

function Details({ one }: { one: MetalFound }) {
  const units = useUnits()
  return (
    <div className="grid grid-cols-3 gap-6">
      <dl>
        <dt className="label">Also called</dt>
        <dd className="mb-1.5">{one.also.join(', ') || 'nothing else known here'}</dd>
        <dt className="label">Group {one.iso_15608}</dt>
        <dd className="mb-1.5">{one.reason}</dd>
        <dt className="label">Magnet</dt>
        <dd>{one.family === 'nickel' ? 'sticks to some' : one.magnetic ? 'sticks' : 'does not stick'}</dd>
      </dl>
      <div>
        <h2 className="label">Minimum yield by thickness</h2>
        <ul className="tabular-nums">
          {one.yield_steps_mpa.map(([top, value]) => (
            <li key={top}>up to {units.value(Number(top), 'thickness')} {units.unit('thickness')}: {value} MPa</li>
          ))}
        </ul>
      </div>
      <div>
        <h2 className="label">Chemistry that matters, %</h2>
        <p className="tabular-nums">
          {Object.entries(one.chemistry).map(([element, [low, high]]) => `${element} ${Number(low) > 0 ? `${String(low)}–${String(high)}` : `≤ ${String(high)}`}`).join(' · ')}
        </p>
        <Sources citations={[one.citation]} />
      </div>
    </div>
  )
}
