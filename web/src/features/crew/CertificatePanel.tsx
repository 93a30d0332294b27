import { t } from '@lingui/core/macro'
import { Trans } from '@lingui/react/macro'
import { useEffect, useRef, useState } from 'react'

import type { CrewCertificate, CrewMember, Scan, StatementIn, WelderVariable } from '../../api/types'
import { useSession } from '../../session/session'
import { Button } from '../../ui/Button'
import { Notice } from '../../ui/Notice'
import { MarkIcon } from '../../ui/Verdict'
import { RangeRows } from './RangeRows'
import { StatementDialog } from './StatementDialog'
import { STANDING_MARK, daysBetween, inDays, standingLine } from './standing'

const SIGNERS: Record<string, string> = {
  responsible: t`person responsible for welding`,
  examiner: t`examiner`,
  'examining-body': t`examining body`,
  welder: t`welder`,
  other: t`another person`,
}
const KINDS: Record<StatementIn['kind'], string> = {
  confirmation: t`Confirmed`,
  prolongation: t`Prolonged`,
  renewal: t`Renewed by a test`,
  revocation: t`Revoked`,
}

type Props = {
  certificate: CrewCertificate
  member: CrewMember
  on: string
  variables: readonly WelderVariable[]
  /** Whether somebody came here for this one, such as by the code on its print. */
  sought?: boolean
}

/** A certificate from its signed bytes: where it stands, what it qualifies, what was signed about it. */
export function CertificatePanel({ certificate, member, on, variables, sought = false }: Props) {
  const { may, person } = useSession()
  const [signing, setSigning] = useState<StatementIn['kind'] | null>(null)
  const [open, setOpen] = useState(false)
  const { due } = certificate
  const panel = useRef<HTMLElement>(null)
  useEffect(() => {
    if (sought) panel.current?.scrollIntoView({ block: 'start' })
  }, [sought])
  const signs = may('SIGN_CERTIFICATE')
  return (
    <section
      ref={panel}
      className={`panel px-4 py-3 ${sought ? 'border-accent!' : ''}`}
      aria-label={t`Certificate ${certificate.number}`}
    >
      <div className="flex flex-wrap items-baseline gap-x-4 gap-y-1">
        <h2 className="min-w-0 font-head text-[18px] font-semibold break-words">{certificate.designation}</h2>
        <span className="text-steel2">{certificate.number}</span>
      </div>
      <p className="mt-1 flex flex-wrap items-baseline gap-1.5" role="status">
        <MarkIcon mark={STANDING_MARK[certificate.standing]} size={11} silent />
        <b>{standingLine(certificate)}</b>
        {due && <span className="text-steel2">{inDays(daysBetween(on, due.on))}</span>}
      </p>
      {certificate.reasons.length > 0 && (
        <p className="mt-0.5 text-[13.5px] text-steel">{certificate.reasons.join(' ')}</p>
      )}
      {certificate.not_stated.length > 0 && (
        <Notice mark="caution" className="mt-2 text-[13.5px]">
          <Trans>The paper does not state:</Trans> {certificate.not_stated.join('; ')}
        </Notice>
      )}
      <Facts certificate={certificate} />
      <div className="mt-2 flex flex-wrap gap-2">
        {signs && certificate.may_confirm && (
          <Button look="main" onClick={() => setSigning('confirmation')}>
            <Trans>Confirm the work</Trans>
          </Button>
        )}
        {signs && certificate.may_prolong && (person.role === 'examiner' || may('KEEP_CREW')) && (
          <Button onClick={() => setSigning('prolongation')}>
            <Trans>Prolong</Trans>
          </Button>
        )}
        {signs && certificate.renewing.length > 0 && (
          <Button look="main" onClick={() => setSigning('renewal')}>
            <Trans>Renew by a test</Trans>
          </Button>
        )}
        {signs &&
          certificate.standing !== 'damaged' &&
          !certificate.statements.some((one) => one.kind === 'revocation') && (
            <Button onClick={() => setSigning('revocation')}>
              <Trans>Revoke</Trans>
            </Button>
          )}
        <Button look="quiet" aria-expanded={open} onClick={() => setOpen(!open)}>
          {open ? t`Close the range of qualification` : t`Range of qualification`}
        </Button>
        {certificate.standing !== 'damaged' && <Files id={certificate.id} />}
      </div>
      {open && <RangeRows items={certificate.items} variables={variables} />}
      <Signed certificate={certificate} />
      {signing && (
        <StatementDialog kind={signing} certificate={certificate} member={member} onClose={() => setSigning(null)} />
      )}
    </section>
  )
}

