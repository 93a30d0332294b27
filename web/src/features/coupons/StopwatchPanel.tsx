import { t } from '@lingui/core/macro'
import { Trans } from '@lingui/react/macro'
import { useEffect, useState } from 'react'

import { isTyping } from '../../session/keys'
import { clockText } from '../../domain/quantity'
import { STOPPED, toggle, total, type Stopwatch } from '../../domain/stopwatch'
import { temper } from '../../domain/temper'
import { fixed } from '../../session/language'
import { useAwake } from '../../ui/useAwake'

type Props = {
  watch: Stopwatch
  onWatch: (watch: Stopwatch) => void
  title: string
  number: number
  heat: number | null
  disabled: boolean
}

/** The stopwatch: one big button, several stretches add up. */
export function StopwatchPanel({ watch, onWatch, title, number, heat, disabled }: Props) {
  const [now, setNow] = useState(() => Date.now())
  const running = watch.startedAt !== null
  useAwake(running)
  useEffect(() => {
    if (!running) return
    const timer = window.setInterval(() => setNow(Date.now()), 100)
    return () => window.clearInterval(timer)
  }, [running])
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      if (
        event.key !== 't' ||
        event.ctrlKey ||
        event.metaKey ||
        event.altKey ||
        event.repeat ||
        isTyping(event) ||
        disabled
      )
        return
      setNow(Date.now())
      onWatch(toggle(watch, Date.now()))
    }
    window.addEventListener('keydown', onKey)
    return () => window.removeEventListener('keydown', onKey)
  }, [watch, onWatch, disabled])
  const stretches = watch.stretches.length
  return (
    <section
      aria-label={t`Stopwatch`}
      className="panel flex items-center justify-between gap-4 px-4 py-3 max-sm:flex-col max-sm:items-stretch"
    >
      <div className="min-w-0">
        <p className="flex items-center gap-2 font-head text-[20px] font-semibold">
          <span className="rounded-full px-3 py-0.5 text-white" style={{ background: temper(heat) }}>
            {number}
          </span>
          <span className="truncate">{title}</span>
        </p>
        <p role="timer" className="font-head text-[56px] leading-none font-semibold tabular-nums">
          {clockText(total(watch, running ? Math.max(now, watch.startedAt ?? 0) : 0))}
        </p>
        <p className="h-5 text-[14px] text-steel2">
          {stretches > 1 && t`${stretches} stretches, ${watch.stretches.map((one) => fixed(one, 1)).join(' + ')} s `}
          {!running && stretches > 0 && (
            <button type="button" className="link" onClick={() => onWatch(STOPPED)} disabled={disabled}>
              <Trans>Set to zero</Trans>
            </button>
          )}
        </p>
      </div>
      <button
        type="button"
        className="h-24 w-52 shrink-0 rounded-sm max-sm:w-full bg-straw font-head text-[28px] font-semibold text-[#1B2126] disabled:opacity-50"
        disabled={disabled}
        onClick={() => {
          setNow(Date.now())
          onWatch(toggle(watch, Date.now()))
        }}
      >
        {running ? t`Stop arc` : stretches > 0 ? t`Arc again` : t`Start arc`}
        <span className="block font-sans text-[13px] font-normal max-sm:hidden">
          <Trans>key t</Trans>
        </span>
      </button>
    </section>
  )
}
