import { t } from '@lingui/core/macro'
import { Trans } from '@lingui/react/macro'
import { useQuery } from '@tanstack/react-query'
import { useState } from 'react'

import { useUnits } from '../../../session/units'
import { Labelled } from '../../../ui/Labelled'
import { QuantityField } from '../../../ui/QuantityField'
import { ReadField } from '../../../ui/ReadField'
import { pulseQuery, schoolsQuery } from '../../../queries/calculators'
import { Part, type PartProps } from './Part'
import { fixed } from '../../../session/language'

/** The pulse. It is stored once peak and background are both known; until then they stay in their fields. */
export function PulsePart({ one, path, disabled, set, odd, tig }: PartProps & { odd: boolean; tig: boolean }) {
  const units = useUnits()
  const schools = useQuery({ ...schoolsQuery, enabled: tig })
  const [peak, setPeak] = useState<number | null>(null)
  const pulse = one.pulse
  const peakA = pulse?.peak_a ?? peak ?? undefined
  const means = useQuery({
    ...pulseQuery({
      peak_a: pulse?.peak_a ?? 0,
      background: String(pulse?.background_a ?? 0),
      peak_share: pulse?.peak_share ?? 0,
      frequency_hz: pulse?.frequency_hz ?? null,
    }),
    enabled: Boolean(pulse?.peak_share),
  })
  return (
    <Part title={t`Pulse`} odd={odd} {...(pulse && !disabled ? { onTakeOut: () => set({ pulse: null }) } : {})}>
      <Labelled words={t`Peak`}>
        <QuantityField
          label={t`Pulse peak`}
          kind="current"
          path={`${path}.pulse.peak_a`}
          value={peakA}
          disabled={disabled}
          onChange={(peak_a) => {
            setPeak(peak_a)
            set((pass) => (pass.pulse ? { pulse: peak_a === null ? null : { ...pass.pulse, peak_a } } : {}))
          }}
        />
      </Labelled>
      <Labelled words={t`Background`}>
        <ReadField
          label={t`Pulse background`}
          as="background"
          unit="A"
          path={`${path}.pulse.background_a`}
          written={pulse ? units.value(pulse.background_a, 'current') : ''}
          placeholder={t`12 A or 10 %`}
          peakA={peakA}
          disabled={disabled}
          onEmpty={() => set({ pulse: null })}
          onRead={(read) => {
            const background_a = read.value
            if (background_a != null && peakA !== undefined)
              set((pass) => ({ pulse: { ...pass.pulse, peak_a: pass.pulse?.peak_a ?? peakA, background_a } }))
          }}
        />
      </Labelled>
      <Labelled words={t`Frequency`}>
        <QuantityField
          label={t`Pulse frequency`}
          kind="frequency"
          path={`${path}.pulse.frequency_hz`}
          value={pulse?.frequency_hz}
          disabled={disabled || !pulse}
          onChange={(frequency_hz) => set((pass) => (pass.pulse ? { pulse: { ...pass.pulse, frequency_hz } } : {}))}
        />
      </Labelled>
      <Labelled words={t`Time at peak`}>
        <QuantityField
          label={t`Time at peak`}
          kind="percent"
          path={`${path}.pulse.peak_share`}
          value={pulse?.peak_share == null ? null : pulse.peak_share * 100}
          disabled={disabled || !pulse}
          onChange={(share) =>
            set((pass) =>
              pass.pulse
                ? { pulse: { ...pass.pulse, peak_share: share === null || share === 0 ? null : share / 100 } }
                : {},
            )
          }
        />
      </Labelled>
      {means.data && (
        <p className="col-span-full text-[12px] text-steel2">
          <Trans>
            mean {fixed(means.data.means.mean_a, 1)} A · rms {fixed(means.data.means.rms_a, 1)} A
          </Trans>
          {means.data.peak_ms != null &&
            t` · peak ${fixed(means.data.peak_ms, 1)} ms, background ${fixed(means.data.background_ms ?? 0, 1)} ms`}
        </p>
      )}
      {tig && !disabled && peakA !== undefined && schools.data && (
        <p className="col-span-full flex flex-wrap gap-x-3 text-[12px]">
          <span className="text-steel2">
            <Trans>take a school</Trans>
          </span>
          {schools.data.map((school) => (
            <button
              key={school.school}
              type="button"
              className="link"
              title={school.use}
              onClick={() =>
                set({
                  pulse: {
                    ...pulse,
                    peak_a: peakA,
                    background_a: peakA * school.background_share.min,
                    frequency_hz: school.frequency_hz.min,
                    peak_share: school.peak_share.min,
                  },
                })
              }
            >
              {school.words}
            </button>
          ))}
        </p>
      )}
    </Part>
  )
}
