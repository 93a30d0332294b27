import { t } from '@lingui/core/macro'
import { Trans } from '@lingui/react/macro'
import { useMemo } from 'react'
import { Link } from 'react-router'

import type { RangeItem } from '../api/types'
import { PROVENANCE } from '../domain/words'
import { digits } from '../session/language'
import { useUnits } from '../session/units'
import { SpanScale } from './SpanScale'
import { MarkIcon } from './Verdict'

/** What a variable is qualified for, with what was tested, and on request why and where that stands. */
export function RangeCell({
  item,
  quantity,
  others,
}: {
  item: RangeItem
  quantity: string
  others: (RangeItem | null)[]
}) {
  const units = useUnits()
  const [low, high] = useMemo(() => {
    const known = others
      .flatMap((one) => [
        one?.min,
        one?.max,
        ...(one?.tested && !Array.isArray(one.tested) && 'min' in one.tested ? [one.tested.min, one.tested.max] : []),
      ])
      .filter((value): value is number => value != null)
    const [least, most] = [Math.min(...known), Math.max(...known)]
    const room = (most - least) * 0.12 || Math.abs(most) * 0.2 || 1
    return [least - room, most + room]
  }, [others])
  const write = (value: number | null | undefined) =>
    value == null ? t`no limit` : quantity ? units.value(value, quantity) : digits(String(value))
  const unit = quantity ? units.unit(quantity) : ''
  return (
    <details className="group">
      <summary className="flex cursor-pointer list-none flex-wrap items-center gap-x-2 marker:hidden">
        {item.kind === 'span' && (
          <span className="flex flex-wrap items-center gap-x-3">
            <SpanScale item={item} quantity={quantity} low={low} high={high} />
            <span className="whitespace-nowrap tabular-nums">
              {item.min == null
                ? t`up to ${write(item.max)}`
                : item.max == null
                  ? `${item.min_open ? t`over` : t`from`} ${write(item.min)}`
                  : `${write(item.min)} – ${write(item.max)}`}{' '}
              <small className="text-steel2">{unit}</small>
            </span>
          </span>
        )}
        {(item.kind === 'set' || item.kind === 'exact') && (
          <span>{item.values.map((one) => item.words?.[one] ?? one).join('; ')}</span>
        )}
        {item.doubtful.length > 0 && (
          <span className="text-steel2">
            <Trans>not decided:</Trans> {item.doubtful.map((one) => item.words?.[one] ?? one).join('; ')}
          </span>
        )}
        {item.weld === 'cjp-groove' && (
          <small className="text-steel2">
            <Trans>CJP grooves</Trans>
          </small>
        )}
        {item.open_beyond && (
          <span className="text-steel2">
            <Trans>anything else not decided</Trans>
          </span>
        )}
        {item.kind === 'any' && (
          <span className="text-steel2">
            <Trans>free</Trans>
          </span>
        )}
        {item.kind === 'unknown' && (
          <span className="inline-flex items-center gap-1.5">
            <MarkIcon mark="unknown" silent /> <Trans>not known</Trans>
          </span>
        )}
        <span className="border-b border-dotted border-edge text-[11.5px] text-steel2 group-open:hidden">
          <Trans>why</Trans>
        </span>
      </summary>
      <p className="mt-1 text-[12.5px] text-steel">
        {item.reason} {item.also}
      </p>
      <p className="text-[11.5px] text-steel2">
        {item.rule.document}:{item.rule.edition}, {item.rule.clause}
        {item.rule.earlier && ` (${item.rule.earlier})`} · {PROVENANCE[item.rule.provenance] ?? item.rule.provenance}
        {item.unchecked[0] && (
          <>
            {' '}
            ·{' '}
            <Link className="link" to={`/book?row=${encodeURIComponent(item.unchecked[0])}`}>
              <Trans>open in the code book</Trans>
            </Link>
          </>
        )}
      </p>
    </details>
  )
}
