import { t } from '@lingui/core/macro'
import { Trans } from '@lingui/react/macro'
import { keepPreviousData, useQuery } from '@tanstack/react-query'
import { useState } from 'react'

import type { Pass, Procedure } from '../../api/types'
import { useUsage } from '../../session/terms'
import { groupsOf, passesOf, withPasses } from '../../domain/procedure'
import { machinesOf, withFiller } from '../../domain/library'
import {
  BEADS,
  MECHANISATIONS,
  OUTPUTS,
  POLARITIES,
  PROGRESSIONS,
  ROLES,
  SOURCES,
  TRANSFERS,
  processOptions,
} from '../../domain/words'
import { Choice } from '../../ui/Choice'
import { GasField } from '../../ui/GasField'
import { Labelled } from '../../ui/Labelled'
import { QuantityField } from '../../ui/QuantityField'
import { FillerField } from './FillerField'
import { FillerHint } from '../../ui/FillerHint'
import { setupFieldsQuery } from '../../queries/procedures'
import { AcPart } from './setup/AcPart'
import { GasPart } from './setup/GasPart'
import { MachineField } from './setup/MachineField'
import { type PartProps } from './setup/Part'
import { PulsePart } from './setup/PulsePart'
import { SubmergedPart } from './setup/SubmergedPart'
import { ArcPart, TungstenPart } from './setup/TigPart'
import { WirePart } from './setup/WirePart'

const LAYERS = Array.from({ length: 40 }, (_, index) => [String(index + 1), `layer ${String(index + 1)}`] as const)

type Props = {
  document: Procedure
  selected: number
  onChange: (change: (before: Procedure) => Procedure) => void
  disabled: boolean
}

