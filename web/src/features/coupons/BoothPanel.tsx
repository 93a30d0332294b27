import { t } from '@lingui/core/macro'
import { Trans } from '@lingui/react/macro'
import { useState } from 'react'

import type { BaseMetal, Coupon, CouponPiece } from '../../api/types'
import { useUnits } from '../../session/units'
import { QuantityField } from '../../ui/QuantityField'
import { MarkIcon, markOf } from '../../ui/Verdict'
import { CertificateDialog } from '../metals'
import { AtTheBooth } from './AtTheBooth'
import { Checklist } from './Checklist'
import { TreatmentsDone } from './TreatmentsDone'
import { useSavePiece, type SavePiece } from './useSavePiece'

/** What is around the passes: fit-up, booth, checklist, treatments. Saved field by field. */
export function BoothPanel({ coupon, disabled }: { coupon: Coupon; disabled: boolean }) {
  const save = useSavePiece(coupon.id)
  const change: SavePiece = (step) => save.mutate({ piece: step })
  const told = coupon.log.piece.filter((one) => one.verdict !== 'complies')
  const answered = coupon.checklist.filter((one) =>
    coupon.piece.checklist.some((answer) => answer.item === one.id),
  ).length
  const begun = coupon.rows.length > 0
  const welded = coupon.rows.length > 0 && coupon.log.to_weld.length === 0
  return (
    <section aria-label={t`Before the first arc`} className="panel p-3">
      <FitUp coupon={coupon} disabled={disabled} onSave={change} />
      {told.map((one) => (
        <p key={`${one.rule}${one.path}`} role="status" className="mt-1 flex items-start gap-1.5 text-[13px]">
          <span className="mt-1">
            <MarkIcon mark={markOf(one)} />
          </span>
          <span>
            <b>{one.title}.</b> {one.message} {one.remedy}
          </span>
        </p>
      ))}
      {save.isError && (
        <p role="alert" className="mt-2 text-[13px] text-breach">
          <Trans>{save.error.message} The values shown are those that stand now.</Trans>
        </p>
      )}
      <Fold
        title={t`At the booth`}
        note={
          [coupon.piece.machine?.name, ...coupon.piece.batches.map((one) => one.batch)].filter(Boolean).join(', ') ||
          t`machine, batches, people, readings`
        }
      >
        <AtTheBooth coupon={coupon} disabled={disabled} onSave={change} />
      </Fold>
      <Fold
        title={t`Checklist`}
        note={t`${answered} of ${coupon.checklist.length} answered`}
        open={!begun && answered < coupon.checklist.length}
      >
        <Checklist coupon={coupon} disabled={disabled} onSave={change} />
      </Fold>
      {(welded || coupon.piece.treatments_done.length > 0) && (
        <Fold
          title={t`Heat treatment as done`}
          note={
            coupon.piece.treatments_done.length > 0
              ? t`${coupon.piece.treatments_done.length} recorded`
              : t`none recorded`
          }
        >
          <TreatmentsDone coupon={coupon} disabled={disabled} onSave={change} />
        </Fold>
      )}
    </section>
  )
}

function Fold({
  title,
  note,
  open = false,
  children,
}: {
  title: string
  note: string
  open?: boolean
  children: React.ReactNode
}) {
  const [start] = useState(open)
  return (
    <details className="mt-2 border-t border-hair" open={start}>
      <summary className="flex min-h-11 cursor-pointer items-center gap-2 text-[15px]">
        <span className="font-head font-semibold">{title}</span>
        <span className="truncate text-[13px] text-steel2">{note}</span>
      </summary>
      {children}
    </details>
  )
}

type Part = { coupon: Coupon; disabled: boolean; onSave: SavePiece }

