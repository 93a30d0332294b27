import { t } from '@lingui/core/macro'

import type { NamedWelder } from '../api/types'
import { MarkIcon, type Mark } from './Verdict'

const MARKS: Record<NamedWelder['standing'], Mark> = {
  may: 'holds',
  open: 'unknown',
  lapsed: 'breach',
  blocked: 'breach',
  untested: 'breach',
  unknown: 'unknown',
}

export const NOT_QUALIFIED: readonly NamedWelder['standing'][] = ['lapsed', 'blocked', 'untested']

/** What is said of somebody who is to weld. */
export function standingSaid({ name, standing }: { name: string; standing: NamedWelder['standing'] }): string {
  if (standing === 'may') return t`${name} is qualified for this weld.`
  if (standing === 'lapsed') return t`The qualification of ${name} has lapsed.`
  if (standing === 'blocked') return t`${name} is not qualified for this weld.`
  if (standing === 'untested') return t`${name} holds no certificate for this weld.`
  if (standing === 'open') return t`It is not decided whether ${name} is qualified for this weld.`
  return t`The qualification of ${name} is not known.`
}

/** Whether those who are named may weld it, before they do. */
export function NamedWelders({ found, note }: { found: readonly NamedWelder[]; note?: string }) {
  const against = found.some((one) => one.standing !== 'may')
  if (found.length === 0) return null
  return (
    <div
      role="status"
      aria-label={t`Qualification of those who are named`}
      className={`grid gap-1.5 rounded-sm border bg-panel px-3 py-2 text-[13.5px] ${found.some((one) => NOT_QUALIFIED.includes(one.standing)) ? 'border-breach' : 'border-line'}`}
    >
      <ul className="grid gap-1.5">
        {found.map((one) => (
          <li key={one.name} className="flex items-start gap-2">
            <span className="mt-1">
              <MarkIcon mark={MARKS[one.standing]} />
            </span>
            <span className="min-w-0">
              <b>{standingSaid(one)}</b> {one.reasons.join(' ')}
            </span>
          </li>
        ))}
      </ul>
      {note && against && <p className="text-[12.5px] text-steel2">{note}</p>}
    </div>
  )
}
