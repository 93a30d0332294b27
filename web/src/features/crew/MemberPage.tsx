import { t } from '@lingui/core/macro'
import { Trans } from '@lingui/react/macro'
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import { useState } from 'react'
import { Link, useNavigate, useParams, useSearchParams } from 'react-router'

import { api, unwrap } from '../../api/client'
import type { CrewMember, CrewMemberDetail, Scan } from '../../api/types'
import { memberQuery, welderTestQuery } from '../../queries/crew'
import { useSession } from '../../session/session'
import { Button } from '../../ui/Button'
import { Notice } from '../../ui/Notice'
import { PageTitle } from '../../ui/PageTitle'
import { CertificateForm } from './CertificateForm'
import { CertificatePanel } from './CertificatePanel'
import { MemberDialog } from './MemberDialog'

/** One person: the certificates, what they qualify, and what was signed about them. */
export function MemberPage() {
  const id = Number(useParams().memberId)
  const found = useQuery({ ...memberQuery(id), enabled: Number.isInteger(id) })
  return (
    <div className="mx-auto max-w-5xl px-5 py-4">
      <p className="text-[13px]">
        <Link className="link" to="/crew">
          <Trans>All welders</Trans>
        </Link>
      </p>
      {found.isError && <Notice mark="breach">{found.error.message}</Notice>}
      {found.data ? (
        <Shown key={id} found={found.data} />
      ) : (
        !found.isError && (
          <p className="text-steel">
            <Trans>Opening …</Trans>
          </p>
        )
      )}
    </div>
  )
}

function Shown({ found }: { found: CrewMemberDetail }) {
  const { member } = found
  const { may, person } = useSession()
  const [changing, setChanging] = useState(false)
  const [search, setSearch] = useSearchParams()
  const couponId = Number(search.get('coupon') ?? 0) || null
  const test = useQuery({ ...welderTestQuery(couponId ?? 0), enabled: couponId !== null })
  const [entering, setEntering] = useState(false)
  const damaged = member.certificates.filter((one) => one.standing === 'damaged')
  const left = member.left_on
  return (
    <div className="grid gap-3">
      <div className="flex flex-wrap items-end gap-x-5 gap-y-2">
        <div className="min-w-0">
          <PageTitle words={member.name} more={t`Crew`} className="break-words" />
          <p className="text-steel2">
            {[member.mark && t`mark ${member.mark}`, member.employer, left && t`left on ${left}`]
              .filter(Boolean)
              .join(' · ')}
          </p>
        </div>
        <div className="ml-auto flex flex-wrap gap-2">
          {(may('KEEP_CREW') || person.name === member.name) && (
            <a className="link self-center text-[13px]" href={`/api/crew/${String(member.id)}/record`}>
              <Trans>Everything that is kept of this person (JSON)</Trans>
            </a>
          )}
          {may('KEEP_CREW') && (
            <>
              <Remove member={member} />
              <Button onClick={() => setChanging(true)}>
                <Trans>Change</Trans>
              </Button>
            </>
          )}
          {may('SIGN_CERTIFICATE') && (
            <Button look="main" onClick={() => setEntering(true)} disabled={entering || couponId !== null}>
              <Trans>Enter a certificate</Trans>
            </Button>
          )}
        </div>
      </div>
      {damaged.map((one) => (
        <Notice key={one.id} mark="breach">
          {one.number}: {one.reasons.join(' ')}
        </Notice>
      ))}
      {test.isError && <Notice mark="breach">{test.error.message}</Notice>}
      {couponId !== null && test.data && (
        <CertificateForm member={member} test={{ ...test.data, couponId }} onClose={() => setSearch({})} />
      )}
      {entering && <CertificateForm member={member} onClose={() => setEntering(false)} />}
      {found.certificates.length === 0 && !entering && couponId === null && (
        <p className="text-steel">
          <Trans>No certificate is known yet: enter one from paper, or sign the one of a test.</Trans>
        </p>
      )}
      {found.certificates.map((one) => (
        <CertificatePanel
          key={one.id}
          certificate={one}
          member={member}
          on={found.on}
          variables={found.variables}
          sought={search.get('certificate') === String(one.id)}
        />
      ))}
      {may('KEEP_CREW') && <UnnamedScans scans={found.unnamed_scans} />}
      {changing && <MemberDialog member={member} onClose={() => setChanging(false)} />}
    </div>
  )
}

/** Scans that nothing signed names need not be kept. */
function UnnamedScans({ scans }: { scans: readonly Scan[] }) {
  const queries = useQueryClient()
  const remove = useMutation({
    mutationFn: (id: number) => unwrap(api.DELETE('/api/scans/{scan_id}', { params: { path: { scan_id: id } } })),
    onSettled: () => queries.invalidateQueries({ queryKey: ['crew'] }),
  })
  if (scans.length === 0) return null
  return (
    <section className="panel px-4 py-3" aria-label={t`Scans that no certificate names`}>
      <h2 className="font-head text-[16px] font-semibold">
        <Trans>Scans that no certificate names</Trans>
      </h2>
      <ul className="mt-1 grid gap-1 text-[14px]">
        {scans.map((one) => {
          const { name } = one
          return (
            <li key={one.id} className="flex items-baseline gap-4">
              <a
                className="link min-w-0 truncate"
                href={`/api/scans/${String(one.id)}`}
                target="_blank"
                rel="noreferrer"
              >
                {name}
              </a>
              <Button
                look="quiet"
                aria-label={t`Remove the scan ${name}`}
                disabled={remove.isPending}
                onClick={() => remove.mutate(one.id)}
              >
                <Trans>Remove</Trans>
              </Button>
            </li>
          )
        })}
      </ul>
      {remove.isError && <Notice mark="breach">{remove.error.message}</Notice>}
    </section>
  )
}

/** Somebody of whom nothing is signed need not be kept. */
function Remove({ member }: { member: CrewMember }) {
  const queries = useQueryClient()
  const navigate = useNavigate()
  const remove = useMutation({
    mutationFn: () => unwrap(api.DELETE('/api/crew/{member_id}', { params: { path: { member_id: member.id } } })),
    onSuccess: async () => {
      await navigate('/crew')
      await queries.invalidateQueries({ queryKey: ['crew'] })
    },
  })
  if (member.certificates.length > 0) return null
  return (
    <>
      {remove.isError && <Notice mark="breach">{remove.error.message}</Notice>}
      <Button disabled={remove.isPending} onClick={() => remove.mutate()}>
        <Trans>Remove from the list</Trans>
      </Button>
    </>
  )
}
