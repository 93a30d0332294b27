import { t } from '@lingui/core/macro'
import { Trans } from '@lingui/react/macro'
import type { ReactNode } from 'react'

import type { BeadSettings } from '../../api/types'
import { POLARITIES, POSITIONS, WAVEFORMS } from '../../domain/words'
import { Choice } from '../../ui/Choice'
import { Labelled } from '../../ui/Labelled'
import { QuantityField } from '../../ui/QuantityField'
import { STARTS } from './settings'

/** Changes, or what they are of the settings as they stand: two fields may be read at once. */
export type Put = (changes: Partial<BeadSettings> | ((before: BeadSettings) => Partial<BeadSettings>)) => void
type Props = { settings: BeadSettings; put: Put }

/** What is set less often: position, pulse, the AC wave, what shields the weld afterwards. */
export function MoreSettings({ settings, put }: Props) {
  const tig = settings.process === '141'
  const wire = ['131', '135', '136', '138', '114'].includes(settings.process)
  return (
    <details className="mt-3 border-t border-hair pt-2">
      <summary className="cursor-pointer text-[13px]">
        <Trans>More settings</Trans>
      </summary>
      <div className="mt-2 grid grid-cols-2 gap-x-3 gap-y-2">
        <Labelled words={t`Position`}>
          <Choice
            label={t`Position`}
            value={settings.position}
            options={POSITIONS}
            onChange={(position) =>
              put({
                position: position as BeadSettings['position'],
                progression: position === 'PF' ? 'up' : position === 'PG' ? 'down' : null,
              })
            }
          />
        </Labelled>
        {!tig && (
          <Labelled words={t`Polarity`}>
            <Choice
              label={t`Polarity`}
              value={settings.polarity}
              options={POLARITIES}
              onChange={(polarity) => put({ polarity: polarity as BeadSettings['polarity'] })}
            />
          </Labelled>
        )}
        {wire && settings.process !== '114' && (
          <Labelled words={t`Nozzle bore`}>
            <QuantityField
              label={t`Nozzle bore`}
              kind="length"
              value={settings.nozzle_mm}
              onChange={(nozzle_mm) => put({ nozzle_mm })}
            />
          </Labelled>
        )}
        {settings.joint !== 'fillet' && (
          <Ticked value={settings.backing} onChange={(backing) => put({ backing })}>
            {t`backing`}
          </Ticked>
        )}
        {tig && <TigShielding settings={settings} put={put} />}
        {(tig || ['131', '135'].includes(settings.process)) && settings.polarity !== 'AC' && (
          <PulseFields settings={settings} put={put} />
        )}
      </div>
    </details>
  )
}

function TigShielding({ settings, put }: Props) {
  const { ac } = settings
  return (
    <>
      <Ticked value={settings.feed_filler} onChange={(feed_filler) => put({ feed_filler })}>
        {t`filler is fed`}
      </Ticked>
      <Ticked value={settings.trailing_shield} onChange={(trailing_shield) => put({ trailing_shield })}>
        {t`trailing shield`}
      </Ticked>
      <Labelled words={t`Post-flow`}>
        <QuantityField
          label={t`Post-flow`}
          kind="time"
          value={settings.post_flow_s}
          onChange={(post_flow_s) => put({ post_flow_s })}
        />
      </Labelled>
      <Labelled words={t`Oxygen in the purge, ppm`}>
        <QuantityField
          label={t`Oxygen in the purge`}
          kind="number"
          value={settings.purge_oxygen_ppm}
          onChange={(purge_oxygen_ppm) => put({ purge_oxygen_ppm })}
        />
      </Labelled>
      {settings.polarity === 'AC' && (
        <>
          <Labelled words={t`AC waveform`}>
            <Choice
              label={t`AC waveform`}
              value={ac?.waveform}
              options={WAVEFORMS}
              onChange={(waveform) =>
                put((before) => ({
                  ac: { ...before.ac, waveform: waveform as NonNullable<BeadSettings['ac']>['waveform'] },
                }))
              }
            />
          </Labelled>
          <Labelled words={t`Height, negative : positive`}>
            <QuantityField
              label={t`Height of the negative half over the positive`}
              kind="number"
              value={ac?.amplitude_ratio}
              onChange={(amplitude_ratio) => put((before) => ({ ac: { ...before.ac, amplitude_ratio } }))}
            />
          </Labelled>
        </>
      )}
    </>
  )
}

/** A pulse has its own mean: a current that is set beside it would contradict it. */
function PulseFields({ settings, put }: Props) {
  const { pulse, process } = settings
  const change = (changes: Partial<NonNullable<BeadSettings['pulse']>>) =>
    put((before) => (before.pulse ? { pulse: { ...before.pulse, ...changes } } : {}))
  const start = process === '141' ? { peak_a: 110, background_a: 35 } : { peak_a: 400, background_a: 60 }
  return (
    <>
      <Ticked
        value={Boolean(pulse)}
        onChange={(on) =>
          put(
            on
              ? {
                  pulse: { ...start, frequency_hz: process === '141' ? 2 : 120, peak_share: 0.3 },
                  ...(process === '141' ? { current_a: null } : {}),
                }
              : { pulse: null, ...(process === '141' ? { current_a: STARTS['141']?.current_a ?? null } : {}) },
          )
        }
      >
        {t`pulsed`}
      </Ticked>
      <span />
      {pulse && (
        <>
          <Labelled words={t`Peak current`}>
            <QuantityField
              label={t`Peak current`}
              kind="current"
              value={pulse.peak_a}
              onChange={(peak_a) => peak_a !== null && change({ peak_a })}
            />
          </Labelled>
          <Labelled words={t`Background current`}>
            <QuantityField
              label={t`Background current`}
              kind="current"
              value={pulse.background_a}
              onChange={(background_a) => background_a !== null && change({ background_a })}
            />
          </Labelled>
          <Labelled words={t`Pulse frequency`}>
            <QuantityField
              label={t`Pulse frequency`}
              kind="frequency"
              value={pulse.frequency_hz}
              onChange={(frequency_hz) => change({ frequency_hz })}
            />
          </Labelled>
          <Labelled words={t`Time at peak`}>
            <QuantityField
              label={t`Time at peak`}
              kind="percent"
              value={pulse.peak_share == null ? null : pulse.peak_share * 100}
              onChange={(percent) => change({ peak_share: percent === null ? null : percent / 100 })}
            />
          </Labelled>
        </>
      )}
    </>
  )
}

function Ticked({
  value,
  onChange,
  children,
}: {
  value: boolean
  onChange: (value: boolean) => void
  children: ReactNode
}) {
  return (
    <label className="flex min-h-8 items-end gap-2 pb-1.5 text-[13px]">
      <input type="checkbox" checked={value} onChange={(event) => onChange(event.target.checked)} />
      {children}
    </label>
  )
}
