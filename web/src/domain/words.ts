/** Field terms as they are shown beside the document's values. */
/** ISO 4063 number, AWS letters, words. */
const PROCESS_ROWS: readonly [string, string, string][] = [
  ['111', 'SMAW', 'covered electrode'],
  ['114', 'FCAW-S', 'self-shielded wire'],
  ['131', 'GMAW', 'solid wire, inert gas'],
  ['135', 'GMAW', 'solid wire, active gas'],
  ['136', 'FCAW-G', 'flux-cored wire, active gas'],
  ['138', 'GMAW', 'metal-cored wire, active gas'],
  ['141', 'GTAW', 'TIG with rod'],
  ['142', 'GTAW', 'TIG without filler'],
  ['143', 'GTAW', 'TIG, cored rod'],
  ['121', 'SAW', 'submerged arc, solid wire'],
  ['122', 'SAW', 'submerged arc, strip'],
  ['124', 'SAW', 'submerged arc, metal powder'],
  ['125', 'SAW', 'submerged arc, cored wire'],
  ['15', 'PAW', 'plasma'],
  ['311', 'OAW', 'oxy-acetylene'],
]

/** Processes to choose from: AWS letters lead in American usage, the number in ISO usage. */
export const processOptions = (usage: 'aws' | 'iso'): [string, string][] =>
  PROCESS_ROWS.map(([number, letters, words]) => [number, usage === 'aws' ? `${letters} · ${words} (${number})` : `${number} ${letters} · ${words}`])

/** A process as a heading names it. */
export const processName = (number: string, usage: 'aws' | 'iso'): string => (usage === 'aws' && PROCESS_ROWS.find(([one]) => one === number)?.[1]) || number
/** Whether a requirement goes beyond the code's own rule. */
export const ASKED: readonly [string, string][] = [
  ['yes', 'required'],
  ['no', 'not required'],
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
  ['DCEP', 'DCEP, positive'],
  ['DCEN', 'DCEN, negative'],
  ['AC', 'AC'],
]
export const TRANSFERS: readonly [string, string][] = [
  ['short-circuit', 'short circuit'],
  ['globular', 'globular'],
  ['spray', 'spray'],
  ['pulsed', 'pulsed'],
  ['controlled-short-circuit', 'controlled short circuit'],
]
export const OUTPUTS: readonly [string, string][] = [
  ['CV', 'constant voltage'],
  ['CC', 'constant current'],
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
export const ROLLS: readonly [string, string][] = [
  ['v', 'V-groove'],
  ['u', 'U-groove'],
  ['knurled', 'knurled'],
]
export const STARTS: readonly [string, string][] = [
  ['high-frequency', 'high frequency'],
  ['lift', 'lift'],
  ['scratch', 'scratch'],
]
export const TRIGGERS: readonly [string, string][] = [
  ['hold', 'hold to weld'],
  ['latched', 'press on, press off'],
]
export const WAVEFORMS: readonly [string, string][] = [
  ['sine', 'sine'],
  ['soft-square', 'soft square'],
  ['square', 'square'],
  ['triangle', 'triangle'],
]
export const BALANCES: readonly [string, string][] = [
  ['en-percent', '% negative'],
  ['ep-percent', '% cleaning'],
  ['signed', 'signed, around zero'],
]
export const PLACES: readonly [string, string][] = [
  ['indoors', 'indoors'],
  ['outdoors', 'outdoors'],
]
export const FAMILY_WORDS: Record<string, string> = { stick: 'covered electrode', tig: 'TIG', wire: 'wire' }
export const SOURCES: readonly [string, string][] = [
  ['own-trial', 'own trial'],
  ['maker', "manufacturer's sheet"],
  ['handbook', 'handbook'],
  ['machine-chart', 'machine chart'],
  ['estimate', 'estimate'],
  ['practice', 'common practice'],
  ['record', 'test record'],
  ['code', 'code table'],
]
export const JOINT_KINDS: readonly [string, string][] = [
  ['butt', 'butt'],
  ['t', 'T joint'],
  ['corner', 'corner'],
  ['lap', 'lap'],
  ['edge', 'edge'],
  ['branch', 'branch'],
]
/** Welds to choose from, each by its key in the glossary. */
export const weldOptions = <Weld extends string>(term: (key: string) => string): [Weld, string][] =>
  ([['fillet', 'weld-fillet'], ['cjp-groove', 'weld-groove-cjp'], ['pjp-groove', 'weld-groove-pjp']] as const).map(([weld, key]) => [weld as string as Weld, term(key).replace(/ butt weld$/, '')])
export const FORMS: readonly [string, string][] = [
  ['square', 'square'],
  ['single-v', 'single V'],
  ['double-v', 'double V'],
  ['single-bevel', 'single bevel'],
  ['double-bevel', 'double bevel'],
  ['single-u', 'single U'],
  ['double-u', 'double U'],
  ['single-j', 'single J'],
  ['double-j', 'double J'],
  ['flare-v', 'flare V'],
  ['flare-bevel', 'flare bevel'],
  ['compound-bevel', 'compound bevel'],
]
export const BACKINGS: readonly [string, string][] = [
  ['none', 'no backing'],
  ['metal', 'metal backing'],
  ['ceramic', 'ceramic backing'],
  ['gas', 'gas backing'],
  ['flux', 'flux backing'],
]
export const FACES: readonly [string, string][] = [
  ['flat', 'flat face'],
  ['convex', 'convex face'],
  ['concave', 'concave face'],
]
export const GOUGES: readonly [string, string][] = [
  ['no', 'not gouged'],
  ['yes', 'back-gouged'],
]
export const OVERLAPS: readonly [string, string][] = [
  ['third', 'a third'],
  ['half', 'a half'],
  ['two-thirds', 'two thirds'],
]
export const ROUTES: readonly [string, string][] = [
  ['test', 'qualified by testing'],
  ['prequalified', 'prequalified'],
]
export const COLUMNS: readonly [string, string][] = [
  ['us', 'inch column'],
  ['si', 'SI column'],
]
export const EVIDENCE: readonly [string, string][] = [
  ['certificate', 'certificate'],
  ['mark', 'mark'],
  ['magnet', 'magnet'],
  ['spark', 'spark test'],
  ['analyser', 'analyser'],
]
export const MAGNET: readonly [string, string][] = [
  ['sticks', 'magnet: yes'],
  ['not', 'magnet: no'],
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
