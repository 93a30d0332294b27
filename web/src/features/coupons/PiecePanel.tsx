import { useMutation, useQueryClient } from '@tanstack/react-query'
import { useState } from 'react'

import { api, unwrap } from '../../api/client'
import type { BaseMetal, Coupon, CouponPiece } from '../../api/types'
import { useUnits } from '../../app/units'
import { QuantityField } from '../../ui/QuantityField'
import { MarkIcon, markOf } from '../../ui/Verdict'
import { CertificateDialog } from '../metals'

/** The piece before the first arc: fit-up, ambient, preheat. Saved field by field. */
export function PiecePanel({ coupon, disabled }: { coupon: Coupon; disabled: boolean }) {
  const queries = useQueryClient()
  const { range } = useUnits()
  const [paper, setPaper] = useState<number | null>(null)
  const save = useMutation({
    mutationFn: (piece: CouponPiece) =>
      unwrap(api.PATCH('/api/coupons/{coupon_id}', { params: { path: { coupon_id: coupon.id } }, body: { version: coupon.version, piece: { ...piece, passes: [] } } })),
    onSettled: () => queries.invalidateQueries({ queryKey: ['coupon', coupon.id] }),
  })
  const piece = coupon.piece
  const fit = piece.fit_up
  // Until the piece's own metals are recorded, they are those of the procedure.
  const metals: BaseMetal[] = piece.base_metals.length > 0 ? piece.base_metals : coupon.procedure.base_metals
  const told = coupon.log.piece.filter((one) => one.verdict !== 'complies')
  const allowed = coupon.procedure.joint?.preparation?.gap_allowed_mm
  const fields = [
    { label: 'Gap before tacking', kind: 'gap', value: fit?.gap_before_tack_mm, put: (value: number | null) => ({ ...piece, fit_up: { ...fit, gap_before_tack_mm: value } }) },
    { label: 'Gap after tacking', note: allowed ? `allowed ${range(allowed, 'gap')}` : '', kind: 'gap', value: fit?.gap_after_tack_mm, put: (value: number | null) => ({ ...piece, fit_up: { ...fit, gap_after_tack_mm: value } }) },
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
            <span className="label">{one.label}{one.note ? <span className="ml-1.5 font-normal">{one.note}</span> : null}</span>
            <QuantityField label={one.label} kind={one.kind} value={one.value} disabled={disabled}
              onChange={(value) => { if (value !== (one.value ?? null)) save.mutate(one.put(value)) }} />
          </div>
        ))}
      </div>
      {metals.length > 0 && (
        <p className="mt-2 flex flex-wrap gap-x-4 text-[13px]">
          {metals.map((one, index) => (
            <span key={index}>
              <span className="label">Metal {index + 1}</span> {one.designation ?? 'not stated'}{' '}
              {(!disabled || one.heat || one.certificate) && (
                <button type="button" className="link" onClick={() => setPaper(index)}>
                  {one.heat ? `heat ${one.heat}` : one.certificate || one.chemistry ? 'certificate' : `enter the certificate of metal ${String(index + 1)}`}
                </button>
              )}
            </span>
          ))}
        </p>
      )}
      {told.map((one) => (
        <p key={`${one.rule}${one.path}`} role="status" className="mt-1 flex items-start gap-1.5 text-[13px]">
          <span className="mt-1"><MarkIcon mark={markOf(one)} /></span>
          <span><b>{one.title}.</b> {one.message} {one.remedy}</span>
        </p>
      ))}
      {paper !== null && (
        <CertificateDialog open title={`Certificate of metal ${String(paper + 1)}${metals[paper]?.designation ? `, ${metals[paper].designation}` : ''}`}
          metal={metals[paper] ?? {}} disabled={disabled} onClose={() => setPaper(null)}
          onTake={(changes) => save.mutate({ ...piece, base_metals: metals.map((one, index) => (index === paper ? { ...one, ...changes } : one)) })} />
      )}
      {save.isError && <p role="alert" className="mt-2 text-[13px] text-breach">{save.error.message} The values shown are those that stand now.</p>}
    </section>
  )
}
