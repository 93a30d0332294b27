import { t } from '@lingui/core/macro'

import { NAMED } from './words'

/** What the fields of a procedure are called; a field that is not here is said as it is named. */
const WORDS: Readonly<Record<string, string>> = {
  ac: t`AC`,
  across_deg: t`angle across the weld`,
  also: t`also called`,
  amplitude_ratio: t`positive over negative amplitude`,
  angle_deg: t`angle`,
  applies_to: t`procedure applies to`,
  average_j: t`mean of a set`,
  aws_d1_1: t`group of AWS D1.1`,
  back_gouge: t`back-gouging`,
  background_a: t`background current`,
  background_v: t`background voltage`,
  backing: t`backing`,
  balance_dial: t`balance dial`,
  batch: t`batch`,
  bead: t`stringer or weave`,
  bead_area_mm2: t`bead area`,
  branch_angle_deg: t`branch angle`,
  certificate: t`certificate`,
  chemistry: t`chemistry`,
  code: t`code`,
  components_percent: t`components`,
  condition: t`condition`,
  contact_tip_mm: t`contact tube`,
  convention: t`what the dial counts`,
  cooling_c_h: t`cooling rate`,
  count: t`number`,
  cup: t`cup`,
  current_a: t`current`,
  deposit_mm: t`deposited thickness`,
  depth_mm: t`groove depth`,
  designation: t`designation`,
  dial: t`dial`,
  diameter_mm: t`diameter`,
  dihedral_deg: t`dihedral angle`,
  down_s: t`down-slope`,
  each: t`each electrode`,
  electrodes: t`electrodes`,
  en_share: t`negative share`,
  extension_mm: t`electrode extension`,
  face: t`weld face`,
  face_height_mm: t`reinforcement`,
  feeder: t`wire feeder`,
  filler: t`filler`,
  finish_a: t`finish current`,
  flow_l_min: t`flow`,
  flux: t`flux`,
  form: t`preparation`,
  frequency_hz: t`frequency`,
  gap_allowed_mm: t`root gap after tacking`,
  gas: t`shielding gas`,
  gas_times: t`gas times`,
  groups: t`group`,
  hardness: t`hardness test`,
  heat: t`heat number`,
  heat_input_kj_mm: t`heat input`,
  heating_c_h: t`heating rate`,
  hold_c: t`holding temperature`,
  hold_min: t`holding time`,
  hydrogen_ml_100g: t`diffusible hydrogen`,
  identified_by: t`identified by`,
  impact: t`impact test`,
  included_angle_deg: t`groove angle`,
  inductance_percent: t`inductance`,
  interpass_max_c: t`interpass maximum`,
  iso_15608: t`group of ISO/TR 15608`,
  joint: t`joint`,
  kind: t`kind`,
  layer: t`layer`,
  leg1_mm: t`leg`,
  leg2_mm: t`second leg`,
  length_mm: t`length`,
  lens: t`gas lens`,
  level: t`level`,
  machine: t`machine`,
  magnet_sticks: t`magnet sticks`,
  make: t`trade name`,
  max: t`highest`,
  mechanisation: t`degree of mechanisation`,
  min: t`lowest`,
  nominal: t`nominal size`,
  notes: t`notes`,
  number: t`number`,
  offset_mm: t`spacing across`,
  output: t`power source output`,
  outside_diameter_mm: t`outside diameter`,
  oxygen_ppm: t`oxygen`,
  peak_a: t`peak current`,
  peak_share: t`peak share`,
  peak_v: t`peak voltage`,
  pedal_max_a: t`pedal maximum`,
  polarity: t`polarity`,
  positions: t`positions`,
  post_flow_s: t`post-flow`,
  post_heat: t`post-heating (hydrogen release)`,
  pre_flow_s: t`pre-flow`,
  preheat_min_c: t`preheat`,
  preheat_reason: t`reason of the preheat`,
  preparation: t`edges`,
  process: t`process`,
  progression: t`progression`,
  pulse: t`pulse`,
  purge: t`backing gas (purge)`,
  pwht: t`PWHT`,
  radius_mm: t`root radius`,
  reinforcement_mm: t`reinforcement`,
  requirements: t`requirements`,
  revision: t`revision`,
  role: t`pass`,
  rolls: t`drive rolls`,
  root_face_mm: t`root face`,
  root_gap_mm: t`root gap`,
  route: t`route`,
  run_out_mm: t`run-out length`,
  setting: t`setting`,
  side: t`side`,
  sides: t`sides`,
  site: t`site`,
  slopes: t`slopes`,
  spacing_mm: t`spacing along`,
  standard: t`standard`,
  start: t`start`,
  start_a: t`start current`,
  temperature_c: t`temperature`,
  tensile_mpa: t`tensile strength`,
  thickness_mm: t`thickness`,
  throat_mm: t`throat`,
  time_s: t`time`,
  tip_mm: t`tip`,
  title: t`title`,
  transfer: t`metal transfer`,
  travel_mm_min: t`travel speed`,
  tungsten: t`tungsten electrode`,
  type: t`type`,
  units: t`printed column`,
  up_s: t`up-slope`,
  voltage_v: t`voltage`,
  waveform: t`waveform`,
  weave_max_mm: t`weave, at most`,
  weld: t`weld`,
  wind_m_s: t`wind`,
  wire_feed_m_min: t`wire feed`,
  yield_mpa: t`yield strength`,
}

