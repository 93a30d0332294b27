import { t } from '@lingui/core/macro'
import { useMutation } from '@tanstack/react-query'

import { api, unwrap } from '../../api/client'
import type { CouponSearch } from '../../api/types'
import { Notice } from '../../ui/Notice'
import { WorkProgress } from './WorkProgress'

type Props = { jobId: number; search: CouponSearch }

/** How far a search for coupons is, with a button that ends it. */
export function SearchProgress({ jobId, search }: Props) {
  const stop = useMutation({
    mutationFn: () =>
      unwrap(
        api.POST('/api/jobs/{job_id}/weld-list/coupons/{search_id}/stop', {
          params: { path: { job_id: jobId, search_id: search.id } },
        }),
      ),
  })
  const words = search.state === 'waiting' ? t`Waiting for its turn` : (doing()[search.doing] ?? t`Starting`)
  return (
    <div className="panel flex flex-wrap items-center gap-3 px-4 py-3">
      <WorkProgress
        words={words}
        done={search.done}
        of={search.of}
        stopWords={t`Stop the search`}
        stopping={stop.isPending || stop.isSuccess}
        onStop={() => stop.mutate()}
      />
      {stop.isError && <Notice mark="breach">{stop.error.message}</Notice>}
    </div>
  )
}

/** What a search does, in words, by the name of its step. */
const doing = (): Partial<Record<string, string>> => ({
  records: t`Holding the records against the joints`,
  compare: t`Comparing metals and processes`,
  size: t`Comparing thicknesses and diameters`,
  draft: t`Drafting coupons in every position`,
  solve: t`Choosing the cheapest set`,
  check: t`Asking whether the set covers every joint`,
})