function FitUp({ coupon, disabled, onSave }: Part) {
  const { range } = useUnits()
  const [paper, setPaper] = useState<number | null>(null)
  const { piece } = coupon
  const fit = piece.fit_up
  // Until the piece's own metals are recorded, they are those of the procedure.
  const metals: BaseMetal[] = piece.base_metals.length > 0 ? piece.base_metals : coupon.procedure.base_metals
  const allowed = coupon.procedure.joint?.preparation?.gap_allowed_mm
  const fields: {
    label: string
    note?: string
    kind: string
    value: number | null | undefined
    put: (value: number | null, piece: CouponPiece) => Partial<CouponPiece>
  }[] = [
    {
      label: t`Gap before tacking`,
      kind: 'gap',
      value: fit?.gap_before_tack_mm,
      put: (value, now) => ({ fit_up: { ...now.fit_up, gap_before_tack_mm: value } }),
    },
    {
      label: t`Gap after tacking`,
      note: allowed ? t`allowed ${range(allowed, 'gap')}` : '',
      kind: 'gap',
      value: fit?.gap_after_tack_mm,
      put: (value, now) => ({ fit_up: { ...now.fit_up, gap_after_tack_mm: value } }),
    },
    {
      label: t`Root face`,
      kind: 'gap',
      value: fit?.root_face_mm,
      put: (value, now) => ({ fit_up: { ...now.fit_up, root_face_mm: value } }),
    },
    {
      label: t`Root face after tacking`,
      kind: 'gap',
      value: fit?.root_face_after_tack_mm,
      put: (value, now) => ({ fit_up: { ...now.fit_up, root_face_after_tack_mm: value } }),
    },
    {
      label: t`Misalignment`,
      kind: 'gap',
      value: fit?.misalignment_mm,
      put: (value, now) => ({ fit_up: { ...now.fit_up, misalignment_mm: value } }),
    },
    { label: t`Piece length`, kind: 'length', value: piece.length_mm, put: (value) => ({ length_mm: value }) },
    { label: t`Piece width`, kind: 'length', value: piece.width_mm, put: (value) => ({ width_mm: value }) },
    { label: t`Preheat as read`, kind: 'temperature', value: piece.preheat_c, put: (value) => ({ preheat_c: value }) },
    { label: t`Ambient`, kind: 'temperature', value: piece.ambient_c, put: (value) => ({ ambient_c: value }) },
  ]
  return (
    <>
      <h2 className="mb-2 text-[16px]">
        <Trans>Fit-up</Trans>
      </h2>
      <div className="grid grid-cols-[repeat(auto-fill,minmax(140px,1fr))] gap-x-3 gap-y-2">
        {fields.map((one) => (
          <div key={one.label}>
            <span className="label">
              {one.label}
              {one.note ? <span className="ml-1.5 font-normal">{one.note}</span> : null}
            </span>
            <QuantityField
              label={one.label}
              kind={one.kind}
              value={one.value}
              disabled={disabled}
              onChange={(value) => {
                if (value !== (one.value ?? null)) onSave((now) => one.put(value, now))
              }}
            />
          </div>
        ))}
      </div>
      {metals.length > 0 && (
        <p className="mt-2 flex flex-wrap gap-x-4 text-[13px]">
          {metals.map((one, index) => (
            <span key={index}>
              <span className="label">
                <Trans>Metal {index + 1}</Trans>
              </span>{' '}
              {one.designation ?? t`not stated`}{' '}
              {(!disabled || one.heat || one.certificate) && (
                <button type="button" className="link" onClick={() => setPaper(index)}>
                  {one.heat
                    ? t`heat ${one.heat}`
                    : one.certificate || one.chemistry
                      ? t`certificate`
                      : t`enter the certificate of metal ${index + 1}`}
                </button>
              )}
            </span>
          ))}
        </p>
      )}
      {paper !== null && (
        <CertificateDialog
          open
          title={t`Certificate of metal ${paper + 1}${metals[paper]?.designation ? `, ${metals[paper].designation}` : ''}`}
          metal={metals[paper] ?? {}}
          disabled={disabled}
          onClose={() => setPaper(null)}
          onTake={(changes) =>
            onSave(() => ({
              base_metals: metals.map((one, index) => (index === paper ? { ...one, ...changes } : one)),
            }))
          }
        />
      )}
    </>
  )
}
