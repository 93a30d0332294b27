import { useEffect, useState } from 'react'

import type { Tried } from '../../domain/tried'
import { isTouched, newEntry, type Entry } from './model'

export type Filled = 'filled' | 'kept' | null

/** What becomes of a tried setting: nothing that was typed for the trial weld is written over. */
export function filledBy(tried: Tried | null, entry: Entry): Filled {
  if (!tried) return null
  if (!isTouched(entry)) return 'filled'
  const same = entry.current?.min === tried.current?.min && entry.voltage?.min === tried.voltage?.min
  return same ? null : 'kept'
}

/** Fill a trial weld, once, with the setting that was tried. */
export function useFilled(tried: Tried | null, entry: Entry, put: (step: (before: Entry) => Entry) => void): Filled {
  const [filled] = useState(() => filledBy(tried, entry))
  const [asked] = useState(tried)
  useEffect(() => {
    if (filled === 'filled' && asked) put(() => ({ ...newEntry(asked.number), ...asked }))
  }, [filled, asked, put])
  return filled
}
