import { t } from '@lingui/core/macro'
import { Trans } from '@lingui/react/macro'
import { useMutation, useQueryClient } from '@tanstack/react-query'
import { api, unwrap } from '../../api/client'
import type { Evidence, Specimen, SpecimenVerdict } from '../../api/types'
import { Button } from '../../ui/Button'
import { Notice } from '../../ui/Notice'
import { MarkIcon } from '../../ui/Verdict'
import { KIND_WORDS, type Kind } from './fields'
import { VERDICT_MARK, VERDICT_WORDS } from './states'

export type ListProps = {
  evidence: Evidence
  locked: boolean
  onEdit: (one: Specimen) => void
  onNew: (kind: Kind, mark: string, more?: Record<string, unknown>) => void
}

export function Specimens({ evidence, locked, onEdit, onNew }: ListProps) {
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
