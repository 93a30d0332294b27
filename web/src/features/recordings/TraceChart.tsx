import { t } from '@lingui/core/macro'
import { useEffect, useRef } from 'react'
import uPlot from 'uplot'
import 'uplot/dist/uPlot.min.css'

import type { Trace } from '../../api/types'
import { padded } from '../../domain/rectangle'
import { withGaps } from '../../domain/trace'
import type { Span } from '../../queries/recordings'
import { fixed } from '../../session/language'

const SHOWN: Record<string, { words: string; unit: string }> = {
  voltage_v: { words: t`Voltage`, unit: 'V' },
  current_a: { words: t`Current`, unit: 'A' },
  wire_feed_m_min: { words: t`Wire feed`, unit: 'm/min' },
  gas_l_min: { words: t`Gas`, unit: 'L/min' },
}
const TALL: Record<string, number> = { voltage_v: 118, current_a: 118, wire_feed_m_min: 62, gas_l_min: 62 }
/** Room for the clock below the last channel. */
const CLOCK = 30
const COLOURS: Record<string, string> = {
  voltage_v: '#2C5F8A',
  current_a: '#9A5F2C',
  wire_feed_m_min: '#5F6B73',
  gas_l_min: '#2F6B4F',
}

type Props = {
  trace: Trace
  parts: readonly { start_s: number; end_s: number; label: string }[]
  onZoom: (span: Span) => void
}

/** The trace of every channel, lowest to highest in each moment; drag to look closer. */
export function TraceChart({ trace, parts, onZoom }: Props) {
  const names = Object.keys(SHOWN).filter((name) => name in trace.channels)
  return (
    <div className="grid gap-1">
      {names.map((name, at) => (
        <Channel
          key={name}
          name={name}
          last={at === names.length - 1}
          time={trace.start_s}
          low={trace.channels[name]?.['low'] ?? []}
          high={trace.channels[name]?.['high'] ?? []}
          parts={parts}
          onZoom={onZoom}
        />
      ))}
    </div>
  )
}

type ChannelProps = {
  name: string
  last: boolean
  time: readonly number[]
  low: readonly (number | null)[]
  high: readonly (number | null)[]
} & Pick<Props, 'parts' | 'onZoom'>

function Channel({ name, last, time, low, high, parts, onZoom }: ChannelProps) {
  const holder = useRef<HTMLDivElement>(null)
  const plot = useRef<uPlot>(null)
  const zoom = useRef(onZoom)
  const shaded = useRef(parts)
  useEffect(() => {
    zoom.current = onZoom
    shaded.current = parts
    plot.current?.redraw(false)
  }, [onZoom, parts])
  useEffect(() => {
    const place = holder.current
    if (!place) return
    const ink = getComputedStyle(place).getPropertyValue('--color-steel') || '#3A464F'
    const line = getComputedStyle(place).getPropertyValue('--color-hair') || '#ECE9DF'
    const tall = (TALL[name] ?? 90) + (last ? CLOCK : 0)
    const colour = COLOURS[name] ?? '#3A464F'
    const axis = {
      stroke: ink,
      grid: { stroke: line, width: 1 },
      ticks: { stroke: line, width: 1 },
      font: `12px ${getComputedStyle(document.body).fontFamily}`,
    }
    const made = new uPlot(
      {
        width: place.clientWidth,
        height: tall,
        legend: { show: false },
        scales: { x: { time: false }, y: { range: (_, low, high) => padded(low, high) } },
        cursor: { drag: { x: true, y: false, setScale: false }, sync: { key: 'trace' } },
        axes: [
          last ? { ...axis, size: CLOCK } : { ...axis, size: 6, values: () => [] },
          { ...axis, size: 52, space: 17 },
        ],
        series: [
          {},
          { stroke: colour, width: 1, points: { show: false } },
          { stroke: colour, width: 1, points: { show: false } },
        ],
        bands: [{ series: [2, 1], fill: `${colour}66` }],
        hooks: {
          drawClear: [
            (chart) => {
              const { ctx, bbox } = chart
              ctx.save()
              ctx.fillStyle = 'rgba(15, 92, 99, 0.10)'
              for (const part of shaded.current) {
                const left = Math.max(chart.valToPos(part.start_s, 'x', true), bbox.left)
                const right = Math.min(chart.valToPos(part.end_s, 'x', true), bbox.left + bbox.width)
                if (right > left) ctx.fillRect(left, bbox.top, right - left, bbox.height)
              }
              ctx.restore()
            },
          ],
          setSelect: [
            (chart) => {
              if (chart.select.width < 4) return
              zoom.current({
                start_s: chart.posToVal(chart.select.left, 'x'),
                end_s: chart.posToVal(chart.select.left + chart.select.width, 'x'),
              })
              chart.setSelect({ left: 0, top: 0, width: 0, height: 0 }, false)
            },
          ],
        },
      },
      [[], [], []],
      place,
    )
    plot.current = made
    const resized = new ResizeObserver(() => made.setSize({ width: place.clientWidth, height: tall }))
    resized.observe(place)
    return () => {
      resized.disconnect()
      made.destroy()
      plot.current = null
    }
  }, [name, last])
  useEffect(() => {
    plot.current?.setData(withGaps(time, low, high))
  }, [time, low, high])
  const words = SHOWN[name] ?? { words: name, unit: '' }
  const values = high.filter((one): one is number => one !== null)
  return (
    <figure>
      <figcaption className="label">
        {words.words}, {words.unit}
      </figcaption>
      <div
        ref={holder}
        role="img"
        aria-label={t`${words.words} from ${time[0]?.toFixed(2) ?? ''} to ${time.at(-1)?.toFixed(2) ?? ''} s, at most ${values.length > 0 ? fixed(Math.max(...values), 1) : t`nothing`} ${words.unit}`}
      />
    </figure>
  )
}
