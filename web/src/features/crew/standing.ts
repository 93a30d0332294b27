import { plural, t } from '@lingui/core/macro'

import type { CertificateLine, DueLine } from '../../api/types'
import type { Mark } from '../../ui/Verdict'

export const STANDING_WORDS: Record<CertificateLine['standing'], string> = {
  valid: t`valid`,
  lapsed: t`lapsed`,
  unknown: t`not known`,
  not_yet: t`not yet valid`,
  damaged: t`not what was signed`,
}

export const STANDING_MARK: Record<CertificateLine['standing'], Mark> = {
  valid: 'holds',
  lapsed: 'breach',
  unknown: 'unknown',
  not_yet: 'unknown',
  damaged: 'breach',
}

export const DUE_WORDS: Record<DueLine['kind'], string> = {
  confirmation: t`confirmation`,
  prolongation: t`prolongation or new test`,
  use: t`use of the process`,
  lapsed: t`lapsed`,
}

/** Days from one day to another, both as they are sent. */
export function daysBetween(from: string, to: string): number {
  return Math.round((Date.parse(to) - Date.parse(from)) / 86_400_000)
}

export function inDays(days: number): string {
  if (days < 0) return plural(-days, { one: '# day ago', other: '# days ago' })
  if (days === 0) return t`today`
  return plural(days, { one: 'in # day', other: 'in # days' })
}

/** Where a certificate stands, in a line: until when it holds, or since when it does not. */
export function standingLine(one: CertificateLine): string {
  const last = one.last_valid_day ?? ''
  if (one.standing === 'valid') {
    if (!one.due) return t`valid, nothing is due`
    const [what, day] = [DUE_WORDS[one.due.kind], one.due.on]
    return t`valid until ${day}: ${what} is due`
  }
  if (one.standing === 'lapsed') return last ? t`lapsed after ${last}` : t`lapsed`
  return STANDING_WORDS[one.standing]
}
