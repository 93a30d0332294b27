import { t } from '@lingui/core/macro'
import { GasField } from '../../../ui/GasField'
import { Labelled } from '../../../ui/Labelled'
import { QuantityField } from '../../../ui/QuantityField'
import { Part, merged, type PartProps } from './Part'

/** Gas behind the root, and gas before and after the arc. */
export function GasPart({ one, path, disabled, set, purge, times }: PartProps & { purge: boolean; times: boolean }) {
  return (
    <Part title={purge ? t`Purge, gas before and after` : t`Gas before and after`}>
      {purge && (
        <>
          <Labelled words={t`Purge`}>
            <GasField
              label={t`Purge gas`}
              path={`${path}.purge`}
              value={one.purge?.components_percent}
              disabled={disabled}
              onChange={(components_percent) =>
                set((pass) => ({ purge: components_percent ? { ...pass.purge, components_percent } : null }))
              }
            />
          </Labelled>
          <Labelled words={t`Purge flow`}>
            <QuantityField
              mode="range"
              label={t`Purge flow`}
              kind="flow"
              path={`${path}.purge.flow_l_min`}
              value={one.purge?.flow_l_min}
              disabled={disabled || !one.purge}
              onChange={(flow_l_min) => set((pass) => (pass.purge ? { purge: { ...pass.purge, flow_l_min } } : {}))}
            />
          </Labelled>
          <Labelled words={t`Oxygen below, ppm`}>
            <QuantityField
              label={t`Purge oxygen`}
              kind="number"
              path={`${path}.purge.oxygen_ppm`}
              value={one.purge?.oxygen_ppm}
              disabled={disabled || !one.purge}
              onChange={(oxygen_ppm) => set((pass) => (pass.purge ? { purge: { ...pass.purge, oxygen_ppm } } : {}))}
            />
          </Labelled>
        </>
      )}
      {times && (
        <>
          <Labelled words={t`Gas before`}>
            <QuantityField
              label={t`Pre-flow`}
              kind="time"
              path={`${path}.gas_times.pre_flow_s`}
              value={one.gas_times?.pre_flow_s}
              disabled={disabled}
              onChange={(pre_flow_s) => set((pass) => ({ gas_times: merged(pass.gas_times, { pre_flow_s }) }))}
            />
          </Labelled>
          <Labelled words={t`Gas after`}>
            <QuantityField
              label={t`Post-flow`}
              kind="time"
              path={`${path}.gas_times.post_flow_s`}
              value={one.gas_times?.post_flow_s}
              disabled={disabled}
              onChange={(post_flow_s) => set((pass) => ({ gas_times: merged(pass.gas_times, { post_flow_s }) }))}
            />
          </Labelled>
        </>
      )}
    </Part>
  )
}
