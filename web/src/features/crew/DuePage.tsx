import { t } from '@lingui/core/macro'
import { Trans } from '@lingui/react/macro'
import { useQuery } from '@tanstack/react-query'
import { useState } from 'react'
import { Link } from 'react-router'

import type { DueLine } from '../../api/types'
import { calendarQuery, dueQuery } from '../../queries/crew'
import { Button } from '../../ui/Button'
import { Notice } from '../../ui/Notice'
import { MarkIcon } from '../../ui/Verdict'
import { CrewHead } from './CrewHead'
import { DUE_WORDS, inDays } from './standing'

const PERIODS = [30, 60, 90]

/** What runs out within so many days, and what has, for the page, for print and for calendars. */
export function DuePage() {
  const [days, setDays] = useState(90)
  const due = useQuery(dueQuery(days))
  return (
    <div className="px-5 py-4">
      <CrewHead more={t`What runs out`} />
      <div className="mb-3 flex flex-wrap items-center gap-x-5 gap-y-2 print:hidden">
        <div role="group" aria-label={t`Days ahead`} className="flex gap-1">
          {PERIODS.map((one) => (
            <button
              key={one}
              type="button"
              aria-pressed={one === days}
              className={`rounded-sm border px-3 py-1 font-head ${one === days ? 'border-accent bg-accent text-on-accent' : 'border-line'}`}
              onClick={() => setDays(one)}
            >
              {t`${one} days`}
            </button>
          ))}
        </div>
        <a className="link" href={`/api/crew/due/file?kind=xlsx&days=${String(days)}`}>
          <Trans>Download as XLSX</Trans>
        </a>
        <Button look="quiet" onClick={() => window.print()}>
          <Trans>Print this list</Trans>
        </Button>
      </div>
      {due.isError && <Notice mark="breach">{due.error.message}</Notice>}
      {due.data && (due.data.length > 0 ? <Table lines={due.data} /> : <None days={days} />)}
      <Calendar />
    </div>
  )
}

function None({ days }: { days: number }) {
  return (
    <p className="text-steel" role="status">
      <Trans>Nothing runs out within {days} days, and nothing ran out as lately.</Trans>
    </p>
  )
}

function Table({ lines }: { lines: readonly DueLine[] }) {
  return (
    <div className="panel overflow-x-auto">
      <table className="w-full text-[14px]">
        <thead>
          <tr className="border-b border-line text-left font-head">
            {[t`Last day`, t`Welder`, t`What is due`, t`Certificate`].map((words) => (
              <th key={words} scope="col" className="px-2 py-1.5 first:px-3">
                {words}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {lines.map((one) => (
            <tr key={`${String(one.certificate_id)} ${one.kind}`} className="border-b border-line align-top">
              <td className="px-3 py-1.5 whitespace-nowrap">
                {one.on} <small className="text-steel2">{inDays(one.days)}</small>
              </td>
              <td className="px-2 py-1.5">
                <Link className="link" to={`/crew/${String(one.member_id)}`}>
                  {one.name}
                </Link>
              </td>
              <td className="px-2 py-1.5">
                <span className="flex items-baseline gap-1.5">
                  <MarkIcon mark={one.kind === 'lapsed' ? 'breach' : 'caution'} size={10} silent />
                  {DUE_WORDS[one.kind]}
                </span>
              </td>
              <td className="px-2 py-1.5">
                {one.certificate} <small className="block text-steel2">{one.designation}</small>
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  )
}

function Calendar() {
  const [asked, setAsked] = useState(false)
  const link = useQuery({ ...calendarQuery, enabled: asked })
  return (
    <section className="mt-5 max-w-3xl print:hidden">
      <h2 className="font-head text-[17px] font-semibold">{t`In a calendar`}</h2>
      <p className="mt-1 text-steel">
        <Trans>
          A calendar program can subscribe to these days, with reminders 30 and 7 days before. Whoever has the link
          reads the names: keep it as you keep a password. A new password makes it void.
        </Trans>
      </p>
      {!asked && (
        <Button className="mt-2" onClick={() => setAsked(true)}>
          <Trans>Show the link</Trans>
        </Button>
      )}
      {link.isError && <Notice mark="breach">{link.error.message}</Notice>}
      {link.data && (
        <input
          readOnly
          aria-label={t`Link for a calendar program`}
          className="field mt-2"
          value={link.data.url}
          onFocus={(event) => event.target.select()}
        />
      )}
    </section>
  )
}
