import { plural, t } from '@lingui/core/macro'
import { Trans } from '@lingui/react/macro'
import { useQuery, useQueryClient } from '@tanstack/react-query'
import { useState } from 'react'
import { Link } from 'react-router'

import { api, unwrap } from '../../api/client'
import type { DraftCoverage, Revision } from '../../api/types'
import { useSession } from '../../session/session'
import { Button } from '../../ui/Button'
import { MarkIcon, type Mark } from '../../ui/Verdict'
import { Answer } from './CoversBox'
import { SignDialog } from '../evidence'
import { STATE_WORDS } from '../evidence'
import { stageQuery } from '../../queries/qualification'
import { locale } from '../../session/language'

type Act = 'qualify' | 'prequalify' | 'release' | 'withdraw'

const ACTS: Record<Act, { title: string; words: string; action: string; reason: string }> = {
  qualify: {
    title: t`Qualify`,
    words: t`The signed records cover this revision. It is frozen with what supports it.`,
    action: t`Sign: qualified`,
    reason: t`Remarks`,
  },
  prequalify: {
    title: t`Qualify as prequalified`,
    words: t`Every prequalified rule of the code holds. The revision is frozen.`,
    action: t`Sign: prequalified`,
    reason: t`Remarks`,
  },
  release: {
    title: t`Release for production`,
    words: t`Welders may weld by this revision. The one released before it is superseded.`,
    action: t`Release it`,
    reason: t`Remarks`,
  },
  withdraw: {
    title: t`Withdraw from production`,
    words: t`Nobody may weld by this revision any more. It stays in the records.`,
    action: t`Withdraw it`,
    reason: t`Why`,
  },
}

/** What proves a procedure, and its way into production. */
export function ProofPanel({ revision, draft }: { revision: Revision; draft: DraftCoverage | undefined }) {
  const { may } = useSession()
  const queries = useQueryClient()
  const stage = useQuery(stageQuery(revision.id))
  const [act, setAct] = useState<Act | null>(null)
  const code = revision.document.code
  if (!code) return null
  const at = revision.stage
  const byTest = code.route !== 'prequalified'
  const coverage = stage.data?.current ?? (['draft', 'trial', 'tested'].includes(at) ? draft?.coverage : null)
  const before = ['draft', 'trial', 'tested'].includes(at)
  // A record beneath it was amended or declared void: what counts now may cover it still.
  const shaken = stage.data?.supports.some((one) => one.state !== 'signed') ?? false
  const again = draft?.coverage
  const sign = async (signature: { password: string; reason: string }) => {
    const path = { params: { path: { revision_id: revision.id } } }
    if (act === 'qualify') {
      const records = (draft?.records ?? [])
        .filter((one) => (before ? coverage : again)?.by.includes(one.number))
        .map((one) => one.id)
      await unwrap(api.POST('/api/revisions/{revision_id}/qualify', { ...path, body: { ...signature, records } }))
    } else if (act === 'prequalify')
      await unwrap(api.POST('/api/revisions/{revision_id}/prequalify', { ...path, body: signature }))
    else if (act === 'release')
      await unwrap(api.POST('/api/revisions/{revision_id}/release', { ...path, body: signature }))
    else if (act === 'withdraw')
      await unwrap(api.POST('/api/revisions/{revision_id}/withdraw', { ...path, body: signature }))
    await queries.invalidateQueries()
  }
  const signatures = stage.data?.signatures ?? []
  return (
    <section aria-label={t`Proof`} className="mb-4 text-[13px]">
      <h2 className="border-b border-line pb-1.5 text-[17px]">
        <Trans>Proof</Trans>
      </h2>
      {byTest && !coverage && before && (
        <p className="py-2 text-steel">
          {draft && draft.records.length === 0
            ? t`No signed record in this job yet: weld a coupon, test it, sign its record.`
            : t`Checked against the signed records of this job.`}
        </p>
      )}
      {coverage && <Standing coverage={coverage} record={draft?.record ?? ''} />}
      {!byTest && before && (
        <p className="py-2 text-steel">
          <Trans>By the prequalified route: every requirement under Checks has to hold, then it is signed.</Trans>
        </p>
      )}
      {(stage.data?.supports.length ?? 0) > 0 && (
        <p className="mt-1">
          <Trans>Supported by </Trans>
          {stage.data?.supports.map((one, index) => (
            <span key={one.id}>
              {index > 0 && ', '}
              <Link className="link" to={`/coupons/${String(one.coupon_id)}/range`}>
                {one.number}
              </Link>
              {one.state !== 'signed' && <b className="text-breach"> {STATE_WORDS[one.state] ?? one.state}</b>}
            </span>
          ))}
        </p>
      )}
      {signatures.length > 0 && (
        <ul className="mt-1 grid gap-0.5 text-steel">
          {signatures.map((one) => (
            <li key={one.purpose + one.at}>
              {one.by}: {one.words}{' '}
              <small className="text-steel2">{new Date(one.at).toLocaleDateString(locale())}</small>
            </li>
          ))}
        </ul>
      )}
      {may('RELEASE') && (
        <div className="mt-2 flex flex-wrap gap-2">
          {before && byTest && coverage?.covered && (
            <Button look="main" onClick={() => setAct('qualify')}>
              <Trans>Qualify</Trans>
            </Button>
          )}
          {before && !byTest && (
            <Button look="main" onClick={() => setAct('prequalify')}>
              <Trans>Qualify as prequalified</Trans>
            </Button>
          )}
          {(at === 'qualified' || at === 'released') && shaken && again?.covered && (
            <Button look="main" onClick={() => setAct('qualify')}>
              <Trans>Qualify anew</Trans>
            </Button>
          )}
          {(at === 'qualified' || at === 'prequalified') && (
            <Button look="main" onClick={() => setAct('release')}>
              <Trans>Release revision {revision.letter}</Trans>
            </Button>
          )}
          {at === 'released' && (
            <Button onClick={() => setAct('withdraw')}>
              <Trans>Withdraw</Trans>
            </Button>
          )}
        </div>
      )}
      {act && <SignDialog open onClose={() => setAct(null)} onSign={sign} {...ACTS[act]} />}
    </section>
  )
}

function Standing({ coverage, record }: { coverage: NonNullable<DraftCoverage['coverage']>; record: string }) {
  const against = coverage.findings.filter((one) => one.verdict !== 'complies')
  const mark: Mark = coverage.covered ? 'holds' : coverage.verdict === 'open' ? 'unknown' : 'breach'
  if (coverage.covered || against.length === 0) return <Answer coverage={coverage} />
  return (
    <details className="py-1.5">
      <summary className="cursor-pointer">
        <MarkIcon mark={mark} silent /> {coverage.verdict === 'open' ? t`Not decided` : t`Not covered`}{' '}
        <Trans>by a signed record</Trans>
        {record && (
          <>
            <Trans>; {record} is nearest</Trans>
          </>
        )}
        : {plural(against.length, { one: '# variable', other: '# variables' })}
      </summary>
      <Answer coverage={coverage} most={12} />
    </details>
  )
}
