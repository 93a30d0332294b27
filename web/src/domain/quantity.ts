import type { Kind, Range, System } from '../api/types'

/** The unit a kind is shown in. */
export function unitOf(kind: Kind, system: System): string {
  return system === 'si' ? kind.unit : kind.us_unit
}

/** A stored value in the unit shown. The factors come from the server. */
export function shown(value: number, kind: Kind, system: System): number {
  return system === 'si' ? value : value * kind.us_scale + kind.us_offset
}

const THOUSANDS_OR_DECIMAL = /^[1-9]\d{0,2},\d{3}$/
const PLAIN = /^(\d+(?:[.,]\d+)?)(?:\s*[-–]\s*(\d+(?:[.,]\d+)?))?$/

/**
 * A plain number, or two with a dash, in the unit shown: all that is read while the server is away.
 * Whatever else people may type waits for the core, which also says what is plausible.
 */
export function plainNumbers(text: string, kind: Kind, system: System): Range | null {
  const found = PLAIN.exec(text.trim())
  if (!found || found.slice(1).some((typed) => typed && THOUSANDS_OR_DECIMAL.test(typed))) return null
  const stored = (typed: string) => {
    const value = Number(typed.replace(',', '.'))
    return system === 'si' ? value : (value - kind.us_offset) / kind.us_scale
  }
  const low = stored(found[1] ?? '')
  const high = found[2] === undefined ? low : stored(found[2])
  return low <= high ? { min: low, max: high } : null
}

const KEEPS_DECIMALS = new Set(['heat_input', 'voltage'])

/** The number alone, rounded as the kind is shown; the same rule as on paper. */
export function numberText(value: number, kind: Kind, system: System): string {
  const fraction = fractionText(value, kind, system)
  return fraction === '' ? decimalText(value, kind, system) : fraction
}

const OF_A_FRACTION_IN = 0.0002

/** A size that is a fraction of an inch, as the trade writes it; empty where it is none. */
function fractionText(value: number, kind: Kind, system: System): string {
  const inches = shown(value, kind, system)
  if (system === 'si' || !kind.us_fraction || inches < kind.us_fraction_from - OF_A_FRACTION_IN || inches >= 100)
    return ''
  const parts = Math.round(inches * kind.us_fraction)
  if (Math.abs(parts / kind.us_fraction - inches) > OF_A_FRACTION_IN) return ''
  const whole = Math.floor(parts / kind.us_fraction)
  let [over, under] = [parts % kind.us_fraction, kind.us_fraction]
  if (over === 0) return String(whole)
  while (over % 2 === 0) [over, under] = [over / 2, under / 2]
  return `${whole > 0 ? `${String(whole)} ` : ''}${String(over)}/${String(under)}`
}

function decimalText(value: number, kind: Kind, system: System): string {
  const decimals = system === 'si' ? kind.decimals : kind.us_decimals
  const text = shown(value, kind, system)
    .toFixed(decimals)
    .replace(/^-(?=[0.]*$)/, '')
  if (KEEPS_DECIMALS.has(kind.name) || !text.includes('.')) return text
  return text.replace(/0+$/, '').replace(/\.$/, '')
}

/** Both ends of a range as fractions, or with as many decimals as the longer one has; one number if they are alike. */
export function rangeText(range: Range, kind: Kind, system: System): string {
  let low = numberText(range.min, kind, system)
  let high = numberText(range.max, kind, system)
  if (low === high) return low
  if (`${low}${high}`.includes('/')) {
    if ([range.min, range.max].every((end) => end === 0 || fractionText(end, kind, system) !== ''))
      return `${low}–${high}`
    ;[low, high] = [decimalText(range.min, kind, system), decimalText(range.max, kind, system)]
  }
  const decimals = Math.max(decimalsOf(low), decimalsOf(high))
  return `${Number(low).toFixed(decimals)}–${Number(high).toFixed(decimals)}`
}

function decimalsOf(text: string): number {
  return text.split('.')[1]?.length ?? 0
}

/** Seconds as a stopwatch shows them: 01:42.3 */
export function clockText(seconds: number): string {
  const tenths = Math.floor(seconds * 10 + 1e-6)
  const minutes = Math.floor(tenths / 600)
  const rest = (tenths % 600) / 10
  return `${String(minutes).padStart(2, '0')}:${rest.toFixed(1).padStart(4, '0')}`
}
