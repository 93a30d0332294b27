import type { Units } from '../session/units'

/** Tensile strength of a filler class: in ksi as AWS prints it, not as converted from the rounded MPa. */
export function tensileText(
  filler: { tensile_mpa?: number | null; tensile_ksi?: number | null },
  units: Units,
): string {
  if (filler.tensile_mpa == null) return ''
  return units.system === 'us' && filler.tensile_ksi != null
    ? String(filler.tensile_ksi)
    : units.value(filler.tensile_mpa, 'strength')
}
