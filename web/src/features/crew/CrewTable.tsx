import { t } from '@lingui/core/macro'
import { useVirtualizer } from '@tanstack/react-virtual'
import { useRef } from 'react'
import { Link } from 'react-router'

import type { JobCrew } from '../../api/types'
import { MarkIcon, type Mark } from '../../ui/Verdict'

const ROW_PX = 44
const CELL_PX = 40
const COUNT_PX = 80
const HEAD_PX = 470
const HEAD = { flex: `1 0 ${String(HEAD_PX)}px` }
/** Letters of the table: how somebody stands to a joint type. */
const CELLS: Record<string, { mark: Mark; words: string } | undefined> = {
  m: { mark: 'holds', words: t`may weld it` },
  o: { mark: 'unknown', words: t`not decided: a fact is missing` },
  l: { mark: 'caution', words: t`the certificate has lapsed` },
  b: { mark: 'breach', words: t`not qualified for this` },
}

type Props = { jobId: number; crew: JobCrew; types: JobCrew['types']; needed: number }

/** Joint types against people: only the rows that are seen are drawn. */
export function CrewTable({ jobId, crew, types, needed }: Props) {
  const scroller = useRef<HTMLDivElement>(null)
  const columns = HEAD_PX + COUNT_PX + crew.people.length * CELL_PX
  const places = new Map(crew.types.map((one, at) => [one.key, at]))
  // eslint-disable-next-line react-hooks/incompatible-library -- lists are long: only what is seen is drawn
  const virtual = useVirtualizer({
    count: types.length,
    getScrollElement: () => scroller.current,
    estimateSize: () => ROW_PX,
    overscan: 10,
  })
  return (
    <>
      <Legend />
      <div
        ref={scroller}
        role="table"
        tabIndex={0}
        aria-label={t`Joint types and who may weld them`}
        aria-rowcount={types.length + 1}
        className="panel max-h-[52vh] overflow-auto text-[14px]"
      >
        <div
          role="row"
          className="sticky top-0 z-20 flex border-b border-line bg-panel font-head font-semibold"
          style={{ minWidth: columns }}
        >
          <span
            role="columnheader"
            className="sticky left-0 z-10 flex shrink-0 items-end bg-panel px-3 py-1"
            style={HEAD}
          >
            {t`Joint type`}
          </span>
          <span
            role="columnheader"
            className="flex shrink-0 items-end justify-end px-2 py-1"
            style={{ width: COUNT_PX }}
          >{t`May weld`}</span>
          {crew.people.map((one) => (
            <span
              key={one.id}
              role="columnheader"
              className="flex shrink-0 items-end justify-center border-l border-line py-1"
              style={{ width: CELL_PX }}
              title={one.name}
            >
              <Link
                className="link block max-h-32 min-w-6 truncate"
                style={{ writingMode: 'vertical-rl' }}
                to={`/crew/${String(one.id)}`}
              >
                {one.name}
              </Link>
            </span>
          ))}
        </div>
        <div role="rowgroup" className="relative" style={{ height: virtual.getTotalSize(), minWidth: columns }}>
          {virtual.getVirtualItems().map(({ index, start }) => {
            const one = types[index]
            if (!one) return null
            const at = places.get(one.key) ?? 0
            return (
              <div
                key={one.key}
                role="row"
                aria-rowindex={index + 2}
                className="absolute flex w-full border-b border-line bg-panel"
                style={{ top: start, height: ROW_PX }}
              >
                <TypeHead jobId={jobId} type={one} />
                <span
                  role="cell"
                  style={{ width: COUNT_PX }}
                  className={`flex shrink-0 items-center justify-end px-2 font-semibold ${one.may < needed ? 'text-breach' : ''}`}
                >
                  {one.may}
                </span>
                {crew.people.map((person) => (
                  <Standing key={person.id} name={person.name} letter={person.cells[at] ?? ''} />
                ))}
              </div>
            )
          })}
        </div>
      </div>
    </>
  )
}

function TypeHead({ jobId, type }: { jobId: number; type: JobCrew['types'][number] }) {
  const asked = `mark=${encodeURIComponent(type.mark)}&job=${String(jobId)}&revision=${String(type.revision_id)}`
  const said = [type.words, ...type.asked, ...type.open].join('\n')
  return (
    <span
      role="rowheader"
      className="sticky left-0 z-10 flex shrink-0 items-center gap-2 bg-panel px-3"
      style={HEAD}
      title={said}
    >
      <Link className="link w-10 shrink-0 py-0.5 font-semibold" to={`/crew/who-may?${asked}`}>
        {type.key}
      </Link>
      <span className="line-clamp-2 min-w-0 flex-1 leading-[1.25]">{type.words}</span>
      <span className="shrink-0 text-[13px] text-steel">{type.wps}</span>
    </span>
  )
}

function Standing({ name, letter }: { name: string; letter: string }) {
  const cell = CELLS[letter]
  const words = cell?.words ?? t`no certificate of this code`
  return (
    <span
      role="cell"
      className="flex shrink-0 items-center justify-center border-l border-line"
      style={{ width: CELL_PX }}
      title={`${name}: ${words}`}
    >
      {cell ? <MarkIcon mark={cell.mark} size={12} silent /> : <span aria-hidden>·</span>}
      <span className="sr-only">{words}</span>
    </span>
  )
}

function Legend() {
  return (
    <ul className="flex flex-wrap gap-x-5 text-[13px] text-steel">
      {Object.values(CELLS).map(
        (one) =>
          one && (
            <li key={one.words} className="flex items-center gap-1.5">
              <MarkIcon mark={one.mark} size={11} silent />
              {one.words}
            </li>
          ),
      )}
      <li>· {t`no certificate of this code`}</li>
    </ul>
  )
}
