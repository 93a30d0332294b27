import { t } from '@lingui/core/macro'
import type { Kind, System } from '../../api/types'
import { numberText } from '../../domain/quantity'

const PART = /^(?:(\d+)\s+)?(\d+)\s*\/\s*(\d+)$|^(\d+(?:[.,]\d+)?)$/

function one(text: string): number | null {
  const found = PART.exec(text.trim())
  if (!found) return null
  if (found[4] !== undefined) return Number(found[4].replace(',', '.'))
  return Number(found[1] ?? 0) + Number(found[2]) / Number(found[3])
}

/** Numbers parted by semicolons (or blanks after commas) in the unit shown; "none" is an empty list. */
export function readNumbers(text: string, kind: Kind, system: System): number[] | null {
  if (/^(none|0|-|–|—)$/i.test(text.trim())) return []
  const values = parts(text).map(one)
  if (values.some((value) => value === null)) return null
  return values.map((value) => (system === 'si' ? Number(value) : (Number(value) - kind.us_offset) / kind.us_scale))
}

/** Plain numbers, a dash for a value that is still missing. */
export function readBlanks(text: string): (number | null)[] | null {
  const found: (number | null)[] = []
  for (const part of parts(text)) {
    if (/^(?:-|–|—|\?)?$/.test(part.trim())) found.push(null)
    else {
      const value = one(part)
      if (value === null) return null
      found.push(value)
    }
  }
  return found
}

function parts(text: string): string[] {
  return text.trim().split(text.includes(';') ? /\s*;\s*/ : /\s*,\s+|\s+/)
}

export function writeNumbers(values: readonly number[], kind: Kind, system: System): string {
  return values.length === 0 ? t`none` : values.map((value) => numberText(value, kind, system)).join('; ')
}

export function writeBlanks(values: readonly (number | null)[]): string {
  return values.map((value) => (value === null ? '–' : String(value))).join('; ')
}
