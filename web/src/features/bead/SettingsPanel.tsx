import { t } from '@lingui/core/macro'

import type { BeadSettings, Range } from '../../api/types'
import { POLARITIES, processOptions } from '../../domain/words'
import { useUsage } from '../../session/terms'
import { useUnits } from '../../session/units'
import { Choice } from '../../ui/Choice'
import { GasField } from '../../ui/GasField'
import { Labelled } from '../../ui/Labelled'
import { QuantityField } from '../../ui/QuantityField'
import { TextField } from '../../ui/TextField'
import { MoreSettings, type Put } from './MoreSettings'
import { knobsOf, STARTS, type Knob } from './settings'

type Props = {
  settings: BeadSettings
  limits: Readonly<Record<string, Range>>
  onChange: (change: (before: BeadSettings) => BeadSettings) => void
  /** A pass of a procedure keeps its process. */
  fixed?: boolean
}
const JOINTS: readonly [BeadSettings['joint'], string][] = [
  ['plate', t`bead on plate`],
  ['fillet', t`fillet weld`],
  ['butt', t`root of a butt joint`],
]

/** Everything that is set: on what, with what, and a slider with a typed value for each setting. */
export function SettingsPanel({ settings, limits, onChange, fixed = false }: Props) {
  const put: Put = (changes) =>
    onChange((before) => ({ ...before, ...(typeof changes === 'function' ? changes(before) : changes) }))
  return (
    <section className="panel p-4" aria-label={t`Settings`}>
      <div className="grid grid-cols-2 gap-x-3 gap-y-2">
        <WorkFields settings={settings} fixed={fixed} put={put} onChange={onChange} />
      </div>
      <div className="mt-3 grid gap-2 border-t border-hair pt-3">
        {knobsOf(settings.process).map((one) => (
          <Slider key={one.field} knob={one} settings={settings} limit={limits[one.field]} put={put} />
        ))}
      </div>
      <MoreSettings settings={settings} put={put} />
    </section>
  )
}

function WorkFields({
  settings,
  fixed,
  put,
  onChange,
}: {
  settings: BeadSettings
  fixed: boolean
  put: Put
  onChange: Props['onChange']
}) {
  const usage = useUsage(null)
  const starts = processOptions(usage).filter(([number]) => STARTS[number])
  return (
    <>
      {!fixed && (
        <Labelled words={t`Process`} wide>
          <Choice
            label={t`Process`}
            value={settings.process}
            options={starts}
            onChange={(process) => {
              const start = process && STARTS[process]
              if (start) onChange(() => start)
            }}
          />
        </Labelled>
      )}
      <Labelled words={t`Metal`}>
        <TextField label={t`Metal`} value={settings.metal} onChange={(metal) => put({ metal: metal ?? '' })} />
      </Labelled>
      <Labelled words={t`Thickness`}>
        <QuantityField
          label={t`Thickness`}
          kind="thickness"
          value={settings.thickness_mm}
          onChange={(thickness_mm) => thickness_mm && put({ thickness_mm })}
        />
      </Labelled>
      <Labelled words={t`Joint`} wide>
        <Choice
          label={t`Joint`}
          value={settings.joint}
          options={JOINTS}
          onChange={(joint) => joint && put({ joint: joint as BeadSettings['joint'] })}
        />
      </Labelled>
      {settings.joint === 'butt' && <RootFields settings={settings} put={put} />}
      <Labelled words={t`Filler`}>
        <TextField label={t`Filler`} value={settings.filler} onChange={(filler) => put({ filler })} />
      </Labelled>
      <Labelled words={t`Diameter`}>
        <QuantityField
          label={t`Filler diameter`}
          kind="wire_diameter"
          value={settings.diameter_mm}
          onChange={(diameter_mm) => put({ diameter_mm })}
        />
      </Labelled>
      {!['111', '121', '114'].includes(settings.process) && (
        <Labelled words={t`Shielding gas`} wide>
          <GasField label={t`Shielding gas`} value={settings.gas} onChange={(gas) => put({ gas })} />
        </Labelled>
      )}
      {settings.process === '141' && <TigFields settings={settings} put={put} />}
    </>
  )
}

function RootFields({ settings, put }: { settings: BeadSettings; put: Put }) {
  return (
    <>
      <Labelled words={t`Root gap`}>
        <QuantityField
          label={t`Root gap`}
          kind="gap"
          value={settings.root_gap_mm}
          onChange={(root_gap_mm) => put({ root_gap_mm })}
        />
      </Labelled>
      <Labelled words={t`Root face`}>
        <QuantityField
          label={t`Root face`}
          kind="gap"
          value={settings.root_face_mm}
          onChange={(root_face_mm) => put({ root_face_mm })}
        />
      </Labelled>
      <Labelled words={t`Included angle`}>
        <QuantityField
          label={t`Included angle`}
          kind="angle"
          value={settings.included_angle_deg}
          onChange={(included_angle_deg) => put({ included_angle_deg })}
        />
      </Labelled>
    </>
  )
}

