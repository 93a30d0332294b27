import { t } from '@lingui/core/macro'
import { Trans } from '@lingui/react/macro'
import { useMutation, useQueryClient } from '@tanstack/react-query'
import { useEffect, useMemo, useState } from 'react'

import { api, unwrap } from '../../api/client'
import type { Live as LiveData, Recording, Trace } from '../../api/types'
import { useUnits } from '../../session/units'
import { Button } from '../../ui/Button'
import { TraceChart } from './TraceChart'
import { fixed, locale } from '../../session/language'

const EVERY_MS = 700
const KEPT_CHUNKS = 90
type Glance = {
  start_s: number[]
  channels: Record<string, { low: (number | null)[]; high: (number | null)[] }>
  arc: { voltage_v: number; current_a: number } | null
}

/** A recorder that streams: the last minute and a half, and how the arc stands. */
export function Live({ recording, disabled }: { recording: Recording; disabled: boolean }) {
  const units = useUnits()
  const queries = useQueryClient()
  const [glances, setGlances] = useState<Glance[]>([])
  const [state, setState] = useState<LiveData | null>(null)
  const [error, setError] = useState('')
  useEffect(() => {
    let next = 0
    let timer: number
    let gone = false
    const ask = async () => {
      try {
        const got = await unwrap(
          api.GET('/api/recordings/{recording_id}/live', {
            params: { path: { recording_id: recording.id }, query: { after: next } },
          }),
        )
        if (gone) return
        next = got.next
        setError('')
        setState(got)
        if (got.chunks.length > 0) setGlances((old) => [...old, ...(got.chunks as Glance[])].slice(-KEPT_CHUNKS))
        if (got.status !== 'streaming') {
          void queries.invalidateQueries({ queryKey: ['recording', recording.id] })
          return
        }
      } catch (problem) {
        if (!gone) setError(problem instanceof Error ? problem.message : t`no answer`)
      }
      if (!gone) timer = window.setTimeout(() => void ask(), EVERY_MS)
    }
    void ask()
    return () => {
      gone = true
      window.clearTimeout(timer)
    }
  }, [recording.id, queries])
  const end = useMutation({
    mutationFn: () =>
      unwrap(api.POST('/api/recordings/{recording_id}/end', { params: { path: { recording_id: recording.id } } })),
    onSettled: () => queries.invalidateQueries({ queryKey: ['recording', recording.id] }),
  })
  const trace = useMemo<Trace>(() => {
    const channels: Trace['channels'] = {}
    for (const name of Object.keys(glances[0]?.channels ?? {}))
      channels[name] = {
        low: glances.flatMap((one) => one.channels[name]?.low ?? []),
        high: glances.flatMap((one) => one.channels[name]?.high ?? []),
      }
    return { start_s: glances.flatMap((one) => one.start_s), samples_a_bucket: 1, channels }
  }, [glances])
  const arc = glances.at(-1)?.arc ?? null
  return (
    <section aria-label={t`Live`} className="panel p-3">
      <div className="mb-2 grid grid-cols-5 items-end max-md:grid-cols-2 gap-3 font-head" role="status">
        <Big words={t`Arc`} value={arc ? 'burning' : 'off'} unit="" />
        <Big words={t`Voltage`} value={arc ? units.value(arc.voltage_v, 'voltage') : '—'} unit="V" />
        <Big words={t`Current`} value={arc ? units.value(arc.current_a, 'current') : '—'} unit="A" />
        <Big words={t`Arc time`} value={fixed(state?.arc_s ?? 0, 1)} unit="s" />
        <Big words={t`Energy so far`} value={fixed((state?.energy_j ?? 0) / 1000, 1)} unit={t`kJ`} />
      </div>
      {trace.start_s.length > 0 ? (
        <TraceChart trace={trace} parts={[]} onZoom={() => undefined} />
      ) : (
        <p className="text-steel2">
          <Trans>Nothing has come yet.</Trans>
        </p>
      )}
      <div className="mt-2 flex items-center gap-3 text-[13px] text-steel2">
        <span>
          <Trans>
            {(state?.samples ?? 0).toLocaleString(locale())} samples arrived. The record is reckoned from the whole when
            the stream ends.
          </Trans>
        </span>
        {error && (
          <span role="alert" className="text-breach">
            <Trans>{error} Trying again …</Trans>
          </span>
        )}
        {!disabled && (
          <Button className="ml-auto" disabled={end.isPending} onClick={() => end.mutate()}>
            <Trans>End it here</Trans>
          </Button>
        )}
      </div>
      {end.isError && (
        <p role="alert" className="text-breach">
          {end.error.message}
        </p>
      )}
    </section>
  )
}

function Big({ words, value, unit }: { words: string; value: string; unit: string }) {
  return (
    <p>
      <span className="label block">{words}</span>
      <span className="text-[26px] font-semibold">{value}</span>{' '}
      <span className="font-sans text-[13px] text-steel2">{unit}</span>
    </p>
  )
}
