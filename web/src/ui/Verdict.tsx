import { t } from '@lingui/core/macro'
import type { Finding } from '../api/types'

export type Mark = 'breach' | 'caution' | 'holds' | 'unknown' | 'outside'

export const MARK_WORDS: Record<Mark, string> = {
  breach: t`nonconformity`,
  caution: t`caution`,
  holds: t`holds`,
  unknown: t`unknown`,
  outside: t`outside this code`,
}

const COLOURS: Record<Mark, string> = {
  breach: 'text-breach',
  caution: 'text-caution',
  holds: 'text-holds',
  unknown: 'text-unknown',
  outside: 'text-unknown',
}

export function markOf(finding: Finding): Mark {
  if (finding.verdict === 'complies') return 'holds'
  if (finding.verdict === 'undecided') return 'unknown'
  if (finding.verdict === 'not_applicable') return 'outside'
  return finding.obligation === 'requirement' ? 'breach' : 'caution'
}

/** The verdict's shape: told apart without colour. */
export function MarkIcon({ mark, size = 12, silent = false }: { mark: Mark; size?: number; silent?: boolean }) {
  return (
    <svg
      width={size}
      height={size}
      viewBox="0 0 12 12"
      className={`inline-block shrink-0 ${COLOURS[mark]}`}
      role={silent ? 'presentation' : 'img'}
      aria-label={silent ? undefined : MARK_WORDS[mark]}
    >
      {mark === 'breach' && <path d="M6 1 11.5 11H.5z" fill="currentColor" />}
      {mark === 'caution' && <path d="M6 .5 11.5 6 6 11.5.5 6z" fill="currentColor" />}
      {mark === 'holds' && <circle cx="6" cy="6" r="4.8" fill="currentColor" />}
      {mark === 'unknown' && <circle cx="6" cy="6" r="4.3" fill="none" stroke="currentColor" strokeWidth="1.5" />}
      {mark === 'outside' && <path d="M1 6h10" stroke="currentColor" strokeWidth="2" />}
    </svg>
  )
}