function Files({ id }: { id: number }) {
  const under = `/api/certificates/${String(id)}`
  return (
    <span className="ml-auto flex flex-wrap items-center gap-3 text-[13px]">
      <a className="link py-0.5" href={`${under}/print`} target="_blank" rel="noreferrer">
        <Trans>Print</Trans>
      </a>
      <a className="link py-0.5" href={`${under}/file?kind=xlsx`}>
        XLSX
      </a>
      <a className="link py-0.5" href={`${under}/file`}>
        JSON
      </a>
    </span>
  )
}

function Facts({ certificate }: { certificate: CrewCertificate }) {
  const signed = certificate.signed_at.slice(0, 10)
  const rows: [string, string][] = [
    [t`Test piece welded on`, certificate.welded_on],
    [t`Way of revalidation`, certificate.way ? `${certificate.way})` : ''],
    [t`WPS`, certificate.wps],
    [t`Tests accepted`, certificate.tests.join(', ')],
    [t`Further training before the test`, certificate.training],
    [t`Examiner`, [certificate.examiner, certificate.body].filter(Boolean).join(', ')],
    [t`Place`, certificate.place],
    [certificate.from_paper ? t`Entered from paper by` : t`Signed by`, t`${certificate.signed_name}, ${signed}`],
  ]
  return (
    <dl className="mt-2 grid grid-cols-[180px_minmax(0,1fr)] gap-x-3 gap-y-0.5 text-[13.5px] max-sm:grid-cols-1">
      {rows
        .filter(([, said]) => said !== '')
        .map(([name, said]) => (
          <div key={name} className="contents">
            <dt className="text-steel2">{name}</dt>
            <dd className="min-w-0 break-words">{said}</dd>
          </div>
        ))}
      {certificate.scans.length > 0 && (
        <div className="contents">
          <dt className="text-steel2">{t`Scans`}</dt>
          <dd>
            <ScanLinks scans={certificate.scans} />
          </dd>
        </div>
      )}
    </dl>
  )
}

function ScanLinks({ scans }: { scans: readonly Scan[] }) {
  return (
    <>
      {scans.map((one) => (
        <a key={one.id} className="link mr-3" href={`/api/scans/${String(one.id)}`} target="_blank" rel="noreferrer">
          {one.name}
        </a>
      ))}
    </>
  )
}

function Signed({ certificate }: { certificate: CrewCertificate }) {
  if (certificate.statements.length === 0) return null
  return (
    <div className="mt-3 border-t border-hair pt-2">
      <h3 className="font-head text-[15px] font-semibold">{t`Signed since`}</h3>
      <ul className="grid gap-1 text-[13.5px]">
        {certificate.statements.map((one) => {
          const [by, what] = [one.signed_by, SIGNERS[one.signer] ?? one.signer]
          const [entered, at] = [one.entered_by, one.entered_at.slice(0, 10)]
          return (
            <li key={one.id}>
              <b>{KINDS[one.kind]}</b> {t`on ${one.on} by ${by}, ${what}`}
              {one.from_paper && <span className="text-steel2"> ({t`on paper; entered by ${entered}, ${at}`})</span>}
              {one.renewed_by && `: ${one.renewed_by}`}
              {one.reason && `: ${one.reason}`} <ScanLinks scans={one.scans} />
              {one.works.length > 0 && (
                <ul className="pl-4 text-[12.5px] text-steel2">
                  {one.works.map((work) => (
                    <li key={work.on + work.what}>
                      {work.on}: {work.what} {work.method && `· ${work.method} ${work.report}`}
                    </li>
                  ))}
                </ul>
              )}
            </li>
          )
        })}
      </ul>
    </div>
  )
}
