import { useState } from 'react'

import type { Pass, Procedure } from '../../api/types'
import { groupsOf, passesOf, withPasses } from '../../domain/procedure'
import { BEADS, MECHANISATIONS, POLARITIES, PROCESSES, PROGRESSIONS, ROLES, SOURCES, TRANSFERS } from '../../domain/words'
import { Choice } from '../../ui/Choice'
import { GasField } from '../../ui/GasField'
import { QuantityField } from '../../ui/QuantityField'
import { TextField } from '../../ui/TextField'
import { FillerHint } from './FillerHint'

type Props = {
  document: Procedure
  selected: number
  onChange: (change: (before: Procedure) => Procedure) => void
  disabled: boolean
}

/** The set-up of the selected pass, or of all passes that share it. */
export function SetUp({ document, selected, onChange, disabled }: Props) {
  const [together, setTogether] = useState(true)
  const one = passesOf(document).find((pass) => pass.number === selected)
  if (!one) return null
  const group = groupsOf(passesOf(document)).find((candidate) => candidate.passes.includes(one))
  const mates = group?.passes.map((pass) => pass.number) ?? [selected]
  const numbers = together ? mates : [selected]
  const set = (changes: Partial<Omit<Pass, 'number'>>) => onChange((before) => withPasses(before, numbers, changes))
  const setOwn = (changes: Partial<Omit<Pass, 'number'>>) => onChange((before) => withPasses(before, [selected], changes))
  const path = `passes.${String(selected - 1)}`
  const gasless = one.process === '111'
  const wire = one.process === '135' || one.process === '136'
  const cell = 'min-w-0'
  return (
    <section aria-label={`Set-up of pass ${String(selected)}`} className="panel mt-3 p-3">
      <div className="mb-2 flex flex-wrap items-baseline gap-x-4">
        <h2 className="text-[16px]">Set-up of pass {selected}</h2>
        {mates.length > 1 && (
          <label className="flex items-center gap-1.5 text-[13px] text-steel">
            <input type="checkbox" checked={together} onChange={(event) => setTogether(event.target.checked)} disabled={disabled} />
            process, filler, gas and polarity for passes {mates[0]}–{mates.at(-1)} together
          </label>
        )}
      </div>
      <div className="grid grid-cols-4 gap-x-3 gap-y-2 text-[13px] max-[1150px]:grid-cols-3">
        <div className={cell}>
          <span className="label">Process</span>
          <Choice label="Process" path={`${path}.process`} value={one.process} options={PROCESSES} disabled={disabled}
            onChange={(process) => process && set({ process, ...(process === '111' ? { gas: null, transfer: null } : {}) })} />
        </div>
        <div className="col-span-2 min-w-0">
          <span className="label">Filler</span>
          <TextField label="Filler designation" path={`${path}.filler.designation`} value={one.filler?.designation} disabled={disabled} placeholder="ER70S-6"
            onChange={(designation) => set({ filler: { ...one.filler, designation } })} />
          {one.filler?.designation && (
            <FillerHint designation={one.filler.designation} disabled={disabled} onTake={(designation) => set({ filler: { ...one.filler, designation } })} />
          )}
        </div>
        <div className={cell}>
          <span className="label">Diameter</span>
          <QuantityField label="Filler diameter" kind="wire_diameter" path={`${path}.filler.diameter_mm`} value={one.filler?.diameter_mm} disabled={disabled}
            onChange={(diameter_mm) => set({ filler: { ...one.filler, diameter_mm } })} />
        </div>
        {!gasless && (
          <>
            <div className={cell}>
              <span className="label">Gas</span>
              <GasField label="Shielding gas" path={`${path}.gas`} value={one.gas?.components_percent} disabled={disabled}
                onChange={(components_percent) => set({ gas: components_percent ? { ...one.gas, components_percent } : null })} />
            </div>
            <div className={cell}>
              <span className="label">Flow</span>
              <QuantityField mode="range" label="Gas flow" kind="flow" path={`${path}.gas.flow_l_min`} value={one.gas?.flow_l_min} disabled={disabled || !one.gas}
                onChange={(flow_l_min) => one.gas && set({ gas: { ...one.gas, flow_l_min } })} />
            </div>
          </>
        )}
        <div className={cell}>
          <span className="label">Polarity</span>
          <Choice label="Polarity" path={`${path}.polarity`} value={one.polarity} options={POLARITIES} none="not stated" disabled={disabled} onChange={(polarity) => set({ polarity })} />
        </div>
        {wire && (
          <div className={cell}>
            <span className="label">Transfer</span>
            <Choice label="Transfer" path={`${path}.transfer`} value={one.transfer} options={TRANSFERS} none="not stated" disabled={disabled} onChange={(transfer) => set({ transfer })} />
          </div>
        )}
        {one.process === '141' && (
          <div className={cell}>
            <span className="label">Tungsten</span>
            <QuantityField label="Tungsten diameter" kind="wire_diameter" path={`${path}.tungsten.diameter_mm`} value={one.tungsten?.diameter_mm} disabled={disabled}
              onChange={(diameter_mm) => set({ tungsten: { ...one.tungsten, diameter_mm } })} />
          </div>
        )}
        <div className={cell}>
          <span className="label">Mechanisation</span>
          <Choice label="Mechanisation" path={`${path}.mechanisation`} value={one.mechanisation} options={MECHANISATIONS} none="not stated" disabled={disabled} onChange={(mechanisation) => set({ mechanisation })} />
        </div>
        <div className={cell}>
          <span className="label">Progression</span>
          <Choice label="Progression" path={`${path}.progression`} value={one.progression} options={PROGRESSIONS} none="not stated" disabled={disabled} onChange={(progression) => set({ progression })} />
        </div>
        <div className={cell}>
          <span className="label">Role, this pass</span>
          <Choice label="Role" value={one.role} options={ROLES} disabled={disabled} onChange={(role) => role && setOwn({ role })} />
        </div>
        <div className={cell}>
          <span className="label">Bead, this pass</span>
          <Choice label="Bead" value={one.bead} options={BEADS} none="not stated" disabled={disabled} onChange={(bead) => setOwn({ bead })} />
        </div>
        {wire && (
          <div className={cell}>
            <span className="label">Wire feed, this pass</span>
            <QuantityField mode="range" label="Wire feed" kind="wire_feed" path={`${path}.wire_feed_m_min`} value={one.wire_feed_m_min} disabled={disabled}
              onChange={(wire_feed_m_min) => setOwn({ wire_feed_m_min })} />
          </div>
        )}
        {document.joint?.sides === 'both' && (
          <div className={cell}>
            <span className="label">Side, this pass</span>
            <Choice label="Side" value={String(one.side)} options={[['1', 'first side'], ['2', 'second side']]} disabled={disabled} onChange={(side) => side && setOwn({ side: Number(side) })} />
          </div>
        )}
        <div className={cell}>
          <span className="label">Volts and amps from</span>
          <Choice label="Source of volts and amps" value={one.sources?.current_a} options={SOURCES} none="not stated" disabled={disabled}
            onChange={(source) => {
              const rest = Object.fromEntries(Object.entries(one.sources ?? {}).filter(([key]) => key !== "current_a" && key !== "voltage_v"))
              setOwn({ sources: source ? { ...rest, current_a: source, voltage_v: source } : rest })
            }} />
        </div>
      </div>
    </section>
  )
}
