import { t } from '@lingui/core/macro'
import { Trans } from '@lingui/react/macro'
import type { Range } from '../../api/types'
import { useUnits } from '../../session/units'
import { scaleOver } from '../../domain/band'
import { Band } from '../../ui/Band'

export function Small({ words, children }: { words: string; children: React.ReactNode }) {
  return (
    <div>
      <span className="label">{words}</span>
      {children}
    </div>
  )
}

export function Computed({ value, kind, out }: { value: number | null; kind: string; out: boolean }) {
  const units = useUnits()
  return (
    <p
      className={`font-head text-[28px] font-semibold whitespace-nowrap ${out ? 'text-breach' : ''}`}
      data-computed={kind}
    >
      {value === null ? '—' : units.value(value, kind)}{' '}
      <span className="font-sans text-[14px] font-normal text-steel2">{units.unit(kind)}</span>
    </p>
  )
}

type GaugeProps = {
  kind: string
  allowed: Range | null | undefined
  seen: Range | null
  out: boolean
  words: string
  colour?: string
}

export function Gauge({ kind, allowed, seen, out, words, colour }: GaugeProps) {
  const units = useUnits()
  if (!allowed)
    return (
      <span className="text-[13px] text-steel2">
        <Trans>no range planned</Trans>
      </span>
    )
  const dots = seen ? [...new Set([seen.min, seen.max])].map((value) => ({ value, out })) : []
  return (
    <div>
      <Band
        scale={scaleOver([allowed, seen])}
        range={allowed}
        dots={dots}
        height={20}
        label={t`${words} against its range`}
        {...(colour ? { colour } : {})}
      />
      <p className="text-center text-[13px] text-steel2">
        {units.range(allowed, kind)} {units.unit(kind)}
      </p>
    </div>
  )
}
