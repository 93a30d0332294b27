import { t } from '@lingui/core/macro'

/** What the state of a signed record is called, after its number. */
export const STATE_WORDS: Record<string, string> = {
  signed: t`is signed`,
  'awaits-second': t`is signed by one of two`,
  superseded: t`is superseded by its amendment`,
  void: t`is void`,
  damaged: t`is damaged`,
}
