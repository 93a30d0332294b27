import { t } from '@lingui/core/macro'
import { Trans } from '@lingui/react/macro'
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import { useState } from 'react'
import { Link, useNavigate, useParams } from 'react-router'

import { api, unwrap } from '../../api/client'
import type { Evidence, Specimen, SpecimenVerdict } from '../../api/types'
import { useSession } from '../../session/session'
import { Button } from '../../ui/Button'
import { Modal } from '../../ui/Modal'
import { Notice } from '../../ui/Notice'
import { PageTitle } from '../../ui/PageTitle'
import { SectionDrawing } from '../../ui/SectionDrawing'
import { MarkIcon, type Mark } from '../../ui/Verdict'
import { CouponTabs } from './CouponTabs'
import { SignDialog } from './SignDialog'
import { SpecimenDialog } from './SpecimenDialog'
import type { Draft } from './SpecimenForm'
import { KIND_WORDS, type Kind } from './fields'
import { evidenceQuery } from '../../queries/qualification'
import { STATE_WORDS } from './states'
import { inWords } from '../../domain/words'
import { locale } from '../../session/language'

const VERDICT_WORDS: Record<string, string> = { accepted: t`accepted`, rejected: t`rejected`, incomplete: t`open` }
export const VERDICT_MARK: Record<string, Mark> = { accepted: 'holds', rejected: 'breach', incomplete: 'unknown' }

const SIGNED_MARK: Record<string, Mark> = {
  signed: 'holds',
  'awaits-second': 'unknown',
  superseded: 'caution',
  void: 'breach',
}

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

function PlanPanel({ evidence }: { evidence: Evidence }) {
  const made = new Map<string, number>()
  for (const one of evidence.report.specimens)
    if (one.state !== 'discarded' && !one.retest_of) made.set(one.kind, (made.get(one.kind) ?? 0) + 1)
  return (
    <section aria-label={t`Test plan`} className="grid content-start gap-3">
      <div className="panel p-3">
        <h2 className="mb-1 text-[17px]">
          <Trans>Test plan</Trans>
        </h2>
        <ul className="text-[13px]">
          {evidence.items.map((one) => (
            <li
              key={`${one.kind}-${String(one.option)}`}
              className={`grid grid-cols-[2.6rem_minmax(0,1fr)] gap-x-2 border-b border-hair py-1 ${one.option > 0 ? 'text-steel2' : ''}`}
            >
              <span className="tabular-nums">
                {one.option > 0
                  ? t`or`
                  : `${String(Math.min(made.get(one.kind) ?? 0, one.count))}/${String(one.count)}`}
              </span>
              <span>
                {one.option > 0 && `${String(one.count)} `}
                {KIND_WORDS[one.kind as Kind]}
                {one.note && <small className="block text-[12px] text-steel2">{one.note}</small>}
              </span>
            </li>
          ))}
        </ul>
        <p className="mt-2 text-[11.5px] text-steel2">
          {[...new Set(evidence.items.map((one) => one.clause))].join('; ')}
          {evidence.items.some((one) => one.unchecked.length > 0) && t` · from memory, not confirmed`}
        </p>
        {[...evidence.notes, ...evidence.open.map((one) => t`Not decided: state ${one}.`)].map((one) => (
          <p key={one} className="mt-1 text-[12.5px] text-steel">
            {one}
          </p>
        ))}
        <p className="mt-1 text-[12.5px] text-steel">
          <Trans>Specimens may break and fly: guard the test area. Local rules and qualified people decide.</Trans>
        </p>
      </div>
      <div className="panel p-3">
        <h2 className="mb-1 text-[17px]">
          <Trans>Where to cut</Trans>
        </h2>
        <SectionDrawing drawing={evidence.cutting.drawing} heat={new Map()} />
        {evidence.cutting.notes.map((one) => (
          <p key={one} className="mt-1 text-[12.5px] text-steel">
            {one}
          </p>
        ))}
        <a
          className="link mt-1 inline-block text-[13px]"
          href={`/api/coupons/${String(evidence.coupon_id)}/labels`}
          target="_blank"
          rel="noreferrer"
        >
          <Trans>Print the plan and its labels</Trans>
        </a>
      </div>
    </section>
  )
}

type ListProps = {
  evidence: Evidence
  locked: boolean
  onEdit: (one: Specimen) => void
  onNew: (kind: Kind, mark: string, more?: Record<string, unknown>) => void
}

