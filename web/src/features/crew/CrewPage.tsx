import { plural, t } from '@lingui/core/macro'
import { Trans } from '@lingui/react/macro'
import { useQuery } from '@tanstack/react-query'
import { useState } from 'react'
import { Link, useNavigate } from 'react-router'

import type { Crew, CrewMember } from '../../api/types'
import { crewQuery } from '../../queries/crew'
import { useSession } from '../../session/session'
import { Button } from '../../ui/Button'
import { Notice } from '../../ui/Notice'
import { MarkIcon } from '../../ui/Verdict'
import { CrewHead } from './CrewHead'
import { MemberDialog } from './MemberDialog'
import { STANDING_MARK, daysBetween, inDays, standingLine } from './standing'

const SOON_DAYS = 30

/** Everybody who welds, with the certificates as they stand today. */
export function CrewPage() {
  const crew = useQuery(crewQuery)
  const { may } = useSession()
  const navigate = useNavigate()
  const [adding, setAdding] = useState(false)
  const [sought, setSought] = useState('')
  return (
    <div className="px-5 py-4">
      <CrewHead more={t`Welders`}>
        <label className="ml-auto w-52">
          <span className="sr-only">{t`Find by name or mark`}</span>
          <input
            className="field"
            placeholder={t`Find by name or mark`}
            value={sought}
            autoComplete="off"
            onChange={(event) => setSought(event.target.value)}
          />
        </label>
        {may('KEEP_CREW') && (
          <Button look="main" onClick={() => setAdding(true)}>
            <Trans>Add a welder</Trans>
          </Button>
        )}
      </CrewHead>
      {crew.isError && <Notice mark="breach">{crew.error.message}</Notice>}
      {crew.data &&
        (crew.data.members.length === 0 ? (
          <p className="text-steel">
            <Trans>
              Nobody is in the list yet. Add those who weld, by the names that the logs use; then enter their
              certificates.
            </Trans>
          </p>
        ) : (
          <>
            <Summary crew={crew.data} />
            <Table crew={crew.data} sought={sought.trim().toLowerCase()} />
          </>
        ))}
      {adding && (
        <MemberDialog onClose={() => setAdding(false)} onDone={(id) => void navigate(`/crew/${String(id)}`)} />
      )}
    </div>
  )
}

function Summary({ crew }: { crew: Crew }) {
  const here = crew.members.filter((one) => !one.left_on || one.left_on > crew.on)
  const held = here.flatMap((one) => one.certificates)
  const soon = held.filter((one) => one.due && daysBetween(crew.on, one.due.on) <= SOON_DAYS).length
  const lapsed = held.filter((one) => one.standing === 'lapsed').length
  return (
    <p className="mb-2 flex flex-wrap gap-x-5 font-head text-[16px]" role="status">
      <span>{plural(here.length, { one: '# welder', other: '# welders' })}</span>
      {soon > 0 && (
        <Link className="link flex items-baseline gap-1.5" to="/crew/due">
          <MarkIcon mark="caution" size={11} silent />
          {plural(soon, {
            one: `# certificate needs something within ${SOON_DAYS} days`,
            other: `# certificates need something within ${SOON_DAYS} days`,
          })}
        </Link>
      )}
      {lapsed > 0 && (
        <span className="flex items-baseline gap-1.5">
          <MarkIcon mark="breach" size={11} silent />
          {plural(lapsed, { one: '# certificate has lapsed', other: '# certificates have lapsed' })}
        </span>
      )}
    </p>
  )
}

function Table({ crew, sought }: { crew: Crew; sought: string }) {
  const shown = crew.members.filter((one) => `${one.name} ${one.mark}`.toLowerCase().includes(sought))
  return (
    <div className="panel overflow-x-auto">
      <table className="w-full text-[14px]">
        <thead>
          <tr className="border-b border-line text-left font-head">
            <th scope="col" className="w-48 px-3 py-1.5">{t`Welder`}</th>
            <th scope="col" className="w-16 px-2 py-1.5">{t`Mark`}</th>
            <th scope="col" className="px-2 py-1.5">{t`Certificates`}</th>
            <th scope="col" className="w-40 px-2 py-1.5">{t`Next due`}</th>
          </tr>
        </thead>
        <tbody>
          {shown.map((one) => (
            <Row key={one.id} member={one} on={crew.on} />
          ))}
        </tbody>
      </table>
      {shown.length === 0 && <p className="px-3 py-2 text-steel2">{t`Nobody of this name or mark.`}</p>}
    </div>
  )
}

function Row({ member, on }: { member: CrewMember; on: string }) {
  const left = member.left_on
  return (
    <tr className="border-b border-line align-top">
      <th scope="row" className="px-3 py-1.5 text-left">
        <Link className="link font-head font-semibold break-words" to={`/crew/${String(member.id)}`}>
          {member.name}
        </Link>
        <div className="text-[12.5px] font-normal text-steel2">{left ? t`left on ${left}` : member.employer}</div>
      </th>
      <td className="px-2 py-1.5">{member.mark || '–'}</td>
      <td className="px-2 py-1.5">
        {member.certificates.length === 0 && <span className="text-steel2">{t`no certificate`}</span>}
        <ul className="grid gap-1">
          {member.certificates.map((one) => (
            <li key={one.id} className="flex items-baseline gap-2">
              <MarkIcon mark={STANDING_MARK[one.standing]} size={10} />
              <span className="min-w-0">
                <span className="font-medium">{one.designation || one.number}</span>
                <small className="block text-steel2">
                  {one.number} · {standingLine(one)}
                </small>
              </span>
            </li>
          ))}
        </ul>
      </td>
      <td className="px-2 py-1.5 whitespace-nowrap">
        {member.first_due ? (
          <>
            {member.first_due}
            <small className="block text-steel2">{inDays(daysBetween(on, member.first_due))}</small>
          </>
        ) : (
          '–'
        )}
      </td>
    </tr>
  )
}
