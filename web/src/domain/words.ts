/** Field terms as they are shown beside the document's values. */
export const PROCESSES: readonly [string, string][] = [
  ['111', '111 covered electrode'],
  ['135', '135 solid wire, active gas'],
  ['136', '136 flux-cored wire, active gas'],
  ['141', '141 TIG'],
]
export const ROLES: readonly [string, string][] = [
  ['root', 'root'],
  ['hot', 'hot'],
  ['fill', 'fill'],
  ['cap', 'cap'],
  ['back', 'back'],
  ['tack', 'tack'],
]
export const POLARITIES: readonly [string, string][] = [
  ['DCEP', 'DCEP electrode positive'],
  ['DCEN', 'DCEN electrode negative'],
  ['AC', 'AC'],
]
export const TRANSFERS: readonly [string, string][] = [
  ['short-circuit', 'short circuit'],
  ['globular', 'globular'],
  ['spray', 'spray'],
  ['pulsed', 'pulsed'],
  ['controlled-short-circuit', 'controlled short circuit'],
]
export const MECHANISATIONS: readonly [string, string][] = [
  ['manual', 'manual'],
  ['partly', 'partly mechanised'],
  ['fully', 'fully mechanised'],
  ['automatic', 'automatic'],
]
export const PROGRESSIONS: readonly [string, string][] = [
  ['up', 'uphill'],
  ['down', 'downhill'],
]
export const BEADS: readonly [string, string][] = [
  ['stringer', 'stringer'],
  ['weave', 'weave'],
]
export const SOURCES: readonly [string, string][] = [
  ['own-trial', 'own trial'],
  ['maker', "wire maker's sheet"],
  ['handbook', 'handbook'],
  ['machine-chart', 'machine chart'],
  ['estimate', 'estimate'],
  ['practice', 'common practice'],
  ['record', 'test record'],
  ['code', 'code table'],
]
export const JOINTS: readonly [string, string][] = [
  ['single-v', 'butt, single V'],
  ['square', 'butt, square'],
  ['t-fillet', 'T joint, fillet'],
]
export const EVIDENCE: readonly [string, string][] = [
  ['certificate', 'certificate'],
  ['mark', 'mark'],
  ['magnet', 'magnet'],
  ['spark', 'spark test'],
  ['analyser', 'analyser'],
]
export const MAGNET: readonly [string, string][] = [
  ['sticks', 'magnet sticks'],
  ['not', 'does not stick'],
]
export const POSITIONS: readonly [string, string][] = [
  'PA', 'PB', 'PC', 'PD', 'PE', 'PF', 'PG', '1G', '2G', '3G', '4G', '1F', '2F', '3F', '4F',
  'PH', 'PJ', 'H-L045', 'J-L045', '5G', '6G',
].map((name) => [name, name])

export const PROVENANCE: Record<string, string> = {
  memory: 'from memory, not confirmed',
  published: 'published',
  practice: 'common practice',
  confirmed: 'confirmed',
}

export function codeWords(id: string | null | undefined, level: number | null | undefined, short?: string): string {
  if (!id) return 'no code'
  const name = short ?? id
  return level ? `${name} · level ${String(level)}` : name
}

/** Positions of a filler's class. */
export const POSITION_WORDS: Record<string, string> = {
  all: 'all positions',
  flat: 'flat',
  'flat-horizontal': 'flat and horizontal',
  'all-but-vertical-down': 'all but vertical downwards',
  'flat-horizontal-vertical-down': 'flat, horizontal, vertical downwards',
  'flat-horizontal-overhead-vertical-down': 'flat, horizontal, overhead, vertical downwards',
}
