import { t } from '@lingui/core/macro'
import { Trans } from '@lingui/react/macro'
import { useState } from 'react'

import type { ArcTrace } from '../../api/types'
import { Button } from '../../ui/Button'
import { arcSamples } from './arcSamples'

const WIDTH = 600
const HEIGHT = 84
const SECONDS = 3

/** Voltage and current over time, and the arc's sound: off until it is asked for, with a caption. */
export function TracePanel({ trace }: { trace: ArcTrace }) {
  const [captioned, setCaptioned] = useState(false)
  const [silent, setSilent] = useState(false)
  return (
    <div className="my-3">
      <Curve words={t`Voltage, V`} points={trace.points.map(([time = 0, volts = 0]) => [time, volts])} top={40} />
      <Curve words={t`Current, A`} points={trace.points.map(([time = 0, , amps = 0]) => [time, amps])} top={450} />
      <p className="text-right text-[12px] text-steel2">{t`${Math.round(trace.points.at(-1)?.[0] ?? 0)} ms`}</p>
      <div className="flex flex-wrap items-center gap-2">
        <Button onClick={() => setSilent(!play(trace))}>
          <Trans>Hear the arc</Trans>
        </Button>
        <Button aria-expanded={captioned} onClick={() => setCaptioned(!captioned)}>
          <Trans>Sound in words</Trans>
        </Button>
        {captioned && <span role="status">{trace.sound.caption}</span>}
        {silent && (
          <span role="status" className="text-[13px] text-caution">
            <Trans>This browser plays no sound. The words say what is heard.</Trans>
          </span>
        )}
      </div>
    </div>
  )
}

function Curve({ words, points, top }: { words: string; points: readonly (readonly number[])[]; top: number }) {
  const last = points.at(-1)?.[0] ?? 1
  // An AC wave runs below zero, too.
  const low = points.some(([, value = 0]) => value < 0) ? -top : 0
  const path = points
    .map(([time = 0, value = 0]) => `${(time / last) * WIDTH},${HEIGHT - ((value - low) / (top - low)) * HEIGHT}`)
    .join(' ')
  return (
    <figure className="relative mb-1">
      <figcaption className="label">{words}</figcaption>
      <svg
        role="img"
        aria-label={words}
        viewBox={`0 0 ${WIDTH} ${HEIGHT}`}
        preserveAspectRatio="none"
        className="h-[84px] w-full border border-line bg-panel"
      >
        {[0.25, 0.5, 0.75].map((share) => (
          <line key={share} x1={0} x2={WIDTH} y1={HEIGHT * share} y2={HEIGHT * share} stroke="var(--color-hair)" />
        ))}
        <polyline
          points={path}
          fill="none"
          stroke="var(--color-accent)"
          strokeWidth={1.5}
          vectorEffect="non-scaling-stroke"
        />
      </svg>
      <span className="absolute right-1 bottom-0.5 text-[11px] text-steel2">{low}</span>
      <span className="absolute top-5 right-1 text-[11px] text-steel2">{top}</span>
    </figure>
  )
}

/** Play it; whether the browser could. */
function play(trace: ArcTrace): boolean {
  try {
    const audio = new AudioContext()
    const samples = arcSamples(trace.sound, audio.sampleRate, SECONDS, Math.random)
    const buffer = audio.createBuffer(1, samples.length, audio.sampleRate)
    buffer.getChannelData(0).set(samples)
    const source = audio.createBufferSource()
    source.buffer = buffer
    source.connect(audio.destination)
    source.onended = () => void audio.close()
    source.start()
    return true
  } catch {
    return false
  }
}
