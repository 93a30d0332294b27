import { t } from '@lingui/core/macro'
import { Trans } from '@lingui/react/macro'
import { useState } from 'react'

import type { FaultCause, FaultRemedy } from '../../api/types'
import { useUnits } from '../../session/units'
import { Button } from '../../ui/Button'

const PRIORS: Readonly<Record<string, string>> = {
  often: t`often the cause`,
  sometimes: t`sometimes the cause`,
  rare: t`rarely the cause`,
}
const KINDS: Readonly<Record<string, string>> = {
  current_a: 'current',
  voltage_v: 'voltage',
  wire_feed_m_min: 'wire_feed',
  travel_mm_min: 'travel',
  gas_flow_l_min: 'flow',
  start_c: 'temperature',
}

type Props = {
  cause: FaultCause
  place: number
  first: boolean
  onTick: (found: boolean | null) => void
  onCured: ((remedy: number) => void) | null
}

/** One cause: what speaks for it here, the check that tells it apart, and what to do. */
export function CauseCard({ cause, place, first, onTick, onCured }: Props) {
  const [open, setOpen] = useState(first)
  const shown = open || cause.ticked === true
  return (
    <li className="border-t border-hair py-2" data-cause={cause.row}>
      <div className="flex items-baseline gap-2">
        <span className="w-5 text-right font-semibold tabular-nums text-steel2">{place}</span>
        <button
          type="button"
          aria-expanded={shown}
          className="min-w-0 flex-1 text-left font-head text-[15px] font-semibold hover:underline"
          onClick={() => setOpen(!open)}
        >
          {cause.cause}
        </button>
        <Share share={cause.share} />
      </div>
      <p className="ml-7 text-[13px] text-steel2">
        {PRIORS[cause.prior] ?? cause.prior}
        {cause.cured_here > 0 && <b> · {t`cured here before: ${cause.cured_here}`}</b>}
      </p>
      <ul className="ml-7 text-[13px]">
        {cause.evidence.map((fact) => (
          <li key={fact.words} className={fact.holds ? 'text-breach' : 'text-steel2'}>
            {fact.holds ? '▲' : '○'} {fact.words}
            <span className="sr-only">{fact.holds ? t`speaks for it` : t`speaks against it`}</span>
          </li>
        ))}
      </ul>
      {shown && (
        <div className="mt-1 ml-7 grid gap-1 text-[13.5px]">
          <p>
            <span className="label">
              <Trans>Also seen with it</Trans>
            </span>{' '}
            {cause.look_for}
          </p>
          <div className="flex flex-wrap items-center gap-2">
            <span>
              <span className="label">
                <Trans>Check</Trans>
              </span>{' '}
              {cause.check}
            </span>
            <Answer
              words={t`Found`}
              name={t`Found: ${cause.cause}`}
              on={cause.ticked === true}
              onClick={() => onTick(cause.ticked === true ? null : true)}
            />
            <Answer
              words={t`Not it`}
              name={t`Not it: ${cause.cause}`}
              on={cause.ticked === false}
              onClick={() => onTick(cause.ticked === false ? null : false)}
            />
          </div>
          <ol>
            {cause.remedies.map((remedy, index) => (
              <RemedyLine key={remedy.words} remedy={remedy} onCured={onCured && (() => onCured(index))} />
            ))}
          </ol>
          {cause.caution && <p className="text-caution">{cause.caution}</p>}
          <p className="text-[12px] text-steel2">
            {cause.source}, {t`confidence ${cause.confidence}`}
          </p>
        </div>
      )}
    </li>
  )
}

/** How likely beside the others; a judgement, so that no number is shown. */
function Share({ share }: { share: number }) {
  return (
    <span className="h-2 w-20 self-center rounded-full bg-hair" aria-hidden="true">
      <span className="block h-2 rounded-full bg-accent" style={{ width: `${Math.max(share * 100, 2)}%` }} />
    </span>
  )
}

function Answer({ words, name, on, onClick }: { words: string; name: string; on: boolean; onClick: () => void }) {
  return (
    <Button aria-pressed={on} aria-label={name} look={on ? 'main' : 'plain'} onClick={onClick}>
      {words}
    </Button>
  )
}

function RemedyLine({ remedy, onCured }: { remedy: FaultRemedy; onCured: (() => void) | null }) {
  const units = useUnits()
  const kind = KINDS[remedy.field]
  const limit =
    remedy.limit && kind && remedy.limit.max > 0 ? `${units.range(remedy.limit, kind)} ${units.unit(kind)}` : ''
  return (
    <li className="flex items-baseline gap-2 py-0.5">
      <span aria-hidden="true" className={remedy.where === 'engineer' ? 'text-caution' : 'text-holds'}>
        {remedy.where === 'engineer' ? '▲' : '●'}
      </span>
      <span className="min-w-0 flex-1">
        {remedy.words}
        <span className={`block text-[12px] ${remedy.where === 'engineer' ? 'text-caution' : 'text-steel2'}`}>
          {remedy.where === 'engineer'
            ? t`Needs the welding engineer: it leaves, or may leave, what the procedure fixes.`
            : remedy.where === 'inside'
              ? t`Inside the procedure ${limit}`.trim()
              : t`Not fixed by the procedure`}
        </span>
      </span>
      {onCured && (
        <button
          type="button"
          className="link p-1 whitespace-nowrap"
          aria-label={t`Cured by: ${remedy.words}`}
          onClick={onCured}
        >
          <Trans>cured it</Trans>
        </button>
      )}
    </li>
  )
}