function Specimens({ evidence, locked, onEdit, onNew }: ListProps) {
  const queries = useQueryClient()
  const prepare = useMutation({
    mutationFn: () =>
      unwrap(
        api.POST('/api/coupons/{coupon_id}/specimens/plan', { params: { path: { coupon_id: evidence.coupon_id } } }),
      ),
    onSuccess: () => queries.invalidateQueries({ queryKey: ['evidence', evidence.coupon_id] }),
  })
  const verdicts = new Map(evidence.report.specimens.map((one) => [one.specimen, one]))
  return (
    <section aria-label={t`Specimens`} className="min-w-0">
      <div className="mb-2 flex items-center gap-2">
        <h2 className="text-[17px]">
          <Trans>Specimens</Trans>
        </h2>
        {!locked && (
          <span className="ml-auto flex gap-2">
            <Button disabled={prepare.isPending} onClick={() => prepare.mutate()}>
              <Trans>Create planned specimens</Trans>
            </Button>
            <Button look="main" onClick={() => onNew('side-bend', '')}>
              <Trans>Enter a specimen</Trans>
            </Button>
          </span>
        )}
      </div>
      {prepare.isError && (
        <Notice mark="breach" className="mb-2 text-[13px]">
          {prepare.error.message}
        </Notice>
      )}
      {evidence.specimens.length === 0 && (
        <p className="panel p-5 text-steel">
          <Trans>
            Nothing is entered yet. “Create planned specimens” writes a line for every specimen of the plan, with its
            mark.
          </Trans>
        </p>
      )}
      {evidence.specimens.length > 0 && (
        <div className="panel overflow-x-auto">
          <table className="w-full text-[13px]">
            <thead className="text-left text-[12px] text-steel2">
              <tr>
                {[t`Mark`, t`Test`, t`Verdict`, t`Criterion`, t`Found`].map((one) => (
                  <th key={one} scope="col" className="border-b border-line px-2.5 py-1.5 font-medium">
                    {one}
                  </th>
                ))}
              </tr>
            </thead>
            <tbody>
              {evidence.specimens.map((one) => {
                const verdict = verdicts.get(one.test.specimen)
                return verdict && <Line key={one.id} one={one} verdict={verdict} onOpen={() => onEdit(one)} />
              })}
            </tbody>
          </table>
        </div>
      )}
    </section>
  )
}

const STATES: Record<string, string> = {
  discarded: t`does not count`,
  repeated: t`repeated, passed`,
  extra: t`not asked here`,
}

function Line({ one, verdict, onOpen }: { one: Specimen; verdict: SpecimenVerdict; onOpen: () => void }) {
  const faded = verdict.state === 'discarded' || verdict.state === 'extra'
  return (
    <tr className={`border-b border-hair align-top ${faded ? 'text-steel2' : ''}`}>
      <td className="px-2.5 py-1.5">
        <button type="button" className="link font-semibold" onClick={onOpen}>
          {one.test.specimen}
        </button>
      </td>
      <td className="px-2.5 py-1.5">
        {KIND_WORDS[one.test.kind]}
        {verdict.retest_of && (
          <small className="block text-steel2">
            <Trans>repeats {verdict.retest_of}</Trans>
          </small>
        )}
      </td>
      <td className="px-2.5 py-1.5 whitespace-nowrap">
        <span className="inline-flex items-center gap-1.5">
          <MarkIcon mark={VERDICT_MARK[verdict.verdict] ?? 'unknown'} silent />
          {VERDICT_WORDS[verdict.verdict]}
        </span>
        {STATES[verdict.state] && <small className="block text-steel2">{STATES[verdict.state]}</small>}
      </td>
      <td className="px-2.5 py-1.5">
        {verdict.criterion}
        <small className="block text-[11.5px] text-steel2">{verdict.clause}</small>
      </td>
      <td className="px-2.5 py-1.5">
        {verdict.actual || '—'}
        {verdict.missing.length > 0 && (
          <small className="block text-caution">
            <Trans>missing: {verdict.missing.slice(0, 3).join('; ')}</Trans>
            {verdict.missing.length > 3 && t` and ${verdict.missing.length - 3} more`}
          </small>
        )}
      </td>
    </tr>
  )
}

