import { t } from '@lingui/core/macro'
import { Trans } from '@lingui/react/macro'
import { useQuery } from '@tanstack/react-query'

import { STARTS, TRIGGERS } from '../../../domain/words'
import { Choice } from '../../../ui/Choice'
import { Labelled } from '../../../ui/Labelled'
import { QuantityField } from '../../../ui/QuantityField'
import { ReadField } from '../../../ui/ReadField'
import { carriesQuery, tungstensQuery } from '../../../queries/procedures'
import { Part, merged, type PartProps } from './Part'

/** Tungsten and cup. */
export function TungstenPart({ one, path, disabled, set, odd }: PartProps & { odd: boolean }) {
  const found = useQuery(tungstensQuery)
  const types = found.data?.types ?? []
  const kind = types.find((type) => [type.iso, type.aws, ...type.also].includes(one.tungsten?.type ?? ''))
  const size = one.tungsten?.diameter_mm
  const carried = useQuery({
    ...carriesQuery(size ?? 0, one.polarity ?? 'DCEN', one.tungsten?.type ?? '', one.ac?.en_share ?? null),
    enabled: size != null && one.polarity != null,
  }).data
  return (
    <Part
      title={t`Tungsten and cup`}
      odd={odd}
      {...(odd && !disabled ? { onTakeOut: () => set({ tungsten: null, cup: null }) } : {})}
    >
      <Labelled words={t`Tungsten`} wide>
        <Choice
          label={t`Tungsten type`}
          path={`${path}.tungsten.type`}
          value={one.tungsten?.type}
          none={t`not stated`}
          disabled={disabled}
          options={types.map(
            (type) => [type.iso, `${type.iso} · ${type.colour} · ${type.also[0] ?? type.aws}`] as const,
          )}
          onChange={(type) => set((pass) => ({ tungsten: merged(pass.tungsten, { type }) }))}
        />
        {kind && (kind.older || kind.thoriated) && (
          <p className="mt-0.5 text-[12px] text-steel2">
            {[kind.older, kind.thoriated && t`Grinding dust is slightly radioactive: extraction, or another type.`]
              .filter(Boolean)
              .join(' ')}
          </p>
        )}
      </Labelled>
      <Labelled words={t`Tungsten diameter`}>
        <QuantityField
          label={t`Tungsten diameter`}
          kind="wire_diameter"
          path={`${path}.tungsten.diameter_mm`}
          value={one.tungsten?.diameter_mm}
          disabled={disabled}
          onChange={(diameter_mm) => set((pass) => ({ tungsten: merged(pass.tungsten, { diameter_mm }) }))}
        />
        {carried && carried.length > 0 && (
          <p className="mt-0.5 text-[12px] text-steel2">
            <Trans>carries</Trans> {carried.map((range) => `${String(range.min)}–${String(range.max)}`).join(t` or `)} A
          </p>
        )}
      </Labelled>
      <Labelled words={t`Ground angle`}>
        <QuantityField
          label={t`Tungsten angle`}
          kind="angle"
          path={`${path}.tungsten.angle_deg`}
          value={one.tungsten?.angle_deg}
          disabled={disabled}
          onChange={(angle_deg) => set((pass) => ({ tungsten: merged(pass.tungsten, { angle_deg }) }))}
        />
      </Labelled>
      <Labelled words={t`Flat on the tip`}>
        <QuantityField
          label={t`Flat on the tip`}
          kind="gap"
          path={`${path}.tungsten.tip_mm`}
          value={one.tungsten?.tip_mm}
          disabled={disabled}
          onChange={(tip_mm) => set((pass) => ({ tungsten: merged(pass.tungsten, { tip_mm }) }))}
        />
      </Labelled>
      <Labelled words={t`Cup no.`}>
        <ReadField
          label={t`Cup number`}
          as="cup"
          path={`${path}.cup.number`}
          written={one.cup ? String(one.cup.number) : ''}
          placeholder={t`8, or 12 mm`}
          disabled={disabled}
          onEmpty={() => set({ cup: null })}
          onRead={(read) => {
            const number = read.value
            if (number != null) set((pass) => ({ cup: { lens: pass.cup?.lens ?? false, number } }))
          }}
        />
      </Labelled>
      <Labelled words={t`Gas lens`}>
        <label className="flex items-center gap-1.5 py-0.5">
          <input
            type="checkbox"
            checked={one.cup?.lens ?? false}
            disabled={disabled || !one.cup}
            onChange={(event) => {
              const lens = event.target.checked
              set((pass) => (pass.cup ? { cup: { ...pass.cup, lens } } : {}))
            }}
          />
          <Trans>fitted</Trans>
        </label>
      </Labelled>
    </Part>
  )
}

/** How the arc begins and ends, and the pedal. */
export function ArcPart({ one, path, disabled, set, odd }: PartProps & { odd: boolean }) {
  return (
    <Part
      title={t`Begin and end`}
      odd={odd}
      {...(odd && !disabled ? { onTakeOut: () => set({ slopes: null, start: null, pedal_max_a: null }) } : {})}
    >
      <Labelled words={t`Arc start`}>
        <Choice
          label={t`Arc start`}
          path={`${path}.start`}
          value={one.start}
          options={STARTS}
          none={t`not stated`}
          disabled={disabled}
          onChange={(start) => set({ start })}
        />
      </Labelled>
      <Labelled words={t`Trigger`}>
        <Choice
          label={t`Trigger`}
          path={`${path}.trigger`}
          value={one.trigger}
          options={TRIGGERS}
          none={t`not stated`}
          disabled={disabled}
          onChange={(trigger) => set({ trigger })}
        />
      </Labelled>
      <Labelled words={t`Start current`}>
        <QuantityField
          label={t`Start current`}
          kind="current"
          path={`${path}.slopes.start_a`}
          value={one.slopes?.start_a}
          disabled={disabled}
          onChange={(start_a) => set((pass) => ({ slopes: merged(pass.slopes, { start_a }) }))}
        />
      </Labelled>
      <Labelled words={t`Up in`}>
        <QuantityField
          label={t`Upslope`}
          kind="time"
          path={`${path}.slopes.up_s`}
          value={one.slopes?.up_s}
          disabled={disabled}
          onChange={(up_s) => set((pass) => ({ slopes: merged(pass.slopes, { up_s }) }))}
        />
      </Labelled>
      <Labelled words={t`Down in`}>
        <QuantityField
          label={t`Downslope`}
          kind="time"
          path={`${path}.slopes.down_s`}
          value={one.slopes?.down_s}
          disabled={disabled}
          onChange={(down_s) => set((pass) => ({ slopes: merged(pass.slopes, { down_s }) }))}
        />
      </Labelled>
      <Labelled words={t`End current`}>
        <QuantityField
          label={t`End current`}
          kind="current"
          path={`${path}.slopes.finish_a`}
          value={one.slopes?.finish_a}
          disabled={disabled}
          onChange={(finish_a) => set((pass) => ({ slopes: merged(pass.slopes, { finish_a }) }))}
        />
      </Labelled>
      <Labelled words={t`Pedal reaches`}>
        <QuantityField
          label={t`Pedal maximum`}
          kind="current"
          path={`${path}.pedal_max_a`}
          value={one.pedal_max_a}
          disabled={disabled}
          placeholder={t`no pedal`}
          onChange={(pedal_max_a) => set({ pedal_max_a })}
        />
      </Labelled>
    </Part>
  )
}
