import { useEffect } from 'react'
import { useNavigate } from 'react-router'

import type { Coupon } from '../../api/types'
import { isTyping } from '../../session/keys'

/** The logged pass of the highest number with a flag or a breach; where there is none, the last logged one. */
export function flaggedLast(coupon: Coupon): number | null {
  const breached = new Set(
    coupon.log.passes
      .filter((one) => one.findings.some((finding) => finding.verdict === 'violates'))
      .map((one) => one.pass_number),
  )
  const rows = [...coupon.rows].sort((a, b) => a.record.number - b.record.number)
  const flagged = rows.filter((row) => row.record.flags.length > 0 || breached.has(row.record.number))
  return (flagged.at(-1) ?? rows.at(-1))?.id ?? null
}

/** F on the coupon: from the pass that was flagged last to its causes. */
export function useCauseKey(coupon: Coupon): void {
  const navigate = useNavigate()
  const pass = flaggedLast(coupon)
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      if (event.key !== 'f' || event.ctrlKey || event.metaKey || event.altKey || event.repeat || isTyping(event)) return
      if (pass !== null) void navigate(`/faults?pass=${pass}`)
    }
    window.addEventListener('keydown', onKey)
    return () => window.removeEventListener('keydown', onKey)
  }, [navigate, pass])
}