function TigFields({ settings, put }: { settings: BeadSettings; put: Put }) {
  const { cup, tungsten, ac } = settings
  return (
    <>
      <Labelled words={t`Polarity`}>
        <Choice
          label={t`Polarity`}
          value={settings.polarity}
          options={POLARITIES}
          onChange={(polarity) =>
            put({
              polarity: polarity as BeadSettings['polarity'],
              ac: polarity === 'AC' ? { en_share: 0.68, frequency_hz: 100 } : null,
            })
          }
        />
      </Labelled>
      <Labelled words={t`Tungsten`}>
        <QuantityField
          label={t`Tungsten diameter`}
          kind="wire_diameter"
          value={tungsten?.diameter_mm}
          onChange={(diameter_mm) => put((before) => ({ tungsten: { ...before.tungsten, diameter_mm } }))}
        />
      </Labelled>
      <Labelled words={t`Cup no.`}>
        <QuantityField
          label={t`Cup number`}
          kind="number"
          value={cup?.number}
          onChange={(number) =>
            put((before) => ({
              cup: number ? { number: Math.round(number), lens: before.cup?.lens ?? false } : null,
            }))
          }
        />
      </Labelled>
      <label className="flex items-end gap-2 pb-1.5 text-[13px]">
        <input
          type="checkbox"
          checked={cup?.lens ?? false}
          disabled={!cup}
          onChange={(event) => cup && put({ cup: { ...cup, lens: event.target.checked } })}
        />
        {t`gas lens`}
      </label>
      {settings.polarity === 'AC' && (
        <>
          <Labelled words={t`Negative share, %`}>
            <QuantityField
              label={t`Negative share of AC`}
              kind="percent"
              value={ac?.en_share == null ? null : ac.en_share * 100}
              onChange={(percent) =>
                put((before) => ({ ac: { ...before.ac, en_share: percent === null ? null : percent / 100 } }))
              }
            />
          </Labelled>
          <Labelled words={t`AC frequency`}>
            <QuantityField
              label={t`AC frequency`}
              kind="frequency"
              value={ac?.frequency_hz}
              onChange={(frequency_hz) => put((before) => ({ ac: { ...before.ac, frequency_hz } }))}
            />
          </Labelled>
        </>
      )}
    </>
  )
}

function Slider({
  knob,
  settings,
  limit,
  put,
}: {
  knob: Knob
  settings: BeadSettings
  limit: Range | undefined
  put: Put
}) {
  const units = useUnits()
  const value = settings[knob.field] ?? null
  const outside = limit && value !== null && (value < limit.min - 1e-9 || value > limit.max + 1e-9)
  const low = Math.min(knob.min, value ?? knob.min)
  const high = Math.max(knob.max, value ?? knob.max)
  return (
    <div>
      <div className="grid grid-cols-[minmax(0,1fr)_112px] items-center gap-3">
        <div className="min-w-0">
          <span className="label">{knob.words}</span>
          <input
            type="range"
            className="block w-full accent-accent"
            aria-label={t`${knob.words}, slider`}
            min={low}
            max={high}
            step={knob.step}
            value={value ?? Math.max(low, 0)}
            onChange={(event) => put({ [knob.field]: Number(event.target.value) })}
          />
        </div>
        <QuantityField
          label={knob.words}
          kind={knob.kind}
          value={value}
          onChange={(next) => put({ [knob.field]: knob.field === 'start_c' ? (next ?? 20) : next })}
        />
      </div>
      {limit && (
        <p className={`text-[12px] ${outside ? 'text-breach' : 'text-steel2'}`}>
          {limitWords(knob, limit, Boolean(outside), units)}
        </p>
      )}
    </div>
  )
}

/** An empty range is none: a weave of nothing is a stringer bead, any other says that nothing is left. */
function limitWords(knob: Knob, limit: Range, outside: boolean, units: ReturnType<typeof useUnits>): string {
  if (limit.min === 0 && limit.max === 0)
    return knob.field === 'weave_mm' ? t`Stringer beads only.` : t`Planned outside what its record qualifies.`
  const range = `${units.range(limit, knob.kind)} ${units.unit(knob.kind)}`
  return outside ? t`Outside what the procedure allows: ${range}` : t`The procedure allows ${range}`
}
