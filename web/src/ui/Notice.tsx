import type { ReactNode } from 'react'

import { MarkIcon, type Mark } from './Verdict'

/** A message in the page: what happened, what was kept, what to do. */
export function Notice({
  mark = 'caution',
  children,
  className = '',
}: {
  mark?: Mark
  children: ReactNode
  className?: string
}) {
  const border = mark === 'breach' ? 'border-breach' : mark === 'holds' ? 'border-holds' : 'border-caution'
  return (
    <div role="status" className={`flex items-start gap-2 rounded-sm border bg-panel px-3 py-2 ${border} ${className}`}>
      <span className="mt-1">
        <MarkIcon mark={mark} />
      </span>
      <div className="min-w-0 flex-1">{children}</div>
    </div>
  )
}
