import { t } from '@lingui/core/macro'

/** Field terms as they are shown beside the document's values. */
/** ISO 4063 number, AWS letters, words. */
const PROCESS_ROWS: readonly [string, string, string][] = [
  ['111', 'SMAW', t`covered electrode`],
  ['114', 'FCAW-S', t`self-shielded wire`],
  ['131', 'GMAW', t`solid wire, inert gas`],
  ['135', 'GMAW', t`solid wire, active gas`],
  ['136', 'FCAW-G', t`flux-cored wire, active gas`],
  ['138', 'GMAW', t`metal-cored wire, active gas`],
  ['141', 'GTAW', t`TIG with rod`],
  ['142', 'GTAW', t`TIG without filler`],
  ['143', 'GTAW', t`TIG, cored rod`],
  ['121', 'SAW', t`submerged arc, solid wire`],
  ['122', 'SAW', t`submerged arc, strip`],
  ['124', 'SAW', t`submerged arc, metal powder`],
  ['125', 'SAW', t`submerged arc, cored wire`],
  ['15', 'PAW', t`plasma`],
  ['311', 'OAW', t`oxy-acetylene`],
]

/** Processes to choose from: AWS letters lead in American usage, the number in ISO usage. */
export const processOptions = (usage: 'aws' | 'iso'): [string, string][] =>
  PROCESS_ROWS.map(([number, letters, words]) => [
    number,
    usage === 'aws' ? `${letters} · ${words} (${number})` : `${number} ${letters} · ${words}`,
  ])

/** A process as a heading names it. */
export const processName = (number: string, usage: 'aws' | 'iso'): string =>
  (usage === 'aws' && PROCESS_ROWS.find(([one]) => one === number)?.[1]) || number
/** Whether a requirement goes beyond the code's own rule. */
export const ASKED: readonly [string, string][] = [
  ['yes', t`required`],
  ['no', t`not required`],
]
export const ROLES: readonly [string, string][] = [
  ['root', t`root`],
  ['hot', t`hot`],
  ['fill', t`fill`],
  ['cap', t`cap`],
  ['back', t`back`],
  ['tack', t`tack`],
]
export const POLARITIES: readonly [string, string][] = [
  ['DCEP', t`DCEP, positive`],
  ['DCEN', t`DCEN, negative`],
  ['AC', 'AC'],
]
export const TRANSFERS: readonly [string, string][] = [
  ['short-circuit', t`short circuit`],
  ['globular', t`globular`],
  ['spray', t`spray`],
  ['pulsed', t`pulsed`],
  ['controlled-short-circuit', t`controlled short circuit`],
]
export const OUTPUTS: readonly [string, string][] = [
  ['CV', t`constant voltage`],
  ['CC', t`constant current`],
]
export const MECHANISATIONS: readonly [string, string][] = [
  ['manual', t`manual`],
  ['partly', t`partly mechanised`],
  ['fully', t`fully mechanised`],
  ['automatic', t`automatic`],
]
export const PROGRESSIONS: readonly [string, string][] = [
  ['up', t`uphill`],
  ['down', t`downhill`],
]
export const BEADS: readonly [string, string][] = [
  ['stringer', t`stringer`],
  ['weave', t`weave`],
]
export const ROLLS: readonly [string, string][] = [
  ['v', t`V-groove`],
  ['u', t`U-groove`],
  ['knurled', t`knurled`],
]
export const STARTS: readonly [string, string][] = [
  ['high-frequency', t`high frequency`],
  ['lift', t`lift`],
  ['scratch', t`scratch`],
]
export const TRIGGERS: readonly [string, string][] = [
  ['hold', t`hold to weld`],
  ['latched', t`press on, press off`],
]
export const WAVEFORMS: readonly [string, string][] = [
  ['sine', t`sine`],
  ['soft-square', t`soft square`],
  ['square', t`square`],
  ['triangle', t`triangle`],
]
export const BALANCES: readonly [string, string][] = [
  ['en-percent', t`% negative`],
  ['ep-percent', t`% cleaning`],
  ['signed', t`signed, around zero`],
]
export const PLACES: readonly [string, string][] = [
  ['indoors', t`indoors`],
  ['outdoors', t`outdoors`],
]
export const FAMILY_WORDS: Record<string, string> = { stick: t`covered electrode`, tig: 'TIG', wire: t`wire` }
export const SOURCES: readonly [string, string][] = [
  ['own-trial', t`own trial`],
  ['maker', t`manufacturer's sheet`],
  ['handbook', t`handbook`],
  ['machine-chart', t`machine chart`],
  ['estimate', t`estimate`],
  ['practice', t`common practice`],
  ['record', t`test record`],
  ['code', t`code table`],
]
export const JOINT_KINDS: readonly [string, string][] = [
  ['butt', t`butt`],
  ['t', t`T joint`],
  ['corner', t`corner`],
  ['lap', t`lap`],
  ['edge', t`edge`],
  ['branch', t`branch`],
]
/** Welds to choose from, each by its key in the glossary. */
export const weldOptions = <Weld extends string>(term: (key: string) => string): [Weld, string][] =>
  (
    [
      ['fillet', 'weld-fillet'],
      ['cjp-groove', 'weld-groove-cjp'],
      ['pjp-groove', 'weld-groove-pjp'],
    ] as const
  ).map(([weld, key]) => [weld as string as Weld, term(key).replace(/ butt weld$/, '')])