const UNITS: readonly [RegExp, string][] = [
  [/_mm_min$/, 'mm/min'],
  [/_m_min$/, 'm/min'],
  [/_l_min$/, 'L/min'],
  [/_kj_mm$/, 'kJ/mm'],
  [/_ml_100g$/, 'ml/100 g'],
  [/_c_h$/, '°C/h'],
  [/_m_s$/, 'm/s'],
  [/_mm2$/, 'mm²'],
  [/_mm$/, 'mm'],
  [/_mpa$/, 'MPa'],
  [/_deg$/, '°'],
  [/_hz$/, 'Hz'],
  [/_ppm$/, 'ppm'],
  [/_percent$/, '%'],
  [/_min$/, 'min'],
  [/_a$/, 'A'],
  [/_v$/, 'V'],
  [/_c$/, '°C'],
  [/_j$/, 'J'],
  [/_s$/, 's'],
]
/** Parts of a path that only hold others. */
const HOLDERS = new Set(['thermal', 'shelf', 'format', 'version', 'id'])
const NUMBERED: Readonly<Record<string, (number: number) => string>> = {
  passes: (number) => t`pass ${number}`,
  base_metals: (number) => t`metal ${number}`,
  each: (number) => t`electrode ${number}`,
}

/** Unit of the number at the end of a path; empty for a word. */
function unitOfPath(parts: readonly string[]): string {
  for (const part of [...parts].reverse()) {
    if (part === 'share' || part.endsWith('_share')) return ''
    const found = UNITS.find(([suffix]) => suffix.test(part))
    if (found) return found[1]
    if (WORDS[part] !== undefined && part !== 'min' && part !== 'max') return ''
  }
  return ''
}

/** A path in words: passes.2.travel_mm_min.max -> pass 3, travel speed, highest (mm/min) */
export function pathWords(path: string): string {
  const parts = path.split('.')
  const words: string[] = []
  parts.forEach((part, at) => {
    const next = parts[at + 1]
    if (/^\d+$/.test(part) || HOLDERS.has(part)) return
    const numbered = NUMBERED[part]
    if (numbered && next !== undefined && /^\d+$/.test(next)) words.push(numbered(Number(next) + 1))
    else words.push(WORDS[part] ?? part.replaceAll('_', ' '))
  })
  const unit = unitOfPath(parts)
  return words.join(', ') + (unit === '' ? '' : ` (${unit})`)
}

const ANSWERS: Readonly<Record<string, string>> = { true: t`yes`, false: t`no` }

/** A value as it stands in a document, for reading: numbers without the digits that arithmetic leaves. */
export function valueWords(text: string): string {
  if (/^-?\d+\.\d{4,}$/.test(text)) return String(Number(Number(text).toPrecision(4)))
  return ANSWERS[text] ?? NAMED.get(text) ?? text
}
