import { t } from '@lingui/core/macro'
import { Trans } from '@lingui/react/macro'
import { keepPreviousData, useQuery } from '@tanstack/react-query'
import { useState } from 'react'

import { Labelled } from '../../ui/Labelled'
import { QuantityField } from '../../ui/QuantityField'
import { TextField } from '../../ui/TextField'
import { useSettled } from '../../ui/useSettled'
import { Card, Fact } from './Card'
import { WaveDrawing } from './WaveDrawing'
import { pulseQuery, schoolsQuery } from '../../queries/calculators'
import { fixed, precise } from '../../session/language'

type Typed = {
  peak_a: number | null
  background: string | null
  share: number | null
  frequency_hz: number | null
  peak_v: number | null
  background_v: number | null
}
const START: Typed = { peak_a: 100, background: '10 %', share: 30, frequency_hz: 2, peak_v: null, background_v: null }

/** A TIG pulse: its shape and its means. */
export function PulseCard() {
  const [typed, setTyped] = useState<Typed>(START)
  const put = (changes: Partial<Typed>) => setTyped((before) => ({ ...before, ...changes }))
  const asked = useSettled(typed)
  const whole = asked.peak_a !== null && asked.background !== null && asked.share !== null
  const found = useQuery({
    ...pulseQuery({
      peak_a: asked.peak_a ?? 0,
      background: asked.background ?? '',
      peak_share: (asked.share ?? 0) / 100,
      frequency_hz: asked.frequency_hz,
      peak_v: asked.peak_v,
      background_v: asked.background_v,
    }),
    enabled: whole,
    placeholderData: keepPreviousData,
    retry: false,
  })
  const schools = useQuery(schoolsQuery)
  const answer = whole && !found.isError ? found.data : undefined
  const means = answer?.means
  return (
    <Card title={t`Pulse`}>
      <div className="grid grid-cols-3 gap-2 max-sm:grid-cols-1">
        <Labelled words={t`Peak`}>
          <QuantityField
            label={t`Peak current`}
            kind="current"
            value={typed.peak_a}
            onChange={(peak_a) => put({ peak_a })}
          />
        </Labelled>
        <Labelled words={t`Background`}>
          <TextField
            label={t`Background current`}
            value={typed.background}
            onChange={(background) => put({ background })}
            placeholder={t`12 A or 10 %`}
            error={whole && found.isError ? found.error.message : undefined}
          />
        </Labelled>
        <Labelled words={t`Time at peak`}>
          <QuantityField
            label={t`Share of time at peak`}
            kind="percent"
            value={typed.share}
            onChange={(share) => put({ share })}
          />
        </Labelled>
        <Labelled words={t`Frequency`}>
          <QuantityField
            label={t`Frequency of the pulse`}
            kind="frequency"
            value={typed.frequency_hz}
            onChange={(frequency_hz) => put({ frequency_hz })}
          />
        </Labelled>
        <Labelled words={t`Volts at peak`}>
          <QuantityField
            label={t`Volts at peak`}
            kind="voltage"
            value={typed.peak_v}
            onChange={(peak_v) => put({ peak_v })}
          />
        </Labelled>
        <Labelled words={t`at background`}>
          <QuantityField
            label={t`Volts at background`}
            kind="voltage"
            value={typed.background_v}
            onChange={(background_v) => put({ background_v })}
          />
        </Labelled>
      </div>
      {schools.data && (
        <p className="mt-1.5 flex flex-wrap gap-x-3 text-[13px]">
          <span className="text-steel2">
            <Trans>usual settings</Trans>
          </span>
          {schools.data.map((school) => (
            <button
              key={school.school}
              type="button"
              className="link"
              title={school.use}
              onClick={() =>
                put({
                  background: `${String(Math.round(school.background_share.min * 100))} %`,
                  share: school.peak_share.min * 100,
                  frequency_hz: school.frequency_hz.min,
                })
              }
            >
              {school.words}
            </button>
          ))}
        </p>
      )}
      {answer && means && (
        <>
          <WaveDrawing
            points={answer.points}
            filled
            label={t`Pulse of ${typed.peak_a ?? 0} A, mean ${fixed(means.mean_a, 1)} A`}
            xWords={
              answer.peak_ms == null
                ? t`three periods`
                : t`three periods, ${precise(answer.peak_ms + (answer.background_ms ?? 0), 3)} ms each`
            }
            lines={[
              { y: means.rms_a, words: t`rms ${fixed(means.rms_a, 1)} A`, dashed: true },
              { y: means.mean_a, words: t`mean ${fixed(means.mean_a, 1)} A` },
            ]}
          />
          <dl>
            {means.mean_power_w != null && means.apparent_power_w != null && (
              <Fact words={t`Power`}>
                <Trans>
                  {fixed(means.mean_power_w, 0)} W; mean volts × mean amps would say {fixed(means.apparent_power_w, 0)}{' '}
                  W
                </Trans>
              </Fact>
            )}
          </dl>
        </>
      )}
    </Card>
  )
}
