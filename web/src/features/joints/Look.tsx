import { plural, t } from '@lingui/core/macro'
import { Trans } from '@lingui/react/macro'

import type { ListLook } from '../../api/types'
import { Choice } from '../../ui/Choice'
import { Answer } from './Answer'
import type { How } from './ImportDialog'
import { titlesOf } from './columns'

type Props = {
  seen: ListLook
  how: How
  onHow: (next: How) => void
  removeGone: boolean
  onRemoveGone: (next: boolean) => void
}

/** How a file was read: its columns, its questions, what it does to the list that stands. */
export function Look({ seen, how, onHow, removeGone, onRemoveGone }: Props) {
  const meaning = Object.fromEntries(Object.entries(how.headings).map(([column, heading]) => [heading, column]))
  const say = (heading: string, column: string | null) => {
    const headings = Object.fromEntries(
      Object.entries(how.headings).filter(([name, told]) => told !== heading && name !== column),
    )
    onHow({ ...how, headings: column ? { ...headings, [column]: heading } : headings })
  }
  const { joints, with_problems: wrong } = seen
  return (
    <div className="mt-3 grid gap-4">
      <section aria-label={t`Columns`}>
        <h3 className="mb-1 font-head text-[17px] font-semibold">
          <Trans>Columns of the file</Trans>
        </h3>
        <div className="grid max-h-56 grid-cols-[repeat(auto-fill,minmax(160px,1fr))] gap-x-3 gap-y-2 overflow-auto pr-1">
          {seen.headings.map((heading) => (
            <div key={heading} className="min-w-0">
              <span className="label truncate" title={heading}>
                {heading}
              </span>
              <Choice
                label={t`Column ${heading}`}
                value={meaning[heading] ?? null}
                none={t`left out`}
                options={seen.columns.map((one) => [one.name, one.title])}
                onChange={(column: string | null) => say(heading, column)}
              />
            </div>
          ))}
        </div>
      </section>
      {seen.questions.length > 0 && (
        <section aria-label={t`Questions`}>
          <h3 className="mb-1 font-head text-[17px] font-semibold">
            <Trans>Asked once for all rows</Trans>
          </h3>
          <ul className="max-h-56 overflow-auto pr-1">
            {seen.questions.map((one) => (
              <Answer
                key={one.key}
                question={one}
                value={how.answers[one.key] ?? ''}
                onChange={(text) => onHow({ ...how, answers: { ...how.answers, [one.key]: text } })}
              />
            ))}
          </ul>
        </section>
      )}
      <section aria-label={t`What it changes`} className="text-[15px]">
        <p>
          {plural(joints, { one: '# joint', other: '# joints' })}
          {wrong > 0 && <span className="text-breach"> · {t`${wrong} with something to correct; they are kept`}</span>}
        </p>
        <Changes seen={seen} />
        {seen.gone.length > 0 && (
          <label className="mt-1 flex items-center gap-2">
            <input type="checkbox" checked={removeGone} onChange={(event) => onRemoveGone(event.target.checked)} />
            <span>{t`Remove what is gone from these drawings: ${seen.gone.slice(0, 8).join(', ')}`}</span>
          </label>
        )}
      </section>
      <Wrong seen={seen} />
    </div>
  )
}

function Changes({ seen }: { seen: ListLook }) {
  const { added, changed_count: changed, same } = seen
  const gone = seen.gone.length
  const titles = titlesOf(seen.columns)
  if (seen.version === 0) return null
  return (
    <>
      <p className="text-steel">{t`${added} added, ${changed} changed, ${gone} gone, ${same} as before`}</p>
      <ul className="max-h-32 overflow-auto text-[13px]">
        {seen.changed.map((one) => (
          <li key={one.mark}>
            <b>{one.mark}</b>{' '}
            {one.cells
              .map((cell) => `${titles[cell.column] ?? cell.column}: ${cell.before || '–'} → ${cell.after || '–'}`)
              .join('; ')}
          </li>
        ))}
      </ul>
    </>
  )
}

function Wrong({ seen }: { seen: ListLook }) {
  const titles = titlesOf(seen.columns)
  const rows = seen.rows.filter((row) => row.problems.some((one) => !one.asks)).slice(0, 12)
  if (rows.length === 0) return null
  return (
    <ul aria-label={t`To correct`} className="max-h-40 overflow-auto text-[13px]">
      {rows.map((row) => (
        <li key={row.id}>
          <b>{row.cells.mark ?? t`row ${row.id}`}</b>{' '}
          <span className="text-breach">
            {row.problems
              .filter((one) => !one.asks)
              .map((one) => `${titles[one.column] ?? one.column}: ${one.message}`)
              .join(' ')}
          </span>
        </li>
      ))}
    </ul>
  )
}
