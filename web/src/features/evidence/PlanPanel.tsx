import { t } from '@lingui/core/macro'
import { Trans } from '@lingui/react/macro'
import type { Evidence } from '../../api/types'
import { SectionDrawing } from '../../ui/SectionDrawing'
import { KIND_WORDS, type Kind } from './fields'

export function PlanPanel({ evidence }: { evidence: Evidence }) {
  const made = new Map<string, number>()
  for (const one of evidence.report.specimens)
    if (one.state !== 'discarded' && !one.retest_of) made.set(one.kind, (made.get(one.kind) ?? 0) + 1)
  return (
    <section aria-label={t`Test plan`} className="grid content-start gap-3">
      <div className="panel p-3">
        <h2 className="mb-1 text-[17px]">
          <Trans>Test plan</Trans>
        </h2>
        <ul className="text-[13px]">
          {evidence.items.map((one) => (
            <li
              key={`${one.kind}-${String(one.option)}`}
              className={`grid grid-cols-[2.6rem_minmax(0,1fr)] gap-x-2 border-b border-hair py-1 ${one.option > 0 ? 'text-steel2' : ''}`}
            >
              <span className="tabular-nums">
                {one.option > 0
                  ? t`or`
                  : `${String(Math.min(made.get(one.kind) ?? 0, one.count))}/${String(one.count)}`}
              </span>
              <span>
                {one.option > 0 && `${String(one.count)} `}
                {KIND_WORDS[one.kind as Kind]}
                {one.note && <small className="block text-[12px] text-steel2">{one.note}</small>}
              </span>
            </li>
          ))}
        </ul>
        <p className="mt-2 text-[11.5px] text-steel2">
          {[...new Set(evidence.items.map((one) => one.clause))].join('; ')}
          {evidence.items.some((one) => one.unchecked.length > 0) && t` · from memory, not confirmed`}
        </p>
        {[...evidence.notes, ...evidence.open.map((one) => t`Not decided: state ${one}.`)].map((one) => (
          <p key={one} className="mt-1 text-[12.5px] text-steel">
            {one}
          </p>
        ))}
        <p className="mt-1 text-[12.5px] text-steel">
          <Trans>Specimens may break and fly: guard the test area. Local rules and qualified people decide.</Trans>
        </p>
      </div>
      <div className="panel p-3">
        <h2 className="mb-1 text-[17px]">
          <Trans>Where to cut</Trans>
        </h2>
        <SectionDrawing drawing={evidence.cutting.drawing} heat={new Map()} />
        {evidence.cutting.notes.map((one) => (
          <p key={one} className="mt-1 text-[12.5px] text-steel">
            {one}
          </p>
        ))}
        <a
          className="link mt-1 inline-block text-[13px]"
          href={`/api/coupons/${String(evidence.coupon_id)}/labels`}
          target="_blank"
          rel="noreferrer"
        >
          <Trans>Print the plan and its labels</Trans>
        </a>
      </div>
    </section>
  )
}
