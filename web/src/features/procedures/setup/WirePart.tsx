import { t } from '@lingui/core/macro'
import { ROLLS } from '../../../domain/words'
import { Choice } from '../../../ui/Choice'
import { Labelled } from '../../../ui/Labelled'
import { QuantityField } from '../../../ui/QuantityField'
import { TextField } from '../../../ui/TextField'
import { Part, merged, type PartProps } from './Part'

/** What guides the wire. */
export function WirePart({
  one,
  path,
  disabled,
  set,
  odd,
  inductance,
}: PartProps & { odd: boolean; inductance: boolean }) {
  return (
    <Part
      title={t`Wire`}
      odd={odd}
      {...(odd && !disabled
        ? { onTakeOut: () => set({ feeder: null, extension_mm: null, wire_feed_m_min: null }) }
        : {})}
    >
      <Labelled words={t`Tip to work`}>
        <QuantityField
          mode="range"
          label={t`Tip to work distance`}
          kind="gap"
          path={`${path}.extension_mm`}
          value={one.extension_mm}
          disabled={disabled}
          onChange={(extension_mm) => set({ extension_mm })}
        />
      </Labelled>
      <Labelled words={t`Drive rolls`}>
        <Choice
          label={t`Drive rolls`}
          path={`${path}.feeder.rolls`}
          value={one.feeder?.rolls}
          options={ROLLS}
          none={t`not stated`}
          disabled={disabled}
          onChange={(rolls) => set((pass) => ({ feeder: merged(pass.feeder, { rolls }) }))}
        />
      </Labelled>
      <Labelled words={t`Liner`}>
        <TextField
          label={t`Liner`}
          path={`${path}.feeder.liner`}
          value={one.feeder?.liner}
          disabled={disabled}
          onChange={(liner) => set((pass) => ({ feeder: merged(pass.feeder, { liner }) }))}
        />
      </Labelled>
      <Labelled words={t`Contact tip`}>
        <QuantityField
          label={t`Contact tip bore`}
          kind="wire_diameter"
          path={`${path}.feeder.contact_tip_mm`}
          value={one.feeder?.contact_tip_mm}
          disabled={disabled}
          onChange={(contact_tip_mm) => set((pass) => ({ feeder: merged(pass.feeder, { contact_tip_mm }) }))}
        />
      </Labelled>
      {inductance && (
        <Labelled words={t`Inductance`}>
          <QuantityField
            label={t`Inductance`}
            kind="percent"
            path={`${path}.feeder.inductance_percent`}
            value={one.feeder?.inductance_percent}
            disabled={disabled}
            onChange={(inductance_percent) => set((pass) => ({ feeder: merged(pass.feeder, { inductance_percent }) }))}
          />
        </Labelled>
      )}
    </Part>
  )
}
