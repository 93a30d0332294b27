import { t } from '@lingui/core/macro'
import { Trans } from '@lingui/react/macro'
import { useMutation, useQueryClient } from '@tanstack/react-query'
import { useState } from 'react'
import { Link } from 'react-router'

import { api, unwrap } from '../../api/client'
import { digits } from '../../session/language'
import { Button } from '../../ui/Button'
import { Notice } from '../../ui/Notice'
import type { Asked, Found } from './searching'

type Props = { jobId: number; found: Found; onAsk: (next: Asked) => void }

/** The coupons of the cheapest set: what each covers, what only it covers, and what it would cost to do without. */
export function PlannedCoupons({ jobId, found, onAsk }: Props) {
  const { plan, search: whatIf } = found
  const queries = useQueryClient()
  const [left, setLeft] = useState<readonly string[]>([])
  const names = plan.coupons.map((one) => one.name).filter((name) => !left.includes(name))
  const draft = useMutation({
    mutationFn: () =>
      unwrap(
        api.POST('/api/jobs/{job_id}/weld-list/drafts', {
          params: { path: { job_id: jobId } },
          body: { names, search: found.search.id },
        }),
      ),
    onSuccess: () => queries.invalidateQueries({ queryKey: ['procedures'] }),
  })
  return (
    <div className="panel overflow-x-auto">
      <table className="w-full text-[14px]">
        <thead>
          <tr className="border-b border-line text-left font-head">
            <th scope="col" className="px-3 py-1.5">{t`Coupon`}</th>
            <th scope="col" className="px-2 py-1.5 text-right">{t`Cost, ${plan.currency}`}</th>
            <th scope="col" className="px-2 py-1.5">{t`Covers`}</th>
            <th scope="col" className="px-2 py-1.5">{t`Only it covers`}</th>
            <th scope="col" className="px-2 py-1.5">
              <span className="sr-only">{t`What if`}</span>
            </th>
          </tr>
        </thead>
        <tbody>
          {plan.coupons.map((one) => (
            <tr key={one.name} className="border-b border-line align-top last:border-b-0">
              <td className="px-3 py-1.5">
                <label className="flex min-h-6 items-center gap-2">
                  <input
                    type="checkbox"
                    checked={!left.includes(one.name)}
                    onChange={() =>
                      setLeft((now) =>
                        now.includes(one.name) ? now.filter((name) => name !== one.name) : [...now, one.name],
                      )
                    }
                  />
                  <b className="font-head text-[15px]">{one.name}</b>
                </label>
              </td>
              <td className="px-2 py-1.5 text-right">{digits(one.cost.toFixed(0))}</td>
              <td className="px-2 py-1.5">{one.covers.join(', ')}</td>
              <td className="px-2 py-1.5">{one.only.join(', ') || '–'}</td>
              <td className="px-2 py-1.5 text-right">
                <Button
                  look="quiet"
                  aria-label={t`Do without ${one.name}`}
                  onClick={() => onAsk({ ...whatIf, without: [...whatIf.without, one.name] })}
                >
                  <Trans>do without it</Trans>
                </Button>
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      <div className="flex flex-wrap items-center gap-3 border-t border-line px-3 py-2">
        <Button look="main" disabled={names.length === 0 || draft.isPending} onClick={() => draft.mutate()}>
          {draft.isPending ? t`Drafting …` : t`Draft their procedures`}
        </Button>
        {draft.isError && <Notice mark="breach">{draft.error.message}</Notice>}
        {draft.data && (
          <ul aria-label={t`Drafted`} className="flex flex-wrap gap-x-4">
            {draft.data.map((one) => (
              <li key={one.revision_id}>
                <Link className="link inline-block min-h-6" to={`/procedures/${String(one.revision_id)}`}>
                  {one.number}
                </Link>{' '}
                <span className="text-steel2">{one.coupon}</span>
              </li>
            ))}
          </ul>
        )}
      </div>
    </div>
  )
}
