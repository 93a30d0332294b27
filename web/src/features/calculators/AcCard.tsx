import { t } from '@lingui/core/macro'
import { Trans } from '@lingui/react/macro'
import { keepPreviousData, useQuery } from '@tanstack/react-query'
import { useState } from 'react'

import type { BalanceDial } from '../../api/types'
import { BALANCES, WAVEFORMS } from '../../domain/words'
import { Choice } from '../../ui/Choice'
import { Labelled } from '../../ui/Labelled'
import { QuantityField } from '../../ui/QuantityField'
import { useSettled } from '../../ui/useSettled'
import { Card, Fact } from './Card'
import { WaveDrawing } from './WaveDrawing'
import { acQuery } from '../../queries/calculators'
import { fixed, precise } from '../../session/language'

type Waveform = 'sine' | 'soft-square' | 'square' | 'triangle'
type Typed = {
  en_a: number | null
  balance: number | null
  convention: BalanceDial['convention']
  zero: number | null
  step: number | null
  frequency_hz: number | null
  waveform: Waveform
  ratio: number | null
  en_v: number | null
  ep_v: number | null
}
const START: Typed = {
  en_a: 120,
  balance: 30,
  convention: 'ep-percent',
  zero: 70,
  step: 3,
  frequency_hz: 120,
  waveform: 'square',
  ratio: 1,
  en_v: null,
  ep_v: null,
}

/** An AC wave: its balance on every kind of dial, its shape, its means. */
export function AcCard() {
  const [typed, setTyped] = useState<Typed>(START)
  const put = (changes: Partial<Typed>) => setTyped((before) => ({ ...before, ...changes }))
  const asked = useSettled(typed)
  const whole = asked.en_a !== null && asked.balance !== null && asked.frequency_hz !== null
  const signed = typed.convention === 'signed'
  const found = useQuery({
    ...acQuery({
      en_a: asked.en_a ?? 0,
      balance: asked.balance ?? 0,
      frequency_hz: asked.frequency_hz ?? 0,
      waveform: asked.waveform,
      amplitude_ratio: asked.ratio ?? 1,
      en_v: asked.en_v,
      ep_v: asked.ep_v,
      dial: {
        convention: asked.convention,
        ...(asked.convention === 'signed'
          ? { zero_en_share: (asked.zero ?? 0) / 100, step_en_share: (asked.step ?? 0) / 100 }
          : {}),
      },
    }),
    enabled: whole,
    placeholderData: keepPreviousData,
    retry: false,
  })
  const answer = whole && !found.isError ? found.data : undefined
  return (
    <Card title={t`AC wave and balance`}>
      <div className="grid grid-cols-3 gap-2 max-sm:grid-cols-1">
        <Labelled words={t`The dial counts`}>
          <Choice
            label={t`What the balance dial counts`}
            value={typed.convention}
            options={BALANCES}
            onChange={(convention) => convention && put({ convention })}
          />
        </Labelled>
        <Labelled words={t`It shows`}>
          {/* The kind differs, so the field starts anew with it. */}
          <QuantityField
            key={signed ? 'signed' : 'percent'}
            label={t`Balance on the dial`}
            kind={signed ? 'number' : 'percent'}
            value={typed.balance}
            onChange={(balance) => put({ balance })}
          />
        </Labelled>
        <Labelled words={t`Frequency`}>
          <QuantityField
            label={t`AC frequency of the calculator`}
            kind="frequency"
            value={typed.frequency_hz}
            onChange={(frequency_hz) => put({ frequency_hz })}
          />
        </Labelled>
        {signed && (
          <>
            <Labelled words={t`Negative at zero, %`}>
              <QuantityField
                label={t`Share negative at zero`}
                kind="percent"
                value={typed.zero}
                onChange={(zero) => put({ zero })}
              />
            </Labelled>
            <Labelled words={t`a step adds, %`}>
              <QuantityField
                label={t`Share a step adds`}
                kind="number"
                value={typed.step}
                onChange={(step) => put({ step })}
              />
            </Labelled>
          </>
        )}
        <Labelled words={t`Waveform`}>
          <Choice
            label={t`Waveform of the calculator`}
            value={typed.waveform}
            options={WAVEFORMS}
            onChange={(waveform) => waveform && put({ waveform })}
          />
        </Labelled>
        <Labelled words={t`Height negative`}>
          <QuantityField
            label={t`Height of the negative half`}
            kind="current"
            value={typed.en_a}
            onChange={(en_a) => put({ en_a })}
          />
        </Labelled>
        <Labelled words={t`over positive`}>
          <QuantityField
            label={t`Height of the negative half over the positive`}
            kind="number"
            value={typed.ratio}
            onChange={(ratio) => put({ ratio })}
          />
        </Labelled>
        <Labelled words={t`Volts negative`}>
          <QuantityField
            label={t`Volts negative`}
            kind="voltage"
            value={typed.en_v}
            onChange={(en_v) => put({ en_v })}
          />
        </Labelled>
        <Labelled words={t`Volts positive`}>
          <QuantityField
            label={t`Volts positive`}
            kind="voltage"
            value={typed.ep_v}
            onChange={(ep_v) => put({ ep_v })}
          />
        </Labelled>
      </div>
      {whole && found.isError && (
        <p role="alert" className="mt-1 text-[13px] text-breach">
          {found.error.message}
        </p>
      )}
      {answer && (
        <>
          <WaveDrawing
            points={answer.wave.points}
            filled
            label={t`AC wave, ${fixed(answer.readings.en_percent, 0)} % negative`}
            xWords={t`one period, ${precise(answer.wave.period_ms, 3)} ms`}
            lines={[
              { y: answer.wave.rms_a, words: t`rms ${fixed(answer.wave.rms_a, 1)} A`, dashed: true },
              { y: answer.wave.mean_a, words: t`mean ${fixed(answer.wave.mean_a, 1)} A` },
            ]}
          />
          <dl>
            <Fact words={t`Balance`}>
              <Trans>
                {fixed(answer.readings.en_percent, 1)} % negative ({precise(answer.wave.en_ms, 3)} ms) is{' '}
                {fixed(answer.readings.ep_percent, 1)} % cleaning ({precise(answer.wave.ep_ms, 3)} ms)
              </Trans>
            </Fact>
            <Fact words={t`Net`}>
              <Trans>{fixed(answer.wave.net_a, 1).replace('-', '−')} A, as a DC meter would show it</Trans>
            </Fact>
            {answer.wave.mean_power_w != null && <Fact words={t`Power`}>{fixed(answer.wave.mean_power_w, 0)} W</Fact>}
          </dl>
        </>
      )}
    </Card>
  )
}