/** The set-up of the selected pass, or of all passes that share it; only what the process has. */
export function SetUp({ document, selected, onChange, disabled }: Props) {
  const [together, setTogether] = useState(true)
  const one = passesOf(document).find((pass) => pass.number === selected)
  const fields = useQuery({
    ...setupFieldsQuery(one?.process ?? '', one?.polarity ?? null, one?.transfer ?? null),
    placeholderData: keepPreviousData,
  })
  const usage = useUsage(document.code?.id)
  if (!one) return null
  const has = (field: string) => fields.data?.includes(field) ?? false
  /** Whether a group of fields shows: the process has it, or the document states it all the same. */
  const shows = (...names: (keyof Pass)[]) => names.some((name) => has(name) || one[name] != null)
  const group = groupsOf(passesOf(document)).find((candidate) => candidate.passes.includes(one))
  const mates = group?.passes.map((pass) => pass.number) ?? [selected]
  const numbers = together ? mates : [selected]
  const set: PartProps['set'] = (changes) => onChange((before) => withPasses(before, numbers, changes))
  const setOwn = (changes: Partial<Omit<Pass, 'number'>>) =>
    onChange((before) => withPasses(before, [selected], changes))
  const path = `passes.${String(selected - 1)}`
  const part: PartProps = { one, path, disabled, set }
  return (
    <section aria-label={t`Set-up of pass ${selected}`} className="panel mt-3 p-3">
      <div className="mb-2 flex flex-wrap items-baseline gap-x-4">
        <h2 className="text-[16px]">
          <Trans>Set-up of pass {selected}</Trans>
        </h2>
        {mates.length > 1 && (
          <label className="flex items-center gap-1.5 text-[13px] text-steel">
            <input
              type="checkbox"
              checked={together}
              onChange={(event) => setTogether(event.target.checked)}
              disabled={disabled}
            />
            <Trans>
              all but “this pass” for passes {mates[0]}–{mates.at(-1)} together
            </Trans>
          </label>
        )}
      </div>
      <div className="grid grid-cols-4 gap-x-3 gap-y-2 text-[13px] max-[1150px]:grid-cols-3">
        <Labelled words={t`Process`}>
          <Choice
            label={t`Process`}
            path={`${path}.process`}
            value={one.process}
            options={processOptions(usage)}
            disabled={disabled}
            onChange={(process) =>
              process &&
              set({ process, ...(process === '111' || process.startsWith('12') ? { gas: null, transfer: null } : {}) })
            }
          />
        </Labelled>
        <Labelled words={t`Filler`} wide>
          <FillerField
            path={`${path}.filler.designation`}
            value={one.filler?.designation}
            disabled={disabled}
            onType={(designation) => set((pass) => ({ filler: { ...pass.filler, designation } }))}
            onPick={(found) =>
              onChange((before) =>
                withFiller(
                  before,
                  numbers,
                  {
                    ...one.filler,
                    designation: found.decoded.designation,
                    ...(found.diameter_mm == null
                      ? {}
                      : { diameter_mm: found.diameter_mm, nominal: found.nominal ?? null }),
                  },
                  found.product ?? null,
                ),
              )
            }
          />
          {one.filler?.make && (
            <p className="mt-0.5 text-[12px] text-steel2">
              <Trans>product: {one.filler.make}</Trans>
            </p>
          )}
          {one.filler?.designation && (
            <FillerHint
              designation={one.filler.designation}
              disabled={disabled}
              onTake={(designation) => set((pass) => ({ filler: { ...pass.filler, designation } }))}
            />
          )}
        </Labelled>
        <Labelled words={t`Diameter`}>
          <QuantityField
            label={t`Filler diameter`}
            kind="wire_diameter"
            path={`${path}.filler.diameter_mm`}
            value={one.filler?.diameter_mm}
            disabled={disabled}
            onChange={(diameter_mm) => set((pass) => ({ filler: { ...pass.filler, diameter_mm } }))}
          />
        </Labelled>
        {shows('gas') && (
          <>
            <Labelled words={t`Gas`}>
              <GasField
                label={t`Shielding gas`}
                path={`${path}.gas`}
                value={one.gas?.components_percent}
                disabled={disabled}
                onChange={(components_percent) =>
                  set((pass) => ({ gas: components_percent ? { ...pass.gas, components_percent } : null }))
                }
              />
            </Labelled>
            <Labelled words={t`Flow`}>
              <QuantityField
                mode="range"
                label={t`Gas flow`}
                kind="flow"
                path={`${path}.gas.flow_l_min`}
                value={one.gas?.flow_l_min}
                disabled={disabled || !one.gas}
                onChange={(flow_l_min) => set((pass) => (pass.gas ? { gas: { ...pass.gas, flow_l_min } } : {}))}
              />
            </Labelled>
          </>
        )}
        <Labelled words={t`Polarity`}>
          <Choice
            label={t`Polarity`}
            path={`${path}.polarity`}
            value={one.polarity}
            options={POLARITIES}
            none={t`not stated`}
            disabled={disabled}
            onChange={(polarity) => set({ polarity })}
          />
        </Labelled>
        {shows('transfer') && (
          <Labelled words={t`Transfer`}>
            <Choice
              label={t`Transfer`}
              path={`${path}.transfer`}
              value={one.transfer}
              options={TRANSFERS}
              none={t`not stated`}
              disabled={disabled}
              onChange={(transfer) => set({ transfer })}
            />
          </Labelled>
        )}
        <Labelled words={t`Source gives`}>
          <Choice
            label={t`Source output`}
            path={`${path}.output`}
            value={one.output}
            options={OUTPUTS}
            none={t`not stated`}
            disabled={disabled}
            onChange={(output) => set({ output })}
          />
        </Labelled>
        <Labelled words={t`Mechanisation`}>
          <Choice
            label={t`Mechanisation`}
            path={`${path}.mechanisation`}
            value={one.mechanisation}
            options={MECHANISATIONS}
            none={t`not stated`}
            disabled={disabled}
            onChange={(mechanisation) => set({ mechanisation })}
          />
        </Labelled>
        <Labelled words={t`Progression`}>
          <Choice
            label={t`Progression`}
            path={`${path}.progression`}
            value={one.progression}
            options={PROGRESSIONS}
            none={t`not stated`}
            disabled={disabled}
            onChange={(progression) => set({ progression })}
          />
        </Labelled>
        <Labelled words={t`Machine`}>
          <MachineField
            document={document}
            numbers={numbers}
            value={one.machine}
            path={`${path}.machine`}
            disabled={disabled}
            onChange={onChange}
          />
        </Labelled>
        <Labelled words={t`Role, this pass`}>
          <Choice
            label={t`Role`}
            value={one.role}
            options={ROLES}
            disabled={disabled}
            onChange={(role) => role && setOwn({ role })}
          />
        </Labelled>
        <Labelled words={t`Bead, this pass`}>
          <Choice
            label={t`Bead`}
            value={one.bead}
            options={BEADS}
            none={t`not stated`}
            disabled={disabled}
            onChange={(bead) => setOwn({ bead })}
          />
        </Labelled>
        {one.bead === 'weave' && (
          <Labelled words={t`Weave up to, this pass`}>
            <QuantityField
              label={t`Widest weave`}
              kind="gap"
              path={`${path}.weave_max_mm`}
              value={one.weave_max_mm}
              disabled={disabled}
              onChange={(weave_max_mm) => setOwn({ weave_max_mm })}
            />
          </Labelled>
        )}
        <Labelled words={t`Layer, this pass`}>
          <Choice
            label={t`Layer`}
            path={`${path}.layer`}
            value={one.layer == null ? null : String(one.layer)}
            options={LAYERS}
            none={t`as it lies`}
            disabled={disabled}
            onChange={(layer) => setOwn({ layer: layer === null ? null : Number(layer) })}
          />
        </Labelled>
        <Labelled words={t`Section locked, this pass`}>
          <QuantityField
            label={t`Locked section of the bead`}
            kind="area"
            path={`${path}.bead_area_mm2`}
            placeholder={t`not locked`}
            value={one.bead_area_mm2}
            disabled={disabled}
            onChange={(bead_area_mm2) => setOwn({ bead_area_mm2 })}
          />
        </Labelled>
        {(one.deposit_mm != null || new Set(passesOf(document).map((pass) => pass.process)).size > 1) && (
          <Labelled words={t`Deposit, this pass`}>
            <QuantityField
              label={t`Thickness that the pass adds`}
              kind="gap"
              path={`${path}.deposit_mm`}
              placeholder={t`by its bead`}
              value={one.deposit_mm}
              disabled={disabled}
              onChange={(deposit_mm) => setOwn({ deposit_mm })}
            />
          </Labelled>
        )}
        {has('run_out_mm') && (
          <Labelled words={t`Run-out, this pass`}>
            <QuantityField
              mode="range"
              label={t`Run-out length`}
              kind="length"
              path={`${path}.run_out_mm`}
              value={one.run_out_mm}
              disabled={disabled}
              onChange={(run_out_mm) => setOwn({ run_out_mm })}
            />
          </Labelled>
        )}
        {has('wire_feed_m_min') && (
          <Labelled words={t`Wire feed, this pass`}>
            <QuantityField
              mode="range"
              label={t`Wire feed`}
              kind="wire_feed"
              path={`${path}.wire_feed_m_min`}
              value={one.wire_feed_m_min}
              disabled={disabled}
              onChange={(wire_feed_m_min) => setOwn({ wire_feed_m_min })}
            />
          </Labelled>
        )}
        {(document.joint?.sides === 'both' || document.joint?.back_gouge || one.side === 2) && (
          <Labelled words={t`Side, this pass`}>
            <Choice
              label={t`Side`}
              value={String(one.side)}
              options={[
                ['1', t`first side`],
                ['2', t`second side`],
              ]}
              disabled={disabled}
              onChange={(side) => side && setOwn({ side: Number(side) })}
            />
          </Labelled>
        )}
        <Labelled words={t`Volts and amps from`}>
          <Choice
            label={t`Source of volts and amps`}
            value={one.sources?.current_a}
            options={SOURCES}
            none={t`not stated`}
            disabled={disabled}
            onChange={(source) => {
              const rest = Object.fromEntries(
                Object.entries(one.sources ?? {}).filter(([key]) => key !== 'current_a' && key !== 'voltage_v'),
              )
              setOwn({ sources: source ? { ...rest, current_a: source, voltage_v: source } : rest })
            }}
          />
        </Labelled>
      </div>
      {shows('flux', 'electrodes') && <SubmergedPart {...part} flux={shows('flux')} odd={!has('electrodes')} />}
      {shows('feeder', 'extension_mm') && (
        <WirePart {...part} odd={!has('feeder')} inductance={has('feeder.inductance_percent')} />
      )}
      {shows('tungsten', 'cup') && <TungstenPart {...part} odd={!has('tungsten')} />}
      {shows('ac') && (
        <AcPart
          {...part}
          odd={!has('ac')}
          machine={machinesOf(document).find((machine) => machine.name === one.machine)}
        />
      )}
      {shows('pulse') && <PulsePart {...part} odd={!has('pulse')} tig={has('tungsten')} />}
      {shows('slopes', 'start', 'pedal_max_a') && <ArcPart {...part} odd={!has('slopes')} />}
      {(shows('purge') || has('gas_times')) && <GasPart {...part} purge={shows('purge')} times={has('gas_times')} />}
    </section>
  )
}
