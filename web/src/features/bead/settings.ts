import { t } from '@lingui/core/macro'

import type { BeadSettings } from '../../api/types'

/** Settings to start from, one for each family of processes. */
export const STARTS: Readonly<Record<string, BeadSettings>> = {
  '135': {
    ...plain('135', 'S355J2', 10),
    filler: 'ER70S-6',
    diameter_mm: 1.2,
    gas: { Ar: 82, CO2: 18 },
    wire_feed_m_min: 9.5,
    voltage_v: 29,
    travel_mm_min: 400,
    extension_mm: 18,
    gas_flow_l_min: 16,
    nozzle_mm: 16,
  },
  '136': {
    ...plain('136', 'S355J2', 12),
    filler: 'E71T-1M',
    diameter_mm: 1.2,
    gas: { Ar: 82, CO2: 18 },
    wire_feed_m_min: 8,
    voltage_v: 26,
    travel_mm_min: 350,
    extension_mm: 20,
    gas_flow_l_min: 18,
    nozzle_mm: 16,
  },
  '131': {
    ...plain('131', '5083', 6),
    filler: 'ER5356',
    diameter_mm: 1.2,
    gas: { Ar: 100 },
    wire_feed_m_min: 11,
    voltage_v: 23,
    travel_mm_min: 500,
    extension_mm: 15,
    gas_flow_l_min: 18,
    nozzle_mm: 18,
  },
  '141': {
    ...plain('141', '304L', 2),
    gas: { Ar: 100 },
    current_a: 75,
    voltage_v: 10.5,
    travel_mm_min: 150,
    polarity: 'DCEN',
    cup: { number: 10, lens: true },
    gas_flow_l_min: 11,
    tungsten: { diameter_mm: 2.4, type: 'WC20' },
    feed_filler: false,
  },
  '111': {
    ...plain('111', 'S355J2', 12),
    filler: 'E7018',
    diameter_mm: 3.2,
    current_a: 125,
    voltage_v: 24,
    travel_mm_min: 150,
    polarity: 'DCEP',
  },
  '121': {
    ...plain('121', 'S355J2', 20),
    filler: 'EM12K',
    diameter_mm: 4,
    current_a: 550,
    voltage_v: 30,
    travel_mm_min: 500,
    polarity: 'DCEP',
    extension_mm: 30,
  },
}

function plain(process: BeadSettings['process'], metal: string, thickness_mm: number): BeadSettings {
  return {
    format: 'grounded-bead/bead-settings',
    version: 1,
    process,
    metal,
    thickness_mm,
    joint: 'plate',
    backing: false,
    feed_filler: true,
    trailing_shield: false,
    start_c: 20,
  }
}

/** A setting with a slider: what it is called, its kind of quantity, and how far the slider goes. */
export type Knob = {
  field: KnobField
  words: string
  kind: string
  min: number
  max: number
  step: number
}
export type KnobField =
  | 'current_a'
  | 'wire_feed_m_min'
  | 'voltage_v'
  | 'travel_mm_min'
  | 'extension_mm'
  | 'torch_angle_deg'
  | 'weave_mm'
  | 'inductance_percent'
  | 'gas_flow_l_min'
  | 'start_c'

const knob = (field: KnobField, words: string, kind: string, min: number, max: number, step: number): Knob => ({
  field,
  words,
  kind,
  min,
  max,
  step,
})

/** The settings that a process has, in the order a welder reaches for them. */
export function knobsOf(process: string): Knob[] {
  const wire = ['131', '135', '136', '138', '114'].includes(process)
  const tig = process === '141'
  const saw = process.startsWith('12')
  return [
    ...(wire ? [knob('wire_feed_m_min', t`Wire feed speed`, 'wire_feed', 1.5, 20, 0.1)] : []),
    ...(wire ? [] : [knob('current_a', t`Current`, 'current', tig ? 10 : 40, saw ? 1000 : 350, 1)]),
    knob('voltage_v', t`Arc voltage`, 'voltage', tig ? 8 : 13, saw ? 42 : 38, 0.1),
    knob('travel_mm_min', t`Travel speed`, 'travel', 40, saw ? 1500 : 1000, 5),
    ...(wire || saw ? [knob('extension_mm', t`Electrode extension`, 'length', 6, saw ? 80 : 40, 1)] : []),
    knob('torch_angle_deg', t`Push (+) or drag (−)`, 'number', -25, 25, 1),
    knob('weave_mm', t`Weave`, 'length', 0, 15, 0.5),
    ...(process === '135' ? [knob('inductance_percent', t`Inductance`, 'percent', 0, 100, 5)] : []),
    ...(wire || tig ? [knob('gas_flow_l_min', t`Gas flow`, 'flow', 3, 40, 0.5)] : []),
    knob('start_c', t`Metal before the pass`, 'temperature', 0, 400, 5),
  ]
}

/** What a field of the settings is called. */
export function settingWords(field: string): string {
  const more: Readonly<Record<string, string>> = {
    process: t`Process`,
    metal: t`Metal`,
    thickness_mm: t`Thickness`,
    joint: t`Joint`,
    root_gap_mm: t`Root gap`,
    root_face_mm: t`Root face`,
    included_angle_deg: t`Included angle`,
    backing: t`Backing`,
    nozzle_mm: t`Nozzle bore`,
    post_flow_s: t`Post-flow`,
    filler: t`Filler`,
    diameter_mm: t`Diameter`,
    feed_filler: t`Filler fed`,
    gas: t`Shielding gas`,
    cup: t`Cup`,
    polarity: t`Polarity`,
    ac: t`AC`,
    ac_frequency_hz: t`AC frequency`,
    pulse: t`Pulse`,
    tungsten: t`Tungsten`,
    trailing_shield: t`Trailing shield`,
    purge_oxygen_ppm: t`Oxygen in the purge`,
    current_a: t`Current`,
    position: t`Position`,
  }
  const knobs = [...knobsOf('135'), ...knobsOf('141')]
  return knobs.find((one) => one.field === field)?.words ?? more[field] ?? field
}

/** Kind of quantity of a setting that has a slider; empty for others. */
export function kindOf(field: string): string {
  return [...knobsOf('135'), ...knobsOf('141')].find((one) => one.field === field)?.kind ?? ''
}
