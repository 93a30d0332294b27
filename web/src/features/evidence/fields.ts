import { t } from '@lingui/core/macro'
import type { Test } from '../../api/types'

export type Kind = Test['kind']

/** Words for kinds of test, as the trade says them. */
export const KIND_WORDS: Record<Kind, string> = {
  visual: t`visual examination`,
  radiographic: t`radiographic test`,
  ultrasonic: t`ultrasonic test`,
  'magnetic-particle': t`magnetic particle test`,
  penetrant: t`penetrant test`,
  'transverse-tensile': t`transverse tensile`,
  'all-weld-tensile': t`all-weld tensile`,
  'root-bend': t`root bend`,
  'face-bend': t`face bend`,
  'side-bend': t`side bend`,
  'longitudinal-root-bend': t`longitudinal root bend`,
  'longitudinal-face-bend': t`longitudinal face bend`,
  macro: t`macro section`,
  'fillet-break': t`fillet break`,
  'hardness-hv10': t`hardness HV10`,
  impact: t`Charpy set`,
}
export const KINDS = Object.entries(KIND_WORDS) as [Kind, string][]

const YES_NO = [
  ['yes', t`yes`],
  ['no', t`no`],
] as const
const OUTCOMES = [
  ['accepted', t`accepted`],
  ['rejected', t`rejected`],
] as const
const FRACTURES = [
  ['parent', t`parent metal`],
  ['weld', t`weld`],
  ['haz', t`heat-affected zone`],
  ['fusion-line', t`fusion line`],
] as const
export const CAUSES = [
  ['none-seen', t`no flaw seen`],
  ['slag', t`slag`],
  ['fusion', t`lack of fusion`],
  ['penetration', t`lack of penetration`],
  ['other-flaw', t`another flaw`],
] as const
export const ZONES = [
  ['parent-1', t`parent, metal 1`],
  ['haz-1', t`HAZ, metal 1`],
  ['weld', t`weld`],
  ['haz-2', t`HAZ, metal 2`],
  ['parent-2', t`parent, metal 2`],
  ['haz', 'HAZ'],
  ['parent', t`parent`],
] as const

export type Field =
  | { name: string; words: string; as: 'quantity'; kind: string }
  | { name: string; words: string; as: 'number'; unit: string }
  | { name: string; words: string; as: 'choice'; options: readonly (readonly [string, string])[] }
  | { name: string; words: string; as: 'yes-no' }
  | { name: string; words: string; as: 'list'; kind: string; hint: string }
  | { name: string; words: string; as: 'blanks'; unit: string; hint: string }
  | { name: string; words: string; as: 'codes'; hint: string }
  | { name: string; words: string; as: 'text' }

const mm = (name: string, words: string): Field => ({ name, words, as: 'quantity', kind: 'gap' })
const thick = (name: string, words: string): Field => ({ name, words, as: 'quantity', kind: 'thickness' })
const yes = (name: string, words: string): Field => ({ name, words, as: 'yes-no' })
const outcome: Field = { name: 'outcome', words: 'outcome', as: 'choice', options: OUTCOMES }

const BEND: Field[] = [
  thick('thickness_mm', 'thickness'),
  thick('former_mm', t`former diameter`),
  { name: 'angle_deg', words: 'angle', as: 'quantity', kind: 'angle' },
  { name: 'openings_mm', words: 'openings', as: 'list', kind: 'gap', hint: t`1.2; 0.5 — or “none”` },
]
const NDT: Field[] = [
  outcome,
  { name: 'report', words: 'report', as: 'text' },
  { name: 'hours_after_welding', words: t`after welding`, as: 'number', unit: 'h' },
]
const TENSILE: Field[] = [
  thick('width_mm', 'width'),
  thick('thickness_mm', 'thickness'),
  thick('diameter_mm', t`round: diameter`),
  { name: 'max_load_n', words: t`maximum load`, as: 'number', unit: 'N' },
  { name: 'tensile_mpa', words: 'strength', as: 'quantity', kind: 'strength' },
  { name: 'fracture', words: t`fracture location`, as: 'choice', options: FRACTURES },
]

/** What is entered for each kind of test, in the order it is read. */
export const FIELDS: Record<Kind, Field[]> = {
  visual: [
    outcome,
    yes('cracks', 'cracks'),
    yes('complete_fusion', t`complete fusion`),
    yes('craters_filled', t`craters filled`),
    mm('reinforcement_mm', 'reinforcement'),
    mm('width_mm', t`width of the weld`),
    mm('undercut_mm', 'undercut'),
    mm('root_concavity_mm', t`root concavity`),
    mm('underfill_mm', 'underfill'),
    mm('penetration_mm', t`root penetration`),
    mm('penetration_width_mm', t`width at the root`),
    mm('misalignment_mm', 'misalignment'),
    { name: 'legs_mm', words: 'legs', as: 'list', kind: 'gap', hint: '8.1; 8.4' },
    mm('throat_mm', 'throat'),
  ],
  radiographic: NDT,
  ultrasonic: NDT,
  'magnetic-particle': NDT,
  penetrant: NDT,
  'transverse-tensile': TENSILE,
  'all-weld-tensile': [
    ...TENSILE,
    { name: 'yield_mpa', words: 'yield', as: 'quantity', kind: 'strength' },
    { name: 'elongation_percent', words: 'elongation', as: 'quantity', kind: 'percent' },
  ],
  'root-bend': BEND,
  'face-bend': BEND,
  'side-bend': BEND,
  'longitudinal-root-bend': BEND,
  'longitudinal-face-bend': BEND,
  macro: [
    yes('cracks', 'cracks'),
    yes('complete_fusion', t`complete fusion`),
    yes('fused_to_root', t`fused to the root`),
    mm('undercut_mm', 'undercut'),
    { name: 'legs_mm', words: 'legs', as: 'list', kind: 'gap', hint: '8.1; 8.4' },
    mm('throat_mm', 'throat'),
    mm('weld_size_mm', t`weld size E`),
    mm('reinforcement_mm', 'reinforcement'),
    mm('width_mm', t`width of the weld`),
    mm('penetration_mm', t`root penetration`),
    mm('penetration_width_mm', t`width at the root`),
    mm('misalignment_mm', 'misalignment'),
    mm('convexity_mm', 'convexity'),
    mm('root_gap_mm', t`gap at the root`),
    mm('pore_mm', t`largest pore`),
    { name: 'image', words: 'photograph', as: 'text' },
  ],
  'fillet-break': [
    yes('broke', t`it broke`),
    mm('length_mm', 'length'),
    { name: 'flaws_mm', words: 'flaws', as: 'list', kind: 'gap', hint: t`1.5; 2 — or “none”` },
  ],
  'hardness-hv10': [],
  impact: [
    { name: 'location', words: t`notch at`, as: 'text' },
    { name: 'processes', words: t`deposit of process`, as: 'codes', hint: t`several processes: 141` },
    { name: 'temperature_c', words: 'temperature', as: 'quantity', kind: 'temperature' },
    { name: 'values_j', words: 'energies', as: 'blanks', unit: 'J', hint: t`61; 58; 70 — a dash for one not broken` },
    { name: 'width_mm', words: 'width', as: 'quantity', kind: 'gap' },
  ],
}
/** Lists that say something when they are empty. */
export const EMPTY_COUNTS = ['openings_mm', 'flaws_mm']
export { OUTCOMES, YES_NO }
