import { t } from '@lingui/core/macro'
import { Trans } from '@lingui/react/macro'
import { useRef, useState } from 'react'
import type { Envelope, Supply } from '../../api/types'
import { FAMILY_WORDS } from '../../domain/words'
import { Labelled } from '../../ui/Labelled'
import { QuantityField } from '../../ui/QuantityField'
import { TextField } from '../../ui/TextField'
import { Piece, changed, without } from './FormParts'

const FAMILIES = ['stick', 'tig', 'wire'] as const

type HalfPoint = { current_a: number | null; percent: number | null }

const NO_POINT: HalfPoint = { current_a: null, percent: null }

type SupplyProps = {
  supply: Supply
  several: boolean
  connected: boolean
  onConnect: () => void
  onRemove: () => void
  onChange: (change: (before: Supply) => Supply) => void
}

export function SupplyPart({ supply, several, connected, onConnect, onRemove, onChange }: SupplyProps) {
  const others = FAMILIES.filter((family) => !supply.envelopes.some((one) => one.family === family))
  return (
    <Piece title={`On ${supply.name || t`a supply`}`} {...(several ? { onRemove } : {})}>
      <div className="flex items-end gap-4 text-[13px]">
        <div className="w-44">
          <Labelled words={t`Supply`}>
            <TextField
              label={t`Name of the supply`}
              value={supply.name}
              onChange={(name) => onChange((before) => ({ ...before, name: name ?? '' }))}
            />
          </Labelled>
        </div>
        {several && (
          <label className="flex items-center gap-1.5 pb-1">
            <input type="radio" checked={connected} onChange={onConnect} /> <Trans>connected to this one</Trans>
          </label>
        )}
      </div>
      {supply.envelopes.map((one, index) => (
        <EnvelopePart
          key={one.family}
          one={one}
          onRemove={() => onChange((before) => ({ ...before, envelopes: without(before.envelopes, index) }))}
          onChange={(change) =>
            onChange((before) => ({ ...before, envelopes: changed(before.envelopes, index, change) }))
          }
        />
      ))}
      {others.length > 0 && (
        <p className="mt-1 flex gap-3 text-[13px]">
          <span className="text-steel2">
            <Trans>it also does</Trans>
          </span>
          {others.map((family) => (
            <button
              key={family}
              type="button"
              className="link"
              onClick={() =>
                onChange((before) => ({
                  ...before,
                  envelopes: [...before.envelopes, { family, current_a: { min: 20, max: 200 }, duty: [] }],
                }))
              }
            >
              {FAMILY_WORDS[family]}
            </button>
          ))}
        </p>
      )}
    </Piece>
  )
}

type EnvelopeProps = { one: Envelope; onRemove: () => void; onChange: (change: (before: Envelope) => Envelope) => void }

function EnvelopePart({ one, onRemove, onChange }: EnvelopeProps) {
  const set = (changes: Partial<Envelope>) => onChange((before) => ({ ...before, ...changes }))
  const [half, setHalf] = useState(NO_POINT)
  const waiting = useRef(NO_POINT)
  const putHalf = (changes: Partial<HalfPoint>) => {
    const next = { ...waiting.current, ...changes }
    waiting.current = next
    if (next.current_a !== null && next.percent) {
      const point = { current_a: next.current_a, percent: next.percent }
      onChange((before) => ({ ...before, duty: [...before.duty, point] }))
      waiting.current = NO_POINT
      setHalf(NO_POINT)
    } else setHalf(next)
  }
  const words = FAMILY_WORDS[one.family] ?? one.family
  return (
    <Piece title={words} onRemove={onRemove}>
      <div className="grid grid-cols-4 gap-x-3 gap-y-2 text-[13px]">
        <Labelled words={t`Current`}>
          <QuantityField
            mode="range"
            label={t`Current, ${words}`}
            kind="current"
            value={one.current_a}
            onChange={(range) => {
              if (range) set({ current_a: range })
            }}
          />
        </Labelled>
        <Labelled words={t`Volts`}>
          <QuantityField
            mode="range"
            label={t`Volts, ${words}`}
            kind="voltage"
            value={one.voltage_v}
            onChange={(voltage_v) => set({ voltage_v })}
          />
        </Labelled>
        {one.family === 'wire' && (
          <Labelled words={t`Wire feed`}>
            <QuantityField
              mode="range"
              label={t`Wire feed, ${words}`}
              kind="wire_feed"
              value={one.wire_feed_m_min}
              onChange={(wire_feed_m_min) => set({ wire_feed_m_min })}
            />
          </Labelled>
        )}
      </div>
      <p className="label mt-2">
        <Trans>Duty cycle, of ten minutes</Trans>
      </p>
      <div className="flex flex-wrap items-start gap-x-4 gap-y-1 text-[13px]">
        {one.duty.map((point, index) => (
          <span key={index} className="tabular-nums">
            <Trans>
              {point.percent} % at {point.current_a} A{' '}
            </Trans>
            <button
              type="button"
              className="link text-[12px]"
              aria-label={t`Remove ${point.percent} % at ${point.current_a} A`}
              onClick={() => onChange((before) => ({ ...before, duty: without(before.duty, index) }))}
            >
              <Trans>remove</Trans>
            </button>
          </span>
        ))}
        <span className="grid w-64 grid-cols-2 gap-2">
          <QuantityField
            key={`p${String(one.duty.length)}`}
            label={t`Duty share, ${words}`}
            kind="percent"
            placeholder="60 %"
            hideUnit
            value={half.percent}
            onChange={(percent) => putHalf({ percent })}
          />
          <QuantityField
            key={`a${String(one.duty.length)}`}
            label={t`Duty current, ${words}`}
            kind="current"
            placeholder={t`at … A`}
            hideUnit
            value={half.current_a}
            onChange={(current_a) => putHalf({ current_a })}
          />
        </span>
      </div>
    </Piece>
  )
}
