import { t } from '@lingui/core/macro'

import type { JointType } from '../../api/types'
import type { Mark } from '../../ui/Verdict'

export const VERDICT_MARK: Record<JointType['verdict'], Mark> = { covered: 'holds', open: 'unknown', blocked: 'breach' }
export const VERDICT_WORDS: Record<JointType['verdict'], string> = {
  covered: t`covered`,
  open: t`undecided`,
  blocked: t`not covered`,
}