function ReportPanel({ evidence, onNew, locked }: { evidence: Evidence; onNew: ListProps['onNew']; locked: boolean }) {
  const { may } = useSession()
  const queries = useQueryClient()
  const [signing, setSigning] = useState<'record' | 'witness' | 'void' | null>(null)
  const [amending, setAmending] = useState(false)
  const { report, signed } = evidence
  const sign = async (signature: { password: string; reason: string }) => {
    await (signing === 'void' && signed
      ? unwrap(
          api.POST('/api/records/{record_id}/void', { params: { path: { record_id: signed.id } }, body: signature }),
        )
      : signing === 'witness' && signed
        ? unwrap(
            api.POST('/api/records/{record_id}/witness', {
              params: { path: { record_id: signed.id } },
              body: signature,
            }),
          )
        : unwrap(
            api.POST('/api/coupons/{coupon_id}/sign', {
              params: { path: { coupon_id: evidence.coupon_id } },
              body: signature,
            }),
          ))
    await queries.invalidateQueries()
  }
  return (
    <section aria-label={t`Verdict`} className="grid content-start gap-3 max-[1150px]:col-span-2">
      {report.retests.map((one) => (
        <div key={one.specimen} className="panel p-3 text-[13px]">
          <h3 className="flex items-center gap-1.5 font-head text-[16px] font-semibold">
            <MarkIcon mark={one.state === 'passed' ? 'holds' : 'breach'} /> <Trans>{one.specimen} failed</Trans>
            {one.state === 'passed' && t`, repeated`}
          </h3>
          <p>
            {one.state === 'passed'
              ? t`${one.made} retests were accepted in its place.`
              : one.state === 'failed'
                ? t`A retest failed: the test is lost. Weld another coupon.`
                : t`${one.words[0]?.toUpperCase() ?? ''}${one.words.slice(1)}: ${one.made} of ${one.needed} accepted.`}
          </p>
          <p className="text-[11.5px] text-steel2">{one.clause}</p>
          {one.state === 'open' && !locked && (
            <Button
              className="mt-2"
              onClick={() =>
                onNew(one.kind as Kind, `${one.specimen}-R${String(one.made + 1)}`, { retest_of: one.specimen })
              }
            >
              <Trans>Enter a retest</Trans>
            </Button>
          )}
        </div>
      ))}
      {report.missing.length > 0 && !signed && (
        <div className="panel p-3">
          <h3 className="mb-1 font-head text-[16px] font-semibold">
            <Trans>Still missing</Trans>
          </h3>
          <ul className="list-disc pl-4 text-[13px]">
            {report.missing.slice(0, 14).map((one) => (
              <li key={one}>{one}</li>
            ))}
          </ul>
          {report.missing.length > 14 && (
            <p className="text-[12.5px] text-steel2">
              <Trans>and {report.missing.length - 14} more</Trans>
            </p>
          )}
        </div>
      )}
      {report.findings.map((one) => (
        <div key={one.path + one.title} className="panel p-3 text-[13px]">
          <h3 className="font-semibold">{one.title}</h3>
          <p>{one.message}</p>
          <p className="text-steel2">{one.remedy}</p>
        </div>
      ))}
      {signed ? (
        <Signed
          evidence={evidence}
          signed={signed}
          onWitness={() => setSigning('witness')}
          onVoid={() => setSigning('void')}
          onAmend={() => setAmending(true)}
        />
      ) : (
        may('SIGN_RECORD') && (
          <div>
            <Button
              look="main"
              className="w-full"
              disabled={report.verdict !== 'accepted'}
              onClick={() => setSigning('record')}
            >
              <Trans>Sign the record</Trans>
            </Button>
            <p className="mt-1 text-[12.5px] text-steel2">
              {report.verdict === 'accepted'
                ? t`Signing freezes the log and the tests.`
                : t`A record is signed once every test is accepted.`}
            </p>
          </div>
        )
      )}
      <p className="flex flex-wrap gap-x-3 text-[13px]">
        <a
          className="link inline-block min-h-6"
          href={`/api/coupons/${String(evidence.coupon_id)}/record/print`}
          target="_blank"
          rel="noreferrer"
        >
          <Trans>Print the record</Trans>
        </a>
        <a className="link inline-block min-h-6" href={`/api/coupons/${String(evidence.coupon_id)}/record`} download="">
          <Trans>Export JSON</Trans>
        </a>
        <a
          className="link inline-block min-h-6"
          href={`/api/coupons/${String(evidence.coupon_id)}/record/table`}
          download=""
        >
          <Trans>Export XLSX</Trans>
        </a>
      </p>
      {amending && signed && (
        <AmendDialog recordId={signed.id} number={signed.number} onClose={() => setAmending(false)} />
      )}
      <SignDialog
        open={signing !== null}
        onClose={() => setSigning(null)}
        onSign={sign}
        title={
          signing === 'void'
            ? t`Declare the record void`
            : signing === 'witness'
              ? t`Sign as a witness`
              : t`Sign ${evidence.record_word} ${evidence.record_number}`
        }
        words={
          signing === 'void'
            ? t`It stays with its signatures, is printed with VOID across every page, and qualifies nothing from now on. Procedures in production that rest on it are listed in the code book.`
            : signing === 'witness'
              ? t`You were there when the coupon was welded and tested, and what is recorded is what you saw.`
              : t`The log and the tests are what was welded and found. After this they no longer change.`
        }
        action={t`Sign it`}
        reason={signing === 'void' ? t`Why` : t`Remarks`}
      />
    </section>
  )
}

