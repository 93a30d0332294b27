import { t } from '@lingui/core/macro'
import { Trans } from '@lingui/react/macro'
import { Choice } from '../../../ui/Choice'
import { Labelled } from '../../../ui/Labelled'
import { QuantityField } from '../../../ui/QuantityField'
import { TextField } from '../../../ui/TextField'
import { POLARITIES } from '../../../domain/words'
import { Part, merged, type PartProps } from './Part'

const COUNTS = [
  ['1', t`one`],
  ['2', t`two`],
  ['3', t`three`],
  ['4', t`four`],
  ['5', t`five`],
  ['6', t`six`],
] as const

/** Amps, polarity and angle of one of several electrodes. */
function ElectrodeRow({ index, one, path, disabled, set }: PartProps & { index: number }) {
  const own = one.electrodes?.each[index] ?? {}
  const at = `${path}.electrodes.each.${String(index)}`
  const name = `electrode ${String(index + 1)}`
  const change = (changes: Partial<typeof own>) =>
    set((pass) => {
      const wires = pass.electrodes ?? { count: 2, each: [] }
      const each = Array.from({ length: wires.count }, (_, n) => ({
        ...wires.each[n],
        ...(n === index ? changes : {}),
      }))
      return { electrodes: { ...wires, each } }
    })
  return (
    <div className="col-span-full grid grid-cols-4 gap-x-3 gap-y-2 max-[1150px]:grid-cols-3">
      <Labelled words={t`Electrode ${index + 1} amps`}>
        <QuantityField
          mode="range"
          label={t`Current of ${name}`}
          kind="current"
          path={`${at}.current_a`}
          value={own.current_a}
          disabled={disabled}
          onChange={(current_a) => {
            change({ current_a })
          }}
        />
      </Labelled>
      <Labelled words={t`Polarity`}>
        <Choice
          label={t`Polarity of ${name}`}
          path={`${at}.polarity`}
          value={own.polarity ?? null}
          options={POLARITIES}
          none={t`not stated`}
          disabled={disabled}
          onChange={(polarity) => {
            change({ polarity })
          }}
        />
      </Labelled>
      {(
        [
          ['angle_deg', t`Angle along`, t`Angle of ${name} along the weld`],
          ['across_deg', t`Angle across`, t`Angle of ${name} across the weld`],
        ] as const
      ).map(([field, words, label]) => (
        <Labelled key={field} words={words}>
          <QuantityField
            label={label}
            kind="angle"
            path={`${at}.${field}`}
            value={own[field]}
            disabled={disabled}
            onChange={(angle) => {
              change({ [field]: angle })
            }}
          />
        </Labelled>
      ))}
    </div>
  )
}

/** Flux of submerged arc welding, and the electrodes that burn in one pool. */
export function SubmergedPart({ one, path, disabled, set, flux, odd }: PartProps & { flux: boolean; odd: boolean }) {
  const count = one.electrodes?.count ?? 1
  return (
    <Part
      title={flux ? t`Flux and electrodes` : t`Electrodes`}
      odd={odd}
      {...(odd && !disabled ? { onTakeOut: () => set({ flux: null, electrodes: null }) } : {})}
    >
      {flux && (
        <>
          <Labelled words={t`Flux`}>
            <TextField
              label={t`Flux`}
              path={`${path}.flux.designation`}
              value={one.flux?.designation}
              disabled={disabled}
              onChange={(designation) => set((pass) => ({ flux: merged(pass.flux, { designation }) }))}
            />
          </Labelled>
          <Labelled words={t`Flux trade name`}>
            <TextField
              label={t`Flux trade name`}
              path={`${path}.flux.make`}
              value={one.flux?.make}
              disabled={disabled}
              onChange={(make) => set((pass) => ({ flux: merged(pass.flux, { make }) }))}
            />
          </Labelled>
        </>
      )}
      <Labelled words={t`Electrodes`}>
        <Choice
          label={t`Number of electrodes`}
          path={`${path}.electrodes.count`}
          value={String(count)}
          options={COUNTS}
          disabled={disabled}
          onChange={(key) =>
            set((pass) => ({
              electrodes: key === null || key === '1' ? null : { each: [], ...pass.electrodes, count: Number(key) },
            }))
          }
        />
      </Labelled>
      {count > 1 && (
        <>
          <Labelled words={t`Apart along`}>
            <QuantityField
              label={t`Spacing of the electrodes along the weld`}
              kind="gap"
              path={`${path}.electrodes.spacing_mm`}
              value={one.electrodes?.spacing_mm}
              disabled={disabled}
              onChange={(spacing_mm) =>
                set((pass) => ({ electrodes: { count, each: [], ...pass.electrodes, spacing_mm } }))
              }
            />
          </Labelled>
          <Labelled words={t`Apart across`}>
            <QuantityField
              label={t`Spacing of the electrodes across the weld`}
              kind="gap"
              path={`${path}.electrodes.offset_mm`}
              value={one.electrodes?.offset_mm}
              disabled={disabled}
              onChange={(offset_mm) =>
                set((pass) => ({ electrodes: { count, each: [], ...pass.electrodes, offset_mm } }))
              }
            />
          </Labelled>
          {Array.from({ length: count }, (_, index) => (
            <ElectrodeRow key={index} index={index} one={one} path={path} disabled={disabled} set={set} />
          ))}
          <p className="col-span-full text-[12px] text-steel2">
            <Trans>The amps of the pass are those of all electrodes together; the leading electrode is 1.</Trans>
          </p>
        </>
      )}
    </Part>
  )
}
