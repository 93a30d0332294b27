import { useMutation, useQuery } from '@tanstack/react-query'
import { useEffect, useRef, useState } from 'react'

import type { CouponPlan, CouponSearch } from '../../api/types'
import { lastSearchQuery } from '../../queries/joints'
import { useUnits } from '../../session/units'
import { isGoingOn } from './following'
import { followed, searchCoupons } from './searching'
import type { Asked } from './searching'

/** The search for coupons of a job: the last one that anybody asked for, and those that are asked for here. */
export function useSearch(jobId: number) {
  const units = useUnits().system
  const last = useQuery(lastSearchQuery(jobId, units))
  const [going, setGoing] = useState<CouponSearch | null>(null)
  const [first, setFirst] = useState<CouponPlan | null>(null)
  const leaving = useRef<AbortController>(null)
  const search = useMutation({
    mutationFn: async (asked: Asked | CouponSearch) => {
      leaving.current?.abort()
      leaving.current = new AbortController()
      const where = { jobId, units, signal: leaving.current.signal }
      return 'id' in asked ? followed(where, asked, setGoing) : searchCoupons(where, asked, setGoing)
    },
    onSettled: () => setGoing(null),
    onSuccess: (found) => {
      if (found && found.search.keep.length + found.search.without.length === 0) setFirst(found.plan)
      void last.refetch()
    },
  })
  useEffect(() => () => leaving.current?.abort(), [])
  const known = last.data
  const { mutate, isIdle } = search
  useEffect(() => {
    // One that is going on when the page is opened is followed to its end.
    if (known && isGoingOn(known) && isIdle) mutate(known)
  }, [known, isIdle, mutate])
  const earlier = known?.plan ? { search: known, plan: known.plan } : null
  const found = search.isPending ? null : (search.data ?? earlier)
  return {
    ask: ({ keep, without }: Asked) => mutate({ keep, without }),
    busy: search.isPending,
    going,
    found,
    first,
    isCurrent: found?.search.id === known?.id ? (known?.current ?? true) : true,
    error: search.error ?? last.error,
  }
}