export const FORMS: readonly [string, string][] = [
  ['square', t`square`],
  ['single-v', t`single V`],
  ['double-v', t`double V`],
  ['single-bevel', t`single bevel`],
  ['double-bevel', t`double bevel`],
  ['single-u', t`single U`],
  ['double-u', t`double U`],
  ['single-j', t`single J`],
  ['double-j', t`double J`],
  ['flare-v', t`flare V`],
  ['flare-bevel', t`flare bevel`],
  ['compound-bevel', t`compound bevel`],
]
export const BACKINGS: readonly [string, string][] = [
  ['none', t`no backing`],
  ['metal', t`metal backing`],
  ['ceramic', t`ceramic backing`],
  ['gas', t`gas backing`],
  ['flux', t`flux backing`],
]
export const FACES: readonly [string, string][] = [
  ['flat', t`flat face`],
  ['convex', t`convex face`],
  ['concave', t`concave face`],
]
export const GOUGES: readonly [string, string][] = [
  ['no', t`not gouged`],
  ['yes', 'back-gouged'],
]
export const OVERLAPS: readonly [string, string][] = [
  ['third', t`a third`],
  ['half', t`a half`],
  ['two-thirds', t`two thirds`],
]
export const ROUTES: readonly [string, string][] = [
  ['test', t`qualified by testing`],
  ['prequalified', t`prequalified`],
]
export const COLUMNS: readonly [string, string][] = [
  ['us', t`inch column`],
  ['si', t`SI column`],
]
export const EVIDENCE: readonly [string, string][] = [
  ['certificate', t`certificate`],
  ['mark', t`mark`],
  ['magnet', t`magnet`],
  ['spark', t`spark test`],
  ['analyser', t`analyser`],
]
export const MAGNET: readonly [string, string][] = [
  ['sticks', t`magnet: yes`],
  ['not', t`magnet: no`],
]
export const POSITIONS: readonly [string, string][] = [
  'PA',
  'PB',
  'PC',
  'PD',
  'PE',
  'PF',
  'PG',
  '1G',
  '2G',
  '3G',
  '4G',
  '1F',
  '2F',
  '3F',
  '4F',
  'PH',
  'PJ',
  'H-L045',
  'J-L045',
  '5G',
  '6G',
].map((name) => [name, name])

export const PROVENANCE: Record<string, string> = {
  memory: t`from memory, not confirmed`,
  published: t`published`,
  practice: t`common practice`,
  confirmed: t`confirmed`,
}

export function codeWords(id: string | null | undefined, level: number | null | undefined, short?: string): string {
  if (!id) return t`no code`
  const name = short ?? id
  return level ? t`${name} · level ${level}` : name
}

/** Positions of a filler's class. */
export const POSITION_WORDS: Record<string, string> = {
  all: t`all positions`,
  flat: t`flat`,
  'flat-horizontal': t`flat and horizontal`,
  'all-but-vertical-down': t`all but vertical downwards`,
  'flat-horizontal-vertical-down': t`flat, horizontal, vertical downwards`,
  'flat-horizontal-overhead-vertical-down': t`flat, horizontal, overhead, vertical downwards`,
}

const STAGES: readonly [string, string][] = [
  ['draft', t`draft`],
  ['trial', t`trial`],
  ['tested', t`tested`],
  ['prequalified', t`prequalified`],
  ['qualified', t`qualified`],
  ['released', t`released`],
  ['superseded', t`superseded`],
  ['withdrawn', t`withdrawn`],
]
const COUPONS: readonly [string, string][] = [
  ['welding', t`welding`],
  ['welded', t`welded`],
  ['plate', t`plate`],
  ['pipe', t`pipe`],
]
/** Families of base metals. */
export const FAMILIES = [
  ['carbon', t`carbon steel`],
  ['weathering', t`weathering steel`],
  ['cr-mo', t`Cr-Mo steel`],
  ['ni-steel', t`nickel steel`],
  ['austenitic', t`austenitic stainless`],
  ['ferritic', t`ferritic stainless`],
  ['martensitic', t`martensitic stainless`],
  ['ph-stainless', t`precipitation-hardening stainless`],
  ['duplex', t`duplex stainless`],
  ['nickel', t`nickel alloy`],
  ['aluminium', t`aluminium`],
  ['aluminium-cast', t`cast aluminium`],
  ['copper', t`copper alloy`],
] as const
const PEOPLE: readonly [string, string][] = [
  ['engineer', t`engineer`],
  ['technologist', t`technologist`],
  ['welder', t`welder`],
  ['inspector', t`inspector`],
  ['witness', t`witness`],
  ['viewer', t`viewer`],
  ['examiner', t`examiner`],
  ['administrator', t`administrator`],
]
/** Stages, roles, transfers, families and people by the document's values. */
export const NAMED = new Map<string, string>([...ROLES, ...STAGES, ...COUPONS, ...FAMILIES, ...PEOPLE, ...TRANSFERS])

/** A stage, a role or a transfer of a document in words; anything else as it stands. */
export const inWords = (value: string): string => NAMED.get(value) ?? value.replaceAll('-', ' ')
