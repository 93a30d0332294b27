import { useQuery, useQueryClient } from '@tanstack/react-query'
import { useState } from 'react'
import { Link } from 'react-router'

import { api, unwrap } from '../../api/client'
import type { DraftCoverage, Revision } from '../../api/types'
import { useSession } from '../../app/session'
import { Button } from '../../ui/Button'
import { MarkIcon, type Mark } from '../../ui/Verdict'
import { Answer } from './CoversBox'
import { SignDialog } from './SignDialog'
import { STATE_WORDS } from './states'
import { stageQuery } from './queries'

type Act = 'qualify' | 'prequalify' | 'release' | 'withdraw'

const ACTS: Record<Act, { title: string; words: string; action: string; reason: string }> = {
  qualify: { title: 'Qualify', words: 'The signed records cover this revision. It is frozen with what supports it.', action: 'Sign: qualified', reason: 'Remarks' },
  prequalify: { title: 'Qualify as prequalified', words: 'Every prequalified rule of the code holds. The revision is frozen.', action: 'Sign: prequalified', reason: 'Remarks' },
  release: { title: 'Release for production', words: 'Welders may weld by this revision. The one released before it is superseded.', action: 'Release it', reason: 'Remarks' },
  withdraw: { title: 'Withdraw from production', words: 'Nobody may weld by this revision any more. It stays in the records.', action: 'Withdraw it', reason: 'Why' },
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
      const records = (draft?.records ?? []).filter((one) => (before ? coverage : again)?.by.includes(one.number)).map((one) => one.id)
      await unwrap(api.POST('/api/revisions/{revision_id}/qualify', { ...path, body: { ...signature, records } }))
    } else if (act === 'prequalify') await unwrap(api.POST('/api/revisions/{revision_id}/prequalify', { ...path, body: signature }))
    else if (act === 'release') await unwrap(api.POST('/api/revisions/{revision_id}/release', { ...path, body: signature }))
    else if (act === 'withdraw') await unwrap(api.POST('/api/revisions/{revision_id}/withdraw', { ...path, body: signature }))
    await queries.invalidateQueries()
  }
  const signatures = stage.data?.signatures ?? []
  return (
    <section aria-label="Proof" className="mb-4 text-[13px]">
      <h2 className="border-b border-line pb-1.5 text-[17px]">Proof</h2>
      {byTest && !coverage && before && (
        <p className="py-2 text-steel">{draft && draft.records.length === 0 ? 'No signed record in this job yet: weld a coupon, test it, sign its record.' : 'Checked against the signed records of this job.'}</p>
      )}
      {coverage && <Standing coverage={coverage} record={draft?.record ?? ''} />}
      {!byTest && before && <p className="py-2 text-steel">By the prequalified route: every requirement under Checks has to hold, then it is signed.</p>}
      {(stage.data?.supports.length ?? 0) > 0 && (
        <p className="mt-1">Supported by {stage.data?.supports.map((one, index) => <span key={one.id}>{index > 0 && ', '}<Link className="link" to={`/coupons/${String(one.coupon_id)}/range`}>{one.number}</Link>{one.state !== 'signed' && <b className="text-breach"> {STATE_WORDS[one.state] ?? one.state}</b>}</span>)}</p>
      )}
      {signatures.length > 0 && (
        <ul className="mt-1 grid gap-0.5 text-steel">
          {signatures.map((one) => <li key={one.purpose + one.at}>{one.by}: {one.words} <small className="text-steel2">{new Date(one.at).toLocaleDateString()}</small></li>)}
        </ul>
      )}
      {may('RELEASE') && (
        <div className="mt-2 flex flex-wrap gap-2">
          {before && byTest && coverage?.covered && <Button look="main" onClick={() => setAct('qualify')}>Qualify</Button>}
          {before && !byTest && <Button look="main" onClick={() => setAct('prequalify')}>Qualify as prequalified</Button>}
          {(at === 'qualified' || at === 'released') && shaken && again?.covered && <Button look="main" onClick={() => setAct('qualify')}>Qualify anew</Button>}
          {(at === 'qualified' || at === 'prequalified') && <Button look="main" onClick={() => setAct('release')}>Release revision {revision.letter}</Button>}
          {at === 'released' && <Button onClick={() => setAct('withdraw')}>Withdraw</Button>}
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
      <summary className="cursor-pointer"><MarkIcon mark={mark} silent /> {coverage.verdict === 'open' ? 'Not decided' : 'Not covered'} by a signed record{record && <>; {record} is nearest</>}: {against.length} {against.length === 1 ? 'variable' : 'variables'}</summary>
      <Answer coverage={coverage} most={12} />
    </details>
  )
}
