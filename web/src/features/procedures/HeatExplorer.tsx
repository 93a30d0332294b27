import { t } from '@lingui/core/macro'
import { Trans } from '@lingui/react/macro'
import { keepPreviousData, useQuery } from '@tanstack/react-query'
import { useState } from 'react'

import type { Evaluation, HeatChart, Procedure } from '../../api/types'
import { useUnits } from '../../session/units'
import { withPasses } from '../../domain/procedure'
import { moved, settled, ticks, type Edge, type Rectangle } from '../../domain/rectangle'
import { temper } from '../../domain/temper'
import { Notice } from '../../ui/Notice'
import { heatChartQuery } from '../../queries/procedures'
import { digits } from '../../session/language'

type Props = {
  document: Procedure
  selected: number
  evaluation: Evaluation
  onChange: (change: (before: Procedure) => Procedure) => void
  disabled: boolean
}

const WIDTH = 560
const HEIGHT = 300
const LEFT = 46
const BOTTOM = 34
const TOP = 10
const RIGHT = 64

/** Amps against travel with lines of equal heat input. The pass's rectangle is dragged, and asked about when it is let go. */
export function HeatExplorer({ document, selected, evaluation, onChange, disabled }: Props) {
  const chart = useQuery({ ...heatChartQuery(document, selected), placeholderData: keepPreviousData })
  const pass = document.passes.find((one) => one.number === selected)
  if (!pass?.current_a || !pass.voltage_v || !pass.travel_mm_min)
    return (
      <p className="p-3 text-[13px] text-steel2">
        <Trans>State amps, volts and travel of pass {selected}; then its heat input is drawn here.</Trans>
      </p>
    )
  if (chart.isError)
    return (
      <Notice mark="breach" className="text-[13px]">
        {chart.error.message}
      </Notice>
    )
  if (!chart.data)
    return (
      <p className="p-3 text-[13px] text-steel2">
        <Trans>Drawing …</Trans>
      </p>
    )
  const heat = evaluation.heat_input.find((one) => one.pass_number === selected)
  return (
    <Chart
      chart={chart.data}
      rectangle={{ across: pass.travel_mm_min, along: pass.current_a }}
      heat={heat ?? null}
      word={evaluation.heat_word}
      disabled={disabled}
      pass={selected}
      onSet={({ across, along }) =>
        onChange((before) =>
          withPasses(before, [selected], (one) => ({
            travel_mm_min: across,
            current_a: along,
            sources: without(one.sources, ['travel_mm_min', 'current_a']),
          })),
        )
      }
    />
  )
}

/** Sources without those of values that were set by hand. */
function without<T extends Record<string, unknown>>(sources: T | undefined, paths: readonly string[]): T {
  return Object.fromEntries(Object.entries(sources ?? {}).filter(([path]) => !paths.includes(path))) as T
}

type ChartProps = {
  chart: HeatChart
  rectangle: Rectangle
  heat: { min_kj_mm: number; max_kj_mm: number } | null
  word: string
  pass: number
  disabled: boolean
  onSet: (rectangle: Rectangle) => void
}

