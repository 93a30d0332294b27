import { t } from '@lingui/core/macro'
import { Trans } from '@lingui/react/macro'
import { useMutation, useQuery } from '@tanstack/react-query'
import { useRef, useState } from 'react'

import { api, unwrap } from '../../api/client'
import type { Coverage, Procedure } from '../../api/types'
import { useJob } from '../../session/job'
import { useTerms } from '../../session/terms'
import { JOINT_KINDS, POSITIONS, weldOptions } from '../../domain/words'
import { Button } from '../../ui/Button'
import { Choice } from '../../ui/Choice'
import { Labelled } from '../../ui/Labelled'
import { QuantityField } from '../../ui/QuantityField'
import { TextField } from '../../ui/TextField'
import { useSaveWhenRead } from '../../ui/commit'
import { MarkIcon, markOf } from '../../ui/Verdict'
import { proceduresQuery } from '../../queries/procedures'

type Joint = {
  metal: string | null
  mm: number | null
  kind: string
  weld: string
  leg: number | null
  position: string | null
  od: number | null
}

/** Does this coupon cover a joint, or a procedure of the job? */
export function CoversBox({ couponId, code }: { couponId: number; code: string | null }) {
  const term = useTerms(code)
  const { job } = useJob()
  const procedures = useQuery({ ...proceduresQuery(job?.id ?? 0), enabled: job !== undefined })
  const [joint, setJoint] = useState<Joint>({
    metal: null,
    mm: null,
    kind: 'butt',
    weld: 'cjp-groove',
    leg: null,
    position: null,
    od: null,
  })
  const [chosen, setChosen] = useState<string | null>(null)
  const frame = useRef<HTMLElement>(null)
  /** An answer stands for what was asked, and for nothing else. */
  const put = (changes: Partial<Joint>) => {
    ask.reset()
    setJoint((before) => ({ ...before, ...changes }))
  }
  const ask = useMutation({
    mutationFn: async () => {
      if (chosen) {
        const revision = await unwrap(
          api.GET('/api/revisions/{revision_id}', { params: { path: { revision_id: Number(chosen) } } }),
        )
        const procedure: Procedure = revision.document
        return unwrap(
          api.POST('/api/coupons/{coupon_id}/covers', {
            params: { path: { coupon_id: couponId } },
            body: { procedure },
          }),
        )
      }
      const metal = { designation: joint.metal, thickness_mm: joint.mm, outside_diameter_mm: joint.od }
      const body = {
        format: 'grounded-bead/joint',
        version: 1,
        base_metals: [metal, metal],
        joint: { kind: joint.kind, weld: joint.weld, ...(joint.leg ? { leg1_mm: joint.leg } : {}) },
        positions: joint.position ? [joint.position] : [],
      }
      return unwrap(
        api.POST('/api/coupons/{coupon_id}/covers', {
          params: { path: { coupon_id: couponId } },
          body: { joint: body as never },
        }),
      )
    },
  })
  const askNow = useSaveWhenRead(frame, () => {
    const odd = frame.current?.querySelector<HTMLElement>('[aria-invalid="true"]')
    if (odd) odd.focus()
    else ask.mutate()
  })
  return (
    <section
      ref={frame}
      onChange={() => ask.reset()}
      aria-label={t`Does it cover`}
      className="panel sticky top-0 self-start p-3"
    >
      <h2 className="mb-2 text-[17px]">
        <Trans>Does it cover …?</Trans>
      </h2>
      <div className="grid gap-2">
        <Labelled words={t`a procedure of the job`}>
          <Choice
            label={t`Procedure`}
            value={chosen}
            none={t`a joint, described below`}
            options={(procedures.data ?? []).map(
              (one) => [String(one.id), `${one.number} ${one.letter} ${one.title}`] as const,
            )}
            onChange={(id) => {
              ask.reset()
              setChosen(id)
            }}
          />
        </Labelled>
        {!chosen && (
          <div className="grid grid-cols-2 gap-2">
            <Labelled words={t`metal`} wide>
              <TextField
                label={t`Metal`}
                placeholder="S355J2+N"
                value={joint.metal}
                onChange={(metal) => put({ metal })}
              />
            </Labelled>
            <Labelled words={t`thickness`}>
              <QuantityField label={t`Thickness`} kind="thickness" value={joint.mm} onChange={(mm) => put({ mm })} />
            </Labelled>
            <Labelled words={t`pipe: outside diameter`}>
              <QuantityField
                label={t`Outside diameter`}
                kind="diameter"
                value={joint.od}
                onChange={(od) => put({ od })}
              />
            </Labelled>
            <Labelled words={t`joint`}>
              <Choice
                label={t`Joint`}
                value={joint.kind}
                options={JOINT_KINDS}
                onChange={(kind) => put({ kind: kind ?? 'butt' })}
              />
            </Labelled>
            <Labelled words={t`weld`}>
              <Choice
                label={t`Weld`}
                value={joint.weld}
                options={weldOptions<typeof joint.weld>(term)}
                onChange={(weld) => put({ weld: weld ?? 'fillet' })}
              />
            </Labelled>
            {joint.weld === 'fillet' && (
              <Labelled words={t`leg`}>
                <QuantityField label={t`Leg`} kind="gap" value={joint.leg} onChange={(leg) => put({ leg })} />
              </Labelled>
            )}
            <Labelled words={t`position`}>
              <Choice
                label={t`Position`}
                value={joint.position}
                none={t`not stated`}
                options={POSITIONS}
                onChange={(position) => put({ position })}
              />
            </Labelled>
          </div>
        )}
        <Button look="main" disabled={ask.isPending} onClick={askNow}>
          <Trans>Ask</Trans>
        </Button>
      </div>
      {ask.isError && (
        <p role="alert" className="mt-2 text-[13px] text-breach">
          {ask.error.message}
        </p>
      )}
      {ask.data && <Answer coverage={ask.data} />}
    </section>
  )
}

/** Covered, or which variables are against it and what would change that. */
export function Answer({ coverage, most = 8 }: { coverage: Coverage; most?: number }) {
  const against = coverage.findings.filter((one) => one.verdict !== 'complies')
  return (
    <div className="mt-3 text-[13px]" role="status">
      <p className="flex items-center gap-1.5 font-head text-[16px] font-semibold">
        <MarkIcon mark={coverage.covered ? 'holds' : coverage.verdict === 'open' ? 'unknown' : 'breach'} size={14} />
        {coverage.covered
          ? t`covered by ${coverage.by.join(t` and `)}`
          : coverage.verdict === 'open'
            ? t`not decided`
            : t`not covered`}
      </p>
      {coverage.combination && <p className="text-steel">{coverage.combination}.</p>}
      <ul className="mt-1 grid gap-1.5">
        {against.slice(0, most).map((one) => (
          <li key={one.title + one.message} className="grid grid-cols-[14px_minmax(0,1fr)] gap-1.5">
            <span className="mt-0.5">
              <MarkIcon mark={markOf(one)} />
            </span>
            <span>
              {one.message} <span className="text-steel2">{one.remedy}</span>
            </span>
          </li>
        ))}
      </ul>
      {against.length > most && (
        <p className="mt-1 text-steel2">
          <Trans>and {against.length - most} more</Trans>
        </p>
      )}
    </div>
  )
}
