import type { Range } from '../api/types'

/**
 * The one mirror of the core that the browser may hold, for a booth with a dead network: arc energy
 * E = V·I·t/L in kJ/mm. Run against the same case table as the core.
 */
export function arcEnergyKjMm(
  voltageV: number | null,
  currentA: number | null,
  timeS: number | null,
  lengthMm: number | null,
): number | null {
  if (!voltageV || !currentA || !timeS || !lengthMm) return null
  return (voltageV * currentA * timeS) / lengthMm / 1000
}

/** Whether a value lies in its band, both ends in; a value converted from inch and back stays inside. */
export function isInside(value: number, band: Range): boolean {
  const near = (end: number) => Math.abs(value - end) <= 1e-9 * Math.max(Math.abs(value), Math.abs(end))
  return (value >= band.min && value <= band.max) || near(band.min) || near(band.max)
}
