import { plural, t } from '@lingui/core/macro'
import { Trans } from '@lingui/react/macro'
import { keepPreviousData, useQuery } from '@tanstack/react-query'
import { useMemo, useRef, useState } from 'react'
import { Link, useSearchParams } from 'react-router'

import type { Book, BookNumber, BookTable } from '../../api/types'
import { useSession } from '../../session/session'
import { Button } from '../../ui/Button'
import { Choice } from '../../ui/Choice'
import { Notice } from '../../ui/Notice'
import { PageTitle } from '../../ui/PageTitle'
import { TextField } from '../../ui/TextField'
import { useSettled } from '../../ui/useSettled'
import { MarkIcon } from '../../ui/Verdict'
import { BookImport } from './BookImport'
import { NumberDialog } from './NumberDialog'
import { bookQuery, touchedQuery } from '../../queries/qualification'
import { inWords } from '../../domain/words'
import { locale } from '../../session/language'

export const STATUS: Record<string, string> = {
  memory: t`from memory`,
  published: t`published`,
  practice: t`common practice`,
  confirmed: t`confirmed`,
  corrected: t`corrected`,
}
const SHOW = [
  ['all', t`every number`],
  ['unconfirmed', t`not confirmed yet`],
  ['said', t`confirmed or corrected`],
] as const

/** Every number of every code: where it stands, how it came here, what the owner of a copy said of it. */
export function BookPage() {
  const [search] = useSearchParams()
  const [code, setCode] = useState('')
  const book = useQuery({ ...bookQuery(code, search.get('row') ?? ''), placeholderData: keepPreviousData })
  if (book.data) return <Page book={book.data} onCode={setCode} />
  if (book.isError)
    return (
      <div className="p-5">
        <Notice mark="breach">{book.error.message}</Notice>
      </div>
    )
  return (
    <p className="p-5 text-steel">
      <Trans>Opening …</Trans>
    </p>
  )
}

const words = (text: string) => text.toLowerCase().replaceAll(/[_.-]/g, ' ')

function Page({ book, onCode }: { book: Book; onCode: (code: string) => void }) {
  const { may } = useSession()
  const [search, setSearch] = useSearchParams()
  const row = search.get('row')
  const [text, setText] = useState<string | null>(null)
  const [show, setShow] = useState<string>('all')
  const [open, setOpen] = useState<BookNumber | null>(null)
  const [taking, setTaking] = useState(false)
  const asked = words(useSettled(text ?? ''))
  const said = useMemo(() => new Map(book.entries.map((one) => [one.number_id, one])), [book])
  const counts = book.parts.reduce((sum, one) => ({ all: sum.all + one.numbers, said: sum.said + one.said }), {
    all: 0,
    said: 0,
  })
  const tables = book.part.tables
    .map((table) => ({
      table,
      rows: table.rows.filter((one) => {
        if (row) return `${table.id}/${one.key}` === row || table.id === row
        const hit =
          asked === '' ||
          words(
            `${table.title} ${table.clause} ${one.key} ${one.clause} ${one.numbers.map((n) => n.column).join(' ')}`,
          ).includes(asked)
        const done = one.numbers.some((number) => number.status === 'confirmed' || number.status === 'corrected')
        return (
          hit &&
          (show === 'all' ||
            (show === 'said'
              ? done
              : one.numbers.some((number) => number.status !== 'confirmed' && number.status !== 'corrected')))
        )
      }),
    }))
    .filter((one) => one.rows.length > 0)
  return (
    <div className="px-5 py-4">
      <div className="mb-3 flex flex-wrap items-end gap-x-4 gap-y-2">
        <div className="w-full">
          <PageTitle words={t`Code book`} />
          <p className="text-[13px] text-steel2">
            <Trans>
              {counts.all.toLocaleString(locale())} numbers, {counts.said} confirmed or corrected by the owner of a
              copy; each of the others says where it comes from
            </Trans>
          </p>
        </div>
        <div className="w-72">
          <Choice
            label={t`Code or subject`}
            value={book.part.code}
            options={book.parts.map((one) => [one.code, one.title.split(',')[0] ?? one.title] as const)}
            onChange={(next) => {
              onCode(next ?? '')
              setSearch({})
            }}
          />
        </div>
        <div className="w-64">
          <TextField
            label={t`Search rules and clauses`}
            placeholder={t`preheat, table 6.5, hardness …`}
            value={text}
            onChange={(next) => {
              setText(next)
              if (row) setSearch({})
            }}
          />
        </div>
        <div className="w-48">
          <Choice
            label={t`Which numbers`}
            value={show}
            options={SHOW}
            onChange={(next) => {
              setShow(next ?? 'all')
              if (row) setSearch({})
            }}
          />
        </div>
        <span className="ml-auto flex gap-2">
          <a
            className="rounded-sm border border-line bg-panel px-3 py-1.5 font-head text-[15px] font-medium"
            href="/api/book/export"
            download=""
          >
            <Trans>Export changes</Trans>
          </a>
          {may('CORRECT_BOOK') && (
            <Button onClick={() => setTaking(true)}>
              <Trans>Import corrections</Trans>
            </Button>
          )}
        </span>
      </div>
      <Touched />
      {row && (
        <p className="mb-2 text-[13px]">
          <Trans>One row is shown. </Trans>
          <button type="button" className="link" onClick={() => setSearch({})}>
            <Trans>Show the whole book</Trans>
          </button>
        </p>
      )}
      {tables.length === 0 && (
        <p className="panel p-5 text-steel">
          <Trans>Nothing of that name here.</Trans>
        </p>
      )}
      {tables.map(({ table, rows }) => (
        <TableCard
          key={table.id}
          table={table}
          rows={rows}
          open={row !== null || asked !== '' || show !== 'all'}
          onOpen={setOpen}
        />
      ))}
      {open && (
        <NumberDialog
          key={open.id}
          number={open}
          entries={book.entries.filter((one) => one.number_id === open.id)}
          standing={said.get(open.id)}
          onClose={() => setOpen(null)}
        />
      )}
      <BookImport open={taking} onClose={() => setTaking(false)} />
    </div>
  )
}

