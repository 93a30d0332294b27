import { t } from '@lingui/core/macro'
import { useCallback, useEffect, useRef, useState } from 'react'

import { Refusal, api, unwrap } from '../api/client'
import type { BalanceDial, DialCalibration, System } from '../api/types'

export type ReadAs = 'value' | 'range' | 'gas' | 'cup' | 'background' | 'balance'
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
  /** What the answer depends on besides the text: the peak of a pulse, the dial of a machine. */
  peakA?: number | undefined
  dial?: BalanceDial | undefined
  /** The wire feed dial of the machine, for "dial 4.5". */
  feedDial?: DialCalibration | undefined
  onRead: (result: ReadResult) => void
  onEmpty: () => void
  /** What can be read while there is no answer; without it the text waits for one. */
  readAway?: ((text: string) => ReadResult | null) | undefined
}

const PAUSE_MS = 120
const AGAIN_MS = 2000

/**
 * The text of a field while it is typed, and what the core read in it. What was typed stays until
 * it was understood; a refusal says why and changes nothing; while there is no answer it is asked
 * again.
 */
export function useReading({ kind, as, system, metal, peakA, dial, feedDial, onRead, onEmpty, readAway }: Options) {
  const [text, setText] = useState<string | null>(null)
  const [error, setError] = useState<string | null>(null)
  const [understood, setUnderstood] = useState<string | null>(null)
  /** Whether what was typed has no answer yet: whoever saves waits for it. */
  const [pending, setPending] = useState(false)
  const [unanswered, setUnanswered] = useState<{ typed: string } | null>(null)
  const timer = useRef<number | undefined>(undefined)
  const latest = useRef(0)
  /** Whether the field was left: then the stored value shows again once the text is understood. */
  const left = useRef(false)
  const handlers = useRef({ onRead, onEmpty, readAway })
  const about = JSON.stringify({ peak_a: peakA ?? null, dial: dial ?? null, feed_dial: feedDial ?? null })

  const read = useCallback(
    async (typed: string): Promise<void> => {
      window.clearTimeout(timer.current)
      const mine = ++latest.current
      // Those of now: by the time the answer comes the field may stand for another pass.
      const { onRead: take, onEmpty: clear } = handlers.current
      setPending(true)
      const settle = (said: string | null) => {
        setPending(false)
        setError(null)
        setUnderstood(left.current ? null : said)
        if (left.current) setText(null)
      }
      if (typed.trim() === '') {
        clear()
        settle(null)
        return
      }
      try {
        const result = await unwrap(
          api.POST('/api/read', {
            body: {
              text: typed,
              kind,
              as_: as,
              system,
              metal: metal ?? null,
              ...(JSON.parse(about) as {
                peak_a: number | null
                dial: BalanceDial | null
                feed_dial: DialCalibration | null
              }),
            },
          }),
        )
        if (mine !== latest.current) return
        take(result)
        settle(result.understood)
      } catch (problem) {
        if (mine !== latest.current) return
        const away = problem instanceof Refusal && problem.passing ? handlers.current.readAway?.(typed) : null
        if (away) {
          take(away)
          settle(away.understood)
          return
        }
        setPending(false)
        setUnderstood(null)
        setError(problem instanceof Refusal ? problem.message : t`Not understood.`)
        if (problem instanceof Refusal && problem.passing) setUnanswered({ typed })
      }
    },
    [kind, as, system, metal, about],
  )
  useEffect(() => {
    handlers.current = { onRead, onEmpty, readAway }
  })
  useEffect(() => {
    if (!unanswered) return
    timer.current = window.setTimeout(() => void read(unanswered.typed), AGAIN_MS)
    return () => window.clearTimeout(timer.current)
  }, [unanswered, read])

  // What was typed before the peak or the dial was known is read again once it is, whether it was
  // refused already or its answer is still on the way.
  const typed = useRef<string | null>(null)
  useEffect(() => {
    typed.current = text
  }, [text])
  const readAbout = useRef(about)
  useEffect(() => {
    if (readAbout.current === about) return
    readAbout.current = about
    if (typed.current !== null) void read(typed.current)
  }, [about, read])

  const type = useCallback(
    (typed: string) => {
      left.current = false
      setPending(true)
      setText(typed)
      window.clearTimeout(timer.current)
      timer.current = window.setTimeout(() => void read(typed), PAUSE_MS)
    },
    [read],
  )

  /** Leave the field: read what is there now; show the stored value again if it was understood. */
  const leave = useCallback(async () => {
    if (text === null) return
    left.current = true
    await read(text)
  }, [read, text])

  const revert = useCallback(() => {
    window.clearTimeout(timer.current)
    latest.current += 1
    setPending(false)
    setText(null)
    setError(null)
    setUnderstood(null)
  }, [])

  return { text, error, understood, pending, type, leave, revert }
}
