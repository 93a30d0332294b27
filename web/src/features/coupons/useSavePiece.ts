import { useMutation, useQueryClient } from '@tanstack/react-query'

import { Refusal, api, unwrap } from '../../api/client'
import type { Coupon, CouponPiece } from '../../api/types'
import { useUnits } from '../../session/units'
import { couponQuery } from '../../queries/coupons'

type People = Coupon['people']
type Step = { piece?: (now: CouponPiece) => Partial<CouponPiece>; people?: (now: People) => People }
export type SavePiece = (step: (now: CouponPiece) => Partial<CouponPiece>) => void

const TRIES = 4

/**
 * Change one field of what is around the passes, one change after the other. A change is a step from
 * what stands now, so that it is made again on top of what someone else saved meanwhile.
 */
export function useSavePiece(couponId: number) {
  const queries = useQueryClient()
  const { system } = useUnits()
  const query = couponQuery(couponId, system)
  return useMutation({
    scope: { id: `piece-${String(couponId)}` },
    mutationFn: async (step: Step) => {
      for (let left = TRIES; ; left -= 1) {
        const coupon = await queries.ensureQueryData(query)
        try {
          return await unwrap(
            api.PATCH('/api/coupons/{coupon_id}', {
              params: { path: { coupon_id: couponId } },
              body: {
                version: coupon.version,
                ...(step.piece ? { piece: { ...coupon.piece, ...step.piece(coupon.piece), passes: [] } } : {}),
                ...(step.people ? { people: step.people(coupon.people) } : {}),
              },
            }),
          )
        } catch (error) {
          if (left <= 1 || !(error instanceof Refusal) || error.status !== 409) throw error
          await queries.refetchQueries({ queryKey: query.queryKey })
        }
      }
    },
    // The next change waits until this one is read back.
    onSettled: () => queries.refetchQueries({ queryKey: ['coupon', couponId] }),
  })
}