function Touched() {
  const touched = useQuery(touchedQuery)
  if (!touched.data || touched.data.length === 0) return null
  return (
    <Notice className="mb-3 text-[13px]" mark={touched.data.some((one) => !one.covered_after) ? 'breach' : 'caution'}>
      <b>
        {plural(touched.data.length, {
          one: 'Code-book changes affect # procedure in production.',
          other: 'Code-book changes affect # procedures in production.',
        })}
      </b>
      <ul className="mt-1 grid gap-0.5">
        {touched.data.map((one) => (
          <li key={one.revision_id}>
            <Link className="link" to={`/procedures/${String(one.revision_id)}`}>
              {one.number} {one.letter}
            </Link>
            , {inWords(one.stage)}:{' '}
            {one.covered_after ? t`still covered` : t`no longer covered. ${one.blocking[0] ?? ''}`}{' '}
            <span className="text-steel2">{one.changes.join('; ')}</span>
          </li>
        ))}
      </ul>
    </Notice>
  )
}

function TableCard({
  table,
  rows,
  open,
  onOpen,
}: {
  table: BookTable
  rows: BookTable['rows']
  open: boolean
  onOpen: (number: BookNumber) => void
}) {
  const details = useRef<HTMLDetailsElement>(null)
  return (
    <details ref={details} className="panel mb-2" open={open || undefined}>
      <summary className="flex cursor-pointer items-baseline gap-3 px-3 py-2">
        <b className="font-head text-[16px]">{table.title}</b>
        <span className="text-[12.5px] text-steel2">
          {table.edition ? `${table.document}:${table.edition}` : table.document}, {table.clause}
          {table.earlier && ` (${table.earlier})`} · {STATUS[table.provenance]}
        </span>
        <span className="ml-auto text-[12.5px] text-steel2">
          {plural(rows.length, { one: '# row', other: '# rows' })}
        </span>
      </summary>
      {table.notes.map((one) => (
        <p key={one} className="px-3 text-[12.5px] text-steel">
          {one}
        </p>
      ))}
      <ul className="px-3 pb-2 text-[13px]">
        {rows.map((one) => (
          <li
            key={one.key}
            className="grid grid-cols-[15rem_minmax(0,1fr)] gap-3 border-t max-sm:grid-cols-1 border-hair py-1.5"
          >
            <span className="min-w-0">
              <b className="break-words">{one.key}</b>
              <small className="block text-steel2">
                {one.clause !== table.clause && `${one.clause} · `}
                <Trans>confidence {one.confidence}</Trans>
              </small>
            </span>
            <span className="flex flex-wrap gap-x-2 gap-y-1">
              {one.numbers.map((number) => (
                <button
                  key={number.id}
                  type="button"
                  onClick={() => onOpen(number)}
                  title={STATUS[number.status]}
                  className="flex items-baseline gap-1 rounded-sm border border-line px-1.5 py-0.5 hover:border-edge"
                >
                  <span className="text-[12px] text-steel2">{number.column.replaceAll('_', ' ')}</span>
                  <b className="font-medium">{valueText(number.value)}</b>
                  {number.status === 'confirmed' && <MarkIcon mark="holds" size={9} />}
                  {number.status === 'corrected' && <MarkIcon mark="caution" size={9} />}
                </button>
              ))}
            </span>
          </li>
        ))}
      </ul>
    </details>
  )
}

export function valueText(value: unknown): string {
  if (Array.isArray(value)) return value.map(valueText).join(', ') || 'none'
  if (value === true) return t`yes`
  if (value === false) return t`no`
  if (value !== null && typeof value === 'object')
    return (
      Object.entries(value)
        .map(([name, one]) => `${name.replaceAll('_', ' ')} ${valueText(one)}`)
        .join(', ') || 'none'
    )
  return String(value) || 'none'
}
