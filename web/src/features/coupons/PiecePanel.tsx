import { useMutation, useQueryClient } from '@tanstack/react-query'

import { api, unwrap } from '../../api/client'
import type { Coupon, CouponPiece } from '../../api/types'
import { QuantityField } from '../../ui/QuantityField'

/** The piece before the first arc: fit-up, ambient, preheat. Saved field by field. */
export function PiecePanel({ coupon, disabled }: { coupon: Coupon; disabled: boolean }) {
  const queries = useQueryClient()
  const save = useMutation({
    mutationFn: (piece: CouponPiece) =>
      unwrap(api.PATCH('/api/coupons/{coupon_id}', { params: { path: { coupon_id: coupon.id } }, body: { version: coupon.version, piece: { ...piece, passes: [] } } })),
    onSettled: () => queries.invalidateQueries({ queryKey: ['coupon', coupon.id] }),
  })
  const piece = coupon.piece
  const fit = piece.fit_up
  const fields = [
    { label: 'Gap before tacking', kind: 'gap', value: fit?.gap_before_tack_mm, put: (value: number | null) => ({ ...piece, fit_up: { ...fit, gap_before_tack_mm: value } }) },
    { label: 'Gap after tacking', kind: 'gap', value: fit?.gap_after_tack_mm, put: (value: number | null) => ({ ...piece, fit_up: { ...fit, gap_after_tack_mm: value } }) },
    { label: 'Root face', kind: 'gap', value: fit?.root_face_mm, put: (value: number | null) => ({ ...piece, fit_up: { ...fit, root_face_mm: value } }) },
    { label: 'Preheat as read', kind: 'temperature', value: piece.preheat_c, put: (value: number | null) => ({ ...piece, preheat_c: value }) },
    { label: 'Ambient', kind: 'temperature', value: piece.ambient_c, put: (value: number | null) => ({ ...piece, ambient_c: value }) },
  ]
  return (
    <section aria-label="Fit-up" className="panel p-3">
      <h2 className="mb-2 text-[16px]">Fit-up</h2>
      <div className="grid grid-cols-[repeat(auto-fill,minmax(140px,1fr))] gap-x-3 gap-y-2">
        {fields.map((one) => (
          <div key={one.label}>
            <span className="label">{one.label}</span>
            <QuantityField label={one.label} kind={one.kind} value={one.value} disabled={disabled}
              onChange={(value) => { if (value !== (one.value ?? null)) save.mutate(one.put(value)) }} />
          </div>
        ))}
      </div>
      {save.isError && <p role="alert" className="mt-2 text-[13px] text-breach">{save.error.message} The values shown are those that stand now.</p>}
    </section>
  )
}
