import { t } from '@lingui/core/macro'
import { Trans } from '@lingui/react/macro'
import { useQuery } from '@tanstack/react-query'
import { useState } from 'react'
import { Link, useParams } from 'react-router'

import type { Evidence, Specimen } from '../../api/types'
import { useSession } from '../../session/session'
import { Notice } from '../../ui/Notice'
import { PageTitle } from '../../ui/PageTitle'
import { MarkIcon } from '../../ui/Verdict'
import { CouponTabs } from './CouponTabs'
import { SpecimenDialog } from './SpecimenDialog'
import type { Draft } from './SpecimenForm'
import { type Kind } from './fields'
import { evidenceQuery } from '../../queries/qualification'
import { ReportPanel } from './ReportPanel'
import { SIGNED_MARK } from './states'
import { PlanPanel } from './PlanPanel'
import { Specimens } from './Specimens'
import { VERDICT_MARK } from './states'

export function EvidencePage() {
  const id = Number(useParams().id)
  const found = useQuery({ ...evidenceQuery(id), enabled: Number.isInteger(id) })
  if (found.data) return <Page evidence={found.data} />
  if (found.isError)
    return (
      <div className="p-5">
        <Notice mark="breach">
          {found.error.message}{' '}
          <Link className="link" to="/coupons">
            <Trans>All coupons</Trans>
          </Link>
        </Notice>
      </div>
    )
  return (
    <p className="p-5 text-steel">
      <Trans>Opening …</Trans>
    </p>
  )
}

type Editing = { specimen: Specimen | null; start: Draft }

function Page({ evidence }: { evidence: Evidence }) {
  const { may } = useSession()
  const [editing, setEditing] = useState<Editing | null>(null)
  const locked = evidence.signed !== null || !may('ENTER_TESTS')
  const edit = (one: Specimen) => setEditing({ specimen: one, start: { ...(one.test as unknown as Draft) } })
  const fresh = (kind: Kind, mark: string, more: Record<string, unknown> = {}) =>
    setEditing({ specimen: null, start: { kind, specimen: mark, ...more } })
  return (
    <div className="px-5 py-4">
      <Head evidence={evidence} />
      {evidence.amends && (
        <Notice className="mb-3 text-[14px]">
          <Trans>
            Amendment of{' '}
            <Link className="link" to={`/coupons/${evidence.amends.coupon_id}/tests`}>
              {evidence.amends.record_number}
            </Link>
            , begun by {evidence.amends.by}: {evidence.amends.reason}.{' '}
          </Trans>
          {evidence.signed
            ? ''
            : t`Correct the log and the tests, then sign: ${evidence.amends.record_number} counts until then and is superseded by this one.`}
        </Notice>
      )}
      {evidence.signed?.amendment && (
        <Notice mark={evidence.signed.state === 'superseded' ? 'caution' : 'unknown'} className="mb-3 text-[14px]">
          {evidence.signed.state === 'superseded' ? t`Superseded by ` : t`Being amended as `}
          <Link className="link" to={`/coupons/${String(evidence.signed.amendment.coupon_id)}/tests`}>
            {evidence.signed.amendment.record_number}
          </Link>
          : {evidence.signed.amendment.reason} ({evidence.signed.amendment.by}).
        </Notice>
      )}
      <div className="grid grid-cols-[250px_minmax(0,1fr)_250px] gap-4 max-[1150px]:grid-cols-[250px_minmax(0,1fr)] max-md:grid-cols-1">
        <PlanPanel evidence={evidence} />
        <Specimens evidence={evidence} locked={locked} onEdit={edit} onNew={fresh} />
        <ReportPanel evidence={evidence} onNew={fresh} locked={locked} />
      </div>
      {editing && (
        <SpecimenDialog
          key={editing.specimen?.id ?? 'new'}
          evidence={evidence}
          specimen={editing.specimen}
          start={editing.start}
          locked={locked}
          onClose={() => setEditing(null)}
        />
      )}
    </div>
  )
}

function Head({ evidence }: { evidence: Evidence }) {
  const { report } = evidence
  return (
    <div className="mb-3 flex flex-wrap items-center gap-x-4 gap-y-1">
      <div className="min-w-0">
        <PageTitle words={`${evidence.record_word} ${evidence.record_number}`} className="truncate" />
        <p className="text-[14px] text-steel2">
          <Trans>
            coupon {evidence.coupon_number}, for{' '}
            <Link className="link" to={`/procedures/${evidence.revision_id}`}>
              {evidence.procedure_number} rev {evidence.letter}
            </Link>{' '}
            · {evidence.code}
          </Trans>
          {evidence.certificate && t` · from certificate ${evidence.certificate}`}
        </p>
      </div>
      <CouponTabs id={evidence.coupon_id} />
      <p className="ml-auto flex items-center gap-2 font-head text-[18px] font-semibold" role="status">
        <MarkIcon
          mark={
            evidence.signed
              ? (SIGNED_MARK[evidence.signed.state] ?? 'unknown')
              : (VERDICT_MARK[report.verdict] ?? 'unknown')
          }
          size={15}
        />
        {evidence.signed
          ? ({ signed: t`signed`, 'awaits-second': t`signed by one of two`, superseded: t`superseded`, void: t`void` }[
              evidence.signed.state
            ] ?? evidence.signed.state)
          : { accepted: t`all tests accepted`, rejected: t`a test failed`, incomplete: t`not complete yet` }[
              report.verdict
            ]}
      </p>
    </div>
  )
}
