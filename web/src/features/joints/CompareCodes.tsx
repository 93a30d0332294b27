import { t } from '@lingui/core/macro'
import { Trans } from '@lingui/react/macro'
import { useMutation } from '@tanstack/react-query'
import { useState } from 'react'

import type { CouponPlan, CouponSearch, WeldList } from '../../api/types'
import { codeWords } from '../../domain/words'
import { digits } from '../../session/language'
import { useSession } from '../../session/session'
import { Button } from '../../ui/Button'
import { Modal } from '../../ui/Modal'
import { Notice } from '../../ui/Notice'
import { SearchProgress } from './SearchProgress'
import { searchCoupons } from './searching'

type Props = { jobId: number; list: WeldList; busy: boolean }
type Line = { key: string; words: string; plan: CouponPlan | null; error: string }

/** The same joints and records under every code, one after the other: what is covered, and what the rest costs. */
export function CompareCodes({ jobId, list, busy }: Props) {
  const { codes } = useSession()
  const [open, setOpen] = useState(false)
  const [going, setGoing] = useState<CouponSearch | null>(null)
  const [lines, setLines] = useState<readonly Line[]>([])
  const all = codes.flatMap((code) =>
    (code.levels.length > 0 ? code.levels : [null]).map((level) => ({
      key: `${code.id} ${String(level ?? '')}`,
      words: codeWords(code.id, level, code.short),
      code: { id: code.id, level, units: code.unit_column, route: 'test' as const },
    })),
  )
  const compare = useMutation({
    mutationFn: async () => {
      setLines([])
      setGoing(null)
      // One at a time: a search takes a core of the server.
      for (const { key, words, code } of all) {
        const found = await searchCoupons({ jobId, units: 'si' }, { keep: [], without: [], code }, setGoing).then(
          (answer) => ({ key, words, plan: answer?.plan ?? null, error: answer ? '' : t`stopped` }),
          (error: unknown) => ({ key, words, plan: null, error: error instanceof Error ? error.message : '' }),
        )
        setLines((now) => [...now, found])
      }
    },
  })
  const own = `${list.code.id} ${String(list.code.level ?? '')}`
  const done = lines.length
  const count = all.length
  return (
    <>
      <Button
        disabled={busy || compare.isPending}
        onClick={() => {
          setOpen(true)
          compare.mutate()
        }}
      >
        <Trans>Compare codes</Trans>
      </Button>
      <Modal wide title={t`The same joints under each code`} open={open} onClose={() => setOpen(false)}>
        <table className="w-full text-[14px]">
          <thead>
            <tr className="border-b border-line text-left font-head">
              {[t`Code`, t`Joint types covered`, t`Coupons for the rest`, t`Cost`, t`No coupon covers`].map((words) => (
                <th key={words} scope="col" className="py-1 pr-3">
                  {words}
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {lines.map((one) => (
              <tr key={one.key} className={`border-b border-line align-top ${one.key === own ? 'font-semibold' : ''}`}>
                <td className="py-1 pr-3 whitespace-nowrap">{one.words}</td>
                {one.plan ? <Cells plan={one.plan} /> : <td colSpan={4}>{one.error}</td>}
              </tr>
            ))}
          </tbody>
        </table>
        {compare.isPending && (
          <div className="mt-2">{going && <SearchProgress key={going.id} jobId={jobId} search={going} />}</div>
        )}
        {compare.isPending && (
          <p role="status" className="mt-2 text-steel">
            <Trans>
              {done} of {count} codes searched …
            </Trans>
          </p>
        )}
        <Notice className="mt-3">
          <Trans>
            Which code applies is agreed in the contract; a record proves under another code only what that code lets it
            prove.
          </Trans>
        </Notice>
      </Modal>
    </>
  )
}

function Cells({ plan }: { plan: CouponPlan }) {
  const covered = plan.types - plan.gaps
  const { types } = plan
  const cost = `${digits(plan.cost.toFixed(0))} ${plan.currency}`
  return (
    <>
      <td className="py-1 pr-3">{t`${covered} of ${types}`}</td>
      <td className="py-1 pr-3">
        {plan.coupons.length}
        <div className="text-[12.5px] font-normal text-steel2">{plan.coupons.map((one) => one.name).join('; ')}</div>
      </td>
      <td className="py-1 pr-3 whitespace-nowrap">
        {cost}
        <div className="text-[12.5px] font-normal text-steel2">{plan.optimal ? t`proven cheapest` : t`best found`}</div>
      </td>
      <td className="py-1">{plan.uncovered.map((one) => one.key).join(', ') || '–'}</td>
    </>
  )
}
