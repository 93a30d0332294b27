import { t } from '@lingui/core/macro'
import { createPortal } from 'react-dom'

import type { Procedure } from '../api/types'
import { codeWords } from '../domain/words'
import { useSession } from '../session/session'

export const CODE_PLACE = 'code-in-force'

/** Shows in the top strip which code governs the page. */
export function CodeInForce({ code }: { code: Procedure['code'] }) {
  const { codes } = useSession()
  const place = document.getElementById(CODE_PLACE)
  if (!place) return null
  const short = codes.find((one) => one.id === code?.id)?.short
  return createPortal(
    <span
      className="rounded-sm border border-line bg-panel px-2 py-1 text-[12.5px] whitespace-nowrap text-steel"
      title={t`Code in force`}
    >
      {code ? codeWords(code.id, code.level, short) : t`under no code`}
    </span>,
    place,
  )
}
