import { t } from '@lingui/core/macro'
import { Trans } from '@lingui/react/macro'
import { useEffect, useState } from 'react'

import type { Coupon } from '../../api/types'
import { useUnits } from '../../session/units'
import { clockText } from '../../domain/quantity'
import { MarkIcon } from '../../ui/Verdict'

/** Seconds until the estimate says that the next pass may follow; less than zero once it may. */
export function secondsLeft(waitS: number, since: string, serverNow: number): number {
  return waitS - (serverNow - new Date(since).getTime()) / 1000
}

/** The server's clock counts; this device's only tells how long ago it was asked. */
function nowAtServer(coupon: Coupon, now: number, fetchedAt: number): number {
  return new Date(coupon.server_time).getTime() + Math.max(0, now - fetchedAt)
}

type Props = {
  coupon: Coupon
  fetchedAt: number
  readC: number | null
  /** A pass that was welded since, and is not at the server yet. */
  unsent: number | null
}

/** The wait after the last pass: an estimate that counts down, confirmed by a reading. */
export function Countdown({ coupon, fetchedAt, readC, unsent }: Props) {
  const units = useUnits()
  const [now, setNow] = useState(() => Date.now())
  useEffect(() => {
    const timer = window.setInterval(() => setNow(Date.now()), 1000)
    return () => window.clearInterval(timer)
  }, [])
  const { cooling, cooling_since: since } = coupon
  const waits = cooling && since && coupon.status === 'welding' && coupon.log.to_weld.length > 0 && unsent === null
  const left = waits ? secondsLeft(cooling.wait_s, since, nowAtServer(coupon, now, fetchedAt)) : 0
  useEffect(() => {
    // Felt through a glove: the pass may follow once the reading says so. Not for a wait that was over before.
    if (left > 0 && 'vibrate' in navigator) {
      const timer = window.setTimeout(() => navigator.vibrate([200, 100, 200]), left * 1000)
      return () => window.clearTimeout(timer)
    }
    // Set once for each wait: the clock that is shown beside it ticks on.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [waits, since, fetchedAt])
  if (unsent !== null)
    return (
      <section aria-label={t`Interpass`} className="panel px-4 py-2 text-[15px]">
        <Trans>
          The cooling after pass {unsent} is estimated once the pass is at the server. <b>Read it before the arc.</b>
        </Trans>
      </section>
    )
  if (!waits) return null
  const limit = `${units.value(cooling.to_c, 'temperature')} ${units.unit('temperature')}`
  const confirmed = readC !== null && readC <= cooling.to_c
  const tooHot = readC !== null && readC > cooling.to_c
  return (
    <section
      aria-label={t`Interpass`}
      className={`panel flex items-center justify-between gap-4 px-4 py-2 ${tooHot ? 'border-breach!' : ''}`}
    >
      <p className="text-[15px]">
        {confirmed ? (
          <>
            <MarkIcon mark="holds" /> <Trans>The reading confirms it: at or below {limit}.</Trans>
          </>
        ) : tooHot ? (
          <>
            <MarkIcon mark="breach" /> <Trans>The reading is above {limit}: let it cool and read again.</Trans>
          </>
        ) : left > 0 ? (
          <>
            <Trans>
              Cooling after pass {cooling.after_pass} to {limit}.{' '}
            </Trans>
            <span className="text-steel2">
              <Trans>
                Estimate from {units.value(cooling.plate_c, 'temperature')} {units.unit('temperature')}
              </Trans>
              {cooling.piece_c != null &&
                t`; the whole piece warms to about ${units.value(cooling.piece_c, 'temperature')} ${units.unit('temperature')}`}
              <Trans>; the reading decides.</Trans>
            </span>
          </>
        ) : (
          <>
            <Trans>
              Should be at {limit} or below by now. <b>Read it before the arc.</b>
            </Trans>
          </>
        )}
      </p>
      {!confirmed && left > 0 && (
        <p
          role="timer"
          aria-label={t`Estimated wait`}
          className="font-head text-[32px] leading-none font-semibold tabular-nums"
        >
          {clockText(Math.ceil(left)).split('.')[0]}
        </p>
      )}
    </section>
  )
}
