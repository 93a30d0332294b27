import { t } from '@lingui/core/macro'
import { Trans } from '@lingui/react/macro'
import { useQueryClient } from '@tanstack/react-query'
import { useState } from 'react'

import { dayAndTime } from '../../domain/dayAndTime'
import type { Outbox } from '../../domain/outbox'
import type { WaitingWeld } from '../../domain/waiting'
import { outboxOfWelds } from '../../session/sending'
import { useSession } from '../../session/session'

type Props = { jobId: number; welds: readonly WaitingWeld[]; left: readonly number[] }

/** Welds of a joint that are saved on this device and not at the server yet. */
export function WaitingWelds({ jobId, welds, left }: Props) {
  const { person } = useSession()
  const outbox = outboxOfWelds(jobId, useQueryClient())
  if (welds.length === 0) return null
  return (
    <section aria-label={t`On the way`} role="status" className="panel border-caution! px-3 py-2">
      <ul className="grid gap-1 text-[14px]">
        {welds.map((one) => (
          <li key={one.clientId}>
            <b>
              {one.entry.mark} / {one.entry.item}
            </b>{' '}
            {one.entry.welders.join(', ')} · {one.entry.welded_on}{' '}
            {one.refused ? (
              <Refused weld={one} outbox={outbox} left={left} />
            ) : one.by && one.by.id !== person.id ? (
              <Trans>
                saved here by {one.by.name}; it is sent when {one.by.name} signs in on this device
              </Trans>
            ) : (
              <Trans>saved on this device at {dayAndTime(one.savedAt)}, not logged yet</Trans>
            )}
          </li>
        ))}
      </ul>
    </section>
  )
}

/** What the server refused: sent again as another weld of the joint, or once its reason is gone, or thrown away. */
function Refused({
  weld,
  outbox,
  left: [next],
}: {
  weld: WaitingWeld
  outbox: Outbox<WaitingWeld>
  left: readonly number[]
}) {
  const [asking, setAsking] = useState(false)
  return (
    <span className="text-breach">
      {weld.refused?.message}{' '}
      {weld.refused?.conflict && next !== undefined && !weld.entry.repair_of && (
        <button
          type="button"
          className="link p-1"
          onClick={() => outbox.mend(weld.clientId, (one) => ({ ...one, entry: { ...one.entry, item: next } }))}
        >
          <Trans>Log it as weld {next}</Trans>
        </button>
      )}{' '}
      <button type="button" className="link p-1" onClick={() => outbox.mend(weld.clientId, (one) => one)}>
        <Trans>Send it again</Trans>
      </button>{' '}
      <button
        type="button"
        className="link p-1"
        onClick={() => (asking ? outbox.remove(weld.clientId) : setAsking(true))}
      >
        {asking ? t`Yes, throw it away: it was not logged` : t`Throw it away`}
      </button>
    </span>
  )
}
