import { Choice } from '../../../ui/Choice'
import { Labelled } from '../../../ui/Labelled'
import { QuantityField } from '../../../ui/QuantityField'
import { TextField } from '../../../ui/TextField'
import { Part, merged, type PartProps } from './Part'

const COUNTS = [['1', 'one'], ['2', 'two'], ['3', 'three'], ['4', 'four'], ['5', 'five'], ['6', 'six']] as const

/** Flux of submerged arc welding, and the electrodes that burn in one pool. */
export function SubmergedPart({ one, path, disabled, set, flux, odd }: PartProps & { flux: boolean; odd: boolean }) {
  const count = one.electrodes?.count ?? 1
  return (
    <Part title={flux ? 'Flux and electrodes' : 'Electrodes'} odd={odd} {...(odd && !disabled ? { onTakeOut: () => set({ flux: null, electrodes: null }) } : {})}>
      {flux && (
        <>
          <Labelled words="Flux">
            <TextField label="Flux" path={`${path}.flux.designation`} value={one.flux?.designation} disabled={disabled} onChange={(designation) => set((pass) => ({ flux: merged(pass.flux, { designation }) }))} />
          </Labelled>
          <Labelled words="Flux make">
            <TextField label="Flux make" path={`${path}.flux.make`} value={one.flux?.make} disabled={disabled} onChange={(make) => set((pass) => ({ flux: merged(pass.flux, { make }) }))} />
          </Labelled>
        </>
      )}
      <Labelled words="Electrodes">
        <Choice label="Number of electrodes" path={`${path}.electrodes.count`} value={String(count)} options={COUNTS} disabled={disabled}
          onChange={(key) => set((pass) => ({ electrodes: key === null || key === '1' ? null : { ...pass.electrodes, count: Number(key) } }))} />
      </Labelled>
      {count > 1 && (
        <>
          <Labelled words="Apart along">
            <QuantityField label="Spacing of the electrodes along the weld" kind="gap" path={`${path}.electrodes.spacing_mm`} value={one.electrodes?.spacing_mm} disabled={disabled}
              onChange={(spacing_mm) => set((pass) => ({ electrodes: { count, ...pass.electrodes, spacing_mm } }))} />
          </Labelled>
          <Labelled words="Apart across">
            <QuantityField label="Spacing of the electrodes across the weld" kind="gap" path={`${path}.electrodes.offset_mm`} value={one.electrodes?.offset_mm} disabled={disabled}
              onChange={(offset_mm) => set((pass) => ({ electrodes: { count, ...pass.electrodes, offset_mm } }))} />
          </Labelled>
          <p className="col-span-full text-[12px] text-steel2">Amps are those of all electrodes together.</p>
        </>
      )}
    </Part>
  )
}
