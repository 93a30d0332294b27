import { useCallback, useEffect, useRef, useState } from 'react'

import { Refusal, api, unwrap } from '../api/client'
import type { System } from '../api/types'

export type ReadAs = 'value' | 'range' | 'gas'
export type ReadResult = {
  value?: number | null
  min?: number | null
  max?: number | null
  components_percent?: Record<string, number> | null
  outside_diameter_mm?: number | null
  wall_mm?: number | null
  understood: string
}

type Options = {
  kind: string
  as: ReadAs
  system: System
  metal?: string
  onRead: (result: ReadResult) => void
  onEmpty: () => void
}

const PAUSE_MS = 120

/**
 * The text of a field while it is typed, and what the core read in it. What was typed stays until
 * it was understood; a refusal says why and changes nothing.
 */
export function useReading({ kind, as, system, metal, onRead, onEmpty }: Options) {
  const [text, setText] = useState<string | null>(null)
  const [error, setError] = useState<string | null>(null)
  const [understood, setUnderstood] = useState<string | null>(null)
  const timer = useRef<number | undefined>(undefined)
  const latest = useRef(0)
  const handlers = useRef({ onRead, onEmpty })
  useEffect(() => {
    handlers.current = { onRead, onEmpty }
  })

  const read = useCallback(
    async (typed: string): Promise<boolean> => {
      window.clearTimeout(timer.current)
      const mine = ++latest.current
      if (typed.trim() === '') {
        setError(null)
        setUnderstood(null)
        handlers.current.onEmpty()
        return true
      }
      try {
        const result = await unwrap(
          api.POST('/api/read', { body: { text: typed, kind, as_: as, system, metal: metal ?? null } }),
        )
        if (mine !== latest.current) return false
        setError(null)
        setUnderstood(result.understood)
        handlers.current.onRead(result)
        return true
      } catch (problem) {
        if (mine !== latest.current) return false
        setUnderstood(null)
        setError(problem instanceof Refusal ? problem.message : 'Not understood.')
        return false
      }
    },
    [kind, as, system, metal],
  )

  const type = useCallback(
    (typed: string) => {
      setText(typed)
      window.clearTimeout(timer.current)
      timer.current = window.setTimeout(() => void read(typed), PAUSE_MS)
    },
    [read],
  )

  /** Leave the field: read what is there now; show the stored value again if it was understood. */
  const leave = useCallback(async () => {
    if (text === null) return
    if (await read(text)) {
      setText(null)
      setUnderstood(null)
    }
  }, [read, text])

  const revert = useCallback(() => {
    window.clearTimeout(timer.current)
    latest.current += 1
    setText(null)
    setError(null)
    setUnderstood(null)
  }, [])

  return { text, error, understood, type, leave, revert }
}