function Chart({ chart, rectangle, heat, word, pass, disabled, onSet }: ChartProps) {
  const units = useUnits()
  const [dragged, setDragged] = useState<Rectangle | null>(null)
  const [grip, setGrip] = useState<{ edge: Edge; x: number; y: number; from: Rectangle; scale: number } | null>(null)
  const axes: Rectangle = {
    across: { min: 0, max: chart.travel_mm_min.max },
    along: { min: 0, max: chart.current_a.max },
  }
  const x = (travel: number) => LEFT + (travel / axes.across.max) * (WIDTH - LEFT - RIGHT)
  const y = (amps: number) => HEIGHT - BOTTOM - (amps / axes.along.max) * (HEIGHT - BOTTOM - TOP)
  const shown = dragged ?? rectangle
  const begin = (edge: Edge) => (event: React.PointerEvent<SVGElement>) => {
    if (disabled) return
    event.currentTarget.setPointerCapture(event.pointerId)
    const width = event.currentTarget.ownerSVGElement?.getBoundingClientRect().width ?? WIDTH
    setGrip({ edge, x: event.clientX, y: event.clientY, from: shown, scale: width / WIDTH })
  }
  const move = (event: React.PointerEvent<SVGElement>) => {
    if (!grip) return
    const dx = ((event.clientX - grip.x) / grip.scale / (WIDTH - LEFT - RIGHT)) * axes.across.max
    const dy = (-(event.clientY - grip.y) / grip.scale / (HEIGHT - BOTTOM - TOP)) * axes.along.max
    setDragged(moved(grip.from, grip.edge, dx, dy, axes))
  }
  // What was dragged becomes the document's, and only then is it judged.
  const end = () => {
    setGrip(null)
    setDragged(null)
    if (grip && dragged) onSet(settled(dragged))
  }
  const keys = (edge: Edge) => (event: React.KeyboardEvent<SVGElement>) => {
    const steps: Record<string, [number, number]> = {
      ArrowLeft: [-5, 0],
      ArrowRight: [5, 0],
      ArrowUp: [0, 5],
      ArrowDown: [0, -5],
    }
    const step = steps[event.key]
    if (!step || disabled) return
    event.preventDefault()
    onSet(settled(moved(shown, edge, step[0], step[1], axes)))
  }
  const left = x(shown.across.min)
  const right = x(shown.across.max)
  const top = y(shown.along.max)
  const bottom = y(shown.along.min)
  const edges: { edge: Edge; words: string; value: number; cx: number; cy: number; cursor: string }[] = [
    {
      edge: 'left',
      words: t`Slowest travel`,
      value: shown.across.min,
      cx: left,
      cy: (top + bottom) / 2,
      cursor: 'ew-resize',
    },
    {
      edge: 'right',
      words: t`Fastest travel`,
      value: shown.across.max,
      cx: right,
      cy: (top + bottom) / 2,
      cursor: 'ew-resize',
    },
    { edge: 'top', words: t`Most amps`, value: shown.along.max, cx: (left + right) / 2, cy: top, cursor: 'ns-resize' },
    {
      edge: 'bottom',
      words: t`Least amps`,
      value: shown.along.min,
      cx: (left + right) / 2,
      cy: bottom,
      cursor: 'ns-resize',
    },
  ]
  return (
    <div>
      <p className="text-[13px] text-steel">
        <Trans>
          {word}, pass {pass}:{' '}
        </Trans>
        <b className="text-ink">
          {heat ? units.range({ min: heat.min_kj_mm, max: heat.max_kj_mm }, 'heat_input') : '—'}
        </b>{' '}
        {units.unit('heat_input')}
        {dragged && (
          <span className="text-steel2">
            {' '}
            <Trans>· let go to have it judged</Trans>
          </span>
        )}
        <span className="text-steel2">
          <Trans> · lines at {units.value(chart.voltage_v, 'voltage')} V</Trans>
          {chart.k === 1 ? t`, without k` : `, k ${digits(String(chart.k))}`}
          <Trans>; thick lines bound what is wanted</Trans>
        </span>
      </p>
      <svg
        viewBox={`0 0 ${String(WIDTH)} ${String(HEIGHT)}`}
        className="mt-1 block w-full max-w-[760px] touch-none select-none"
        role="group"
        aria-label={t`Heat input of pass ${pass}: amps against travel`}
      >
        {ticks(axes.across.max).map((value) => (
          <g key={value}>
            <line x1={x(value)} x2={x(value)} y1={TOP} y2={HEIGHT - BOTTOM} className="stroke-hair" />
            <text x={x(value)} y={HEIGHT - BOTTOM + 14} textAnchor="middle" className="fill-steel2 text-[11px]">
              {units.value(value, 'travel')}
            </text>
          </g>
        ))}
        {ticks(axes.along.max, 4).map((value) => (
          <g key={value}>
            <line x1={LEFT} x2={WIDTH - RIGHT} y1={y(value)} y2={y(value)} className="stroke-hair" />
            <text x={LEFT - 6} y={y(value) + 4} textAnchor="end" className="fill-steel2 text-[11px]">
              {value}
            </text>
          </g>
        ))}
        <text x={WIDTH - RIGHT} y={HEIGHT - 4} textAnchor="end" className="fill-steel text-[11px]">
          <Trans>travel, {units.unit('travel')}</Trans>
        </text>
        <text x={4} y={TOP + 8} className="fill-steel text-[11px]">
          A
        </text>
        {chart.lines.map((line) => {
          const [x0 = 0, x1 = 0] = line.travel_mm_min
          const [y0 = 0, y1 = 0] = line.current_a
          return (
            <g key={line.kj_mm}>
              <line
                x1={x(x0)}
                y1={y(y0)}
                x2={x(x1)}
                y2={y(y1)}
                stroke={temper(line.kj_mm)}
                strokeWidth={line.wanted ? 3 : 1.2}
              />
              <text
                x={x(x1) + 5}
                y={Math.max(y(y1) + 4, TOP + 9)}
                className={`text-[11px] ${line.wanted ? 'fill-ink font-semibold' : 'fill-steel2'}`}
              >
                {units.value(line.kj_mm, 'heat_input')}
              </text>
            </g>
          )
        })}
        <rect
          x={left}
          y={top}
          width={Math.max(right - left, 1)}
          height={Math.max(bottom - top, 1)}
          fill={temper(heat?.max_kj_mm)}
          fillOpacity="0.35"
          className="stroke-ink"
          strokeWidth="1.5"
          style={{ cursor: disabled ? 'default' : 'move' }}
          onPointerDown={begin('whole')}
          onPointerMove={move}
          onPointerUp={end}
          onPointerCancel={end}
          data-handle="whole"
        />
        {!disabled &&
          edges.map((one) => (
            <circle
              key={one.edge}
              cx={one.cx}
              cy={one.cy}
              r="6"
              className="fill-panel stroke-accent"
              strokeWidth="2"
              style={{ cursor: one.cursor }}
              tabIndex={0}
              role="slider"
              aria-label={one.words}
              aria-valuenow={Math.round(one.value)}
              data-handle={one.edge}
              onPointerDown={begin(one.edge)}
              onPointerMove={move}
              onPointerUp={end}
              onPointerCancel={end}
              onKeyDown={keys(one.edge)}
            />
          ))}
      </svg>
    </div>
  )
}
