import { t } from '@lingui/core/macro'

import type { Weld } from '../../api/types'
import type { Mark } from '../../ui/Verdict'

export type State = Weld['state']
export type Method = Weld['results'][number]['method']

export const STATE_MARK: Record<State, Mark> = {
  welded: 'unknown',
  accepted: 'caution',
  rejected: 'breach',
  repaired: 'outside',
  released: 'holds',
  struck: 'outside',
}
export const STATE_WORDS: Record<State, string> = {
  welded: t`welded, not inspected`,
  accepted: t`accepted, not released`,
  rejected: t`rejected`,
  repaired: t`repaired`,
  released: t`released`,
  struck: t`struck`,
}
export const METHOD_WORDS: Record<Method, string> = {
  VT: t`Visual testing`,
  PT: t`Penetrant testing`,
  MT: t`Magnetic particle testing`,
  RT: t`Radiographic testing`,
  UT: t`Ultrasonic testing`,
}
export const METHODS = Object.keys(METHOD_WORDS) as Method[]

/** Today as this device sees it, such as 2026-05-04. */
export function today(): string {
  const now = new Date()
  const two = (part: number) => String(part).padStart(2, '0')
  return `${String(now.getFullYear())}-${two(now.getMonth() + 1)}-${two(now.getDate())}`
}
