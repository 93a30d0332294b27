import { t } from '@lingui/core/macro'
import { useId } from 'react'

import type { BeadFigure, BeadJointPicture, BeadPrediction } from '../../api/types'
import { useUnits } from '../../session/units'

type Point = readonly number[]

const path = (points: readonly Point[]) => points.map(([x = 0, y = 0]) => `${x},${-y}`).join(' ')

type View = { left: number; bottom: number; right: number; top: number }

/** What has to be seen of all of them, so that drawings side by side have one scale. */
export function viewOf(items: readonly BeadPrediction[]): View {
  const joints = items.flatMap((one) => (one.joint ? [one.joint] : []))
  const corner = (name: 'low' | 'high', place: number) => joints.map((one) => one[name][place] ?? 0)
  return {
    left: Math.min(...corner('low', 0)),
    bottom: Math.min(...corner('low', 1)),
    right: Math.max(...corner('high', 0)),
    top: Math.max(...corner('high', 1)),
  }
}

/** The bead in its joint: members, deposit, what melted of the members, and the heat-affected zone beside it. */
export function JointDrawing({
  picture,
  view,
  tint,
}: {
  picture: BeadJointPicture
  view: View
  tint: BeadFigure | undefined
}) {
  const clip = useId()
  const units = useUnits()
  const said = (value: number, kind: string) => `${units.range({ min: value, max: value }, kind)} ${units.unit(kind)}`
  const { left, bottom, right, top } = view
  const wide = right - left
  const zone = picture.beside.find((one) => one.name === 'zone')
  const pool = picture.beside.find((one) => one.name === 'pool')
  const colder = picture.beside.filter((one) => zone && one.peak_c < zone.peak_c)
  const label = t`Section of the bead in its joint, drawn from the model`
  const along = { fill: 'none', strokeLinejoin: 'round' as const, strokeLinecap: 'round' as const }
  return (
    <svg
      role="img"
      aria-label={label}
      viewBox={`${left} ${-top} ${wide} ${top - bottom}`}
      className="max-h-[260px] w-full"
      preserveAspectRatio="xMidYMid meet"
    >
      <clipPath id={clip}>
        {picture.members.map((outline, place) => (
          <polygon key={place} points={path(outline)} />
        ))}
      </clipPath>
      {picture.members.map((outline, place) => (
        <polygon
          key={place}
          points={path(outline)}
          fill="var(--color-hair)"
          stroke="var(--color-steel2)"
          strokeWidth={wide / 320}
        />
      ))}
      <g clipPath={`url(#${clip})`}>
        {colder.map((one) => (
          <polyline
            key={one.name}
            points={path(picture.wall)}
            {...along}
            stroke="var(--color-steel2)"
            strokeOpacity={0.12}
            strokeWidth={2 * one.beyond_mm}
          />
        ))}
        {zone && (
          <polyline
            points={path(picture.wall)}
            {...along}
            stroke="var(--color-straw)"
            strokeOpacity={0.4}
            strokeWidth={2 * zone.beyond_mm}
          />
        )}
        {pool && (
          <polyline
            points={path(picture.wall)}
            {...along}
            stroke="var(--color-straw)"
            strokeWidth={2 * pool.beyond_mm}
          />
        )}
      </g>
      <polygon
        points={path(picture.deposit)}
        fill={tint?.swatch ? tint.swatch : 'var(--color-straw)'}
        stroke="var(--color-ink)"
        strokeWidth={wide / 400}
      />
      <polyline
        points={path(picture.wall)}
        fill="none"
        stroke="var(--color-ink)"
        strokeDasharray={`${wide / 90}`}
        strokeWidth={wide / 400}
      />
      {zone && (
        <text x={left + wide * 0.02} y={-bottom - (top - bottom) * 0.03} fontSize={wide / 34} className="fill-steel2">
          {t`HAZ (${said(zone.peak_c, 'temperature')}): ${said(zone.beyond_mm, 'length')} beyond the prepared edge`}
        </text>
      )}
    </svg>
  )
}
