import { t } from '@lingui/core/macro'
import type { Mark } from '../../ui/Verdict'

/** What the state of a signed record is called, after its number. */
export const STATE_WORDS: Record<string, string> = {
  signed: t`is signed`,
  'awaits-second': t`is signed by one of two`,
  superseded: t`is superseded by its amendment`,
  void: t`is void`,
  damaged: t`is damaged`,
}

export const SIGNED_MARK: Record<string, Mark> = {
  signed: 'holds',
  'awaits-second': 'unknown',
  superseded: 'caution',
  void: 'breach',
}

export const VERDICT_MARK: Record<string, Mark> = { accepted: 'holds', rejected: 'breach', incomplete: 'unknown' }

export const VERDICT_WORDS: Record<string, string> = {
  accepted: t`accepted`,
  rejected: t`rejected`,
  incomplete: t`open`,
}
