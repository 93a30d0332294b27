import { t } from '@lingui/core/macro'

import type { Account } from '../../api/types'

/** What each role is for, as whoever invites chooses it. */
export const ROLES: readonly (readonly [Account['role'], string])[] = [
  ['engineer', t`engineer: drafts, qualifies and releases`],
  ['inspector', t`inspector: sets up and logs coupons, enters tests, witnesses`],
  ['welder', t`welder: logs passes and welds`],
  ['viewer', t`viewer: looks and prints`],
  ['examiner', t`examiner: witnesses, and signs certificates of welders`],
  ['administrator', t`administrator: everything, and people`],
]