/** Why a signed record is amended; a copy of its coupon is opened to be corrected. */
function AmendDialog({ recordId, number, onClose }: { recordId: number; number: string; onClose: () => void }) {
  const navigate = useNavigate()
  const queries = useQueryClient()
  const [reason, setReason] = useState('')
  const begin = useMutation({
    mutationFn: () =>
      unwrap(
        api.POST('/api/records/{record_id}/amend', { params: { path: { record_id: recordId } }, body: { reason } }),
      ),
    onSuccess: async (made) => {
      await queries.invalidateQueries()
      onClose()
      void navigate(`/coupons/${String(made.id)}/tests`)
    },
  })
  return (
    <Modal title={t`Amend ${number}`} open onClose={onClose}>
      <form
        className="grid gap-3"
        onSubmit={(event) => {
          event.preventDefault()
          begin.mutate()
        }}
      >
        <p className="text-steel">
          <Trans>
            The signed record stays as it is. Its log and tests are copied, corrected in the copy, and signed anew; from
            that signature on the amended record counts in its place.
          </Trans>
        </p>
        <label className="block">
          <span className="label">
            <Trans>What is wrong</Trans>
          </span>
          <textarea
            className="field"
            rows={3}
            maxLength={4000}
            value={reason}
            onChange={(event) => setReason(event.target.value)}
          />
        </label>
        {begin.isError && (
          <Notice mark="breach" className="text-[13px]">
            {begin.error.message}
          </Notice>
        )}
        <div className="flex justify-end gap-2">
          <Button onClick={onClose}>
            <Trans>Not now</Trans>
          </Button>
          <Button look="main" type="submit" disabled={begin.isPending || reason.trim() === ''}>
            <Trans>Begin the amendment</Trans>
          </Button>
        </div>
      </form>
    </Modal>
  )
}

type SignedProps = {
  evidence: Evidence
  signed: NonNullable<Evidence['signed']>
  onWitness: () => void
  onVoid: () => void
  onAmend: () => void
}

function Signed({ evidence, signed, onWitness, onVoid, onAmend }: SignedProps) {
  const { may, person } = useSession()
  const navigate = useNavigate()
  const make = useMutation({
    mutationFn: (asNew: boolean) =>
      unwrap(
        api.POST('/api/records/{record_id}/procedure', {
          params: { path: { record_id: signed.id } },
          body: { as_new: asNew },
        }),
      ),
    onSuccess: (made) => void navigate(`/procedures/${String(made.id)}`),
  })
  const witnessed = signed.signatures.some((one) => one.purpose === 'witness' && one.by === person.name)
  const counts = signed.state === 'signed'
  const stands = counts || signed.state === 'awaits-second'
  return (
    <div className="panel p-3 text-[13px]">
      <h3 className="mb-1 flex items-center gap-1.5 font-head text-[16px] font-semibold">
        <MarkIcon mark={SIGNED_MARK[signed.state] ?? 'unknown'} /> {evidence.record_word} {signed.number}{' '}
        {STATE_WORDS[signed.state] ?? signed.state}
      </h3>
      {signed.state === 'awaits-second' && (
        <p className="mb-1 text-steel">
          <Trans>This job asks for two signatures: the record counts once a second person has witnessed it.</Trans>
        </p>
      )}
      <ul className="grid gap-1">
        {signed.signatures.map((one) => (
          <li key={one.purpose + one.by}>
            {one.by}, {inWords(one.role)}: {one.words}
            {one.reason && <>, “{one.reason}”</>}{' '}
            <small className="text-steel2">{new Date(one.at).toLocaleString(locale())}</small>
          </li>
        ))}
      </ul>
      <p className="mt-1 text-[11px] break-all text-steel2" title={t`SHA-256 of the signed bytes`}>
        <Trans>SHA-256 {signed.content_hash}</Trans>
      </p>
      <div className="mt-2 grid gap-2">
        {may('WRITE_PROCEDURE') && counts && (
          <Button look="main" disabled={make.isPending} onClick={() => make.mutate(false)}>
            <Trans>Make the WPS</Trans>
          </Button>
        )}
        {may('WRITE_PROCEDURE') && counts && (
          <Button look="quiet" disabled={make.isPending} onClick={() => make.mutate(true)}>
            <Trans>Make it as a new procedure</Trans>
          </Button>
        )}
        {may('WITNESS') && stands && !witnessed && signed.signed_by_id !== person.id && (
          <Button onClick={onWitness}>
            <Trans>Sign as a witness</Trans>
          </Button>
        )}
        {may('SIGN_RECORD') && stands && !signed.amendment && (
          <Button look="quiet" className="text-[13px]!" onClick={onAmend}>
            <Trans>Amend the record</Trans>
          </Button>
        )}
        {may('RELEASE') && stands && (
          <Button look="quiet" className="text-[13px]!" onClick={onVoid}>
            <Trans>Void this record</Trans>
          </Button>
        )}
      </div>
      {make.isError && (
        <p role="alert" className="mt-1 text-breach">
          {make.error.message}
        </p>
      )}
    </div>
  )
}
