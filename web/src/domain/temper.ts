/** Temper colours from cool to hot: straw, bronze, plum, blue. Reserved for heat. */
const STEPS = [
  [0xd9, 0xa9, 0x3a],
  [0x9a, 0x5f, 0x2c],
  [0x6b, 0x3f, 0x73],
  [0x2c, 0x5f, 0x8a],
] as const

const COOLEST_KJ_MM = 0.4
const HOTTEST_KJ_MM = 2.6

/** The colour of a heat input; grey where it is not known. Only a picture: no limit is meant. */
export function temper(kjMm: number | null | undefined): string {
  if (kjMm == null) return '#8A969E'
  const share = Math.min(Math.max((kjMm - COOLEST_KJ_MM) / (HOTTEST_KJ_MM - COOLEST_KJ_MM), 0), 1)
  const at = share * (STEPS.length - 1)
  const index = Math.min(Math.floor(at), STEPS.length - 2)
  const from = STEPS[index] ?? STEPS[0]
  const to = STEPS[index + 1] ?? STEPS[3]
  const mix = from.map((part, i) => Math.round(part + ((to[i] ?? part) - part) * (at - index)))
  return `#${mix.map((part) => part.toString(16).padStart(2, '0')).join('')}`
}
