import { plural, t } from '@lingui/core/macro'
import { Trans } from '@lingui/react/macro'
import { useSyncExternalStore } from 'react'
import { Link } from 'react-router'

import { dayAndTime } from '../domain/dayAndTime'
import { useReadAt, useReached } from '../session/connection'
import { isRenewed, onRenewed } from '../session/install'
import { useUnderway, type Underway } from '../session/sending'
import { useSession } from '../session/session'

/** Said over every page: that the server is away and how old the page is, and what waits on this device. */
export function ConnectionStrip() {
  const reached = useReached()
  const readAt = useReadAt()
  const underway = useUnderway()
  const renewed = useSyncExternalStore(onRenewed, isRenewed)
  if (reached && underway.length === 0 && !renewed) return null
  return (
    <div role="status" className="flex flex-wrap gap-x-4 border-b border-line bg-note px-5 py-1.5 text-[13px]">
      {!reached && (
        <span>
          <b>
            <Trans>The server does not answer.</Trans>
          </b>{' '}
          {readAt !== null && t`This page is as it was read at ${dayAndTime(new Date(readAt).toISOString())}.`}
        </span>
      )}
      <Waiting underway={underway} />
      {renewed && (
        <span>
          <Trans>A newer version of the program has come.</Trans>{' '}
          <button type="button" className="link" onClick={() => window.location.reload()}>
            <Trans>Load the page again</Trans>
          </button>
        </span>
      )}
    </div>
  )
}

function Waiting({ underway }: { underway: Underway[] }) {
  const { person } = useSession()
  const own = underway.filter((one) => one.by?.id === person.id)
  const refused = own.filter((one) => one.refused)
  const others = underway.filter((one) => one.by?.id !== person.id)
  const names = [...new Set(others.map((one) => one.by?.name ?? t`somebody`))].join(', ')
  const waits = own.length - refused.length
  return (
    <>
      {waits > 0 && (
        <span>
          {plural(waits, {
            one: '# entry waits on this device and is sent by itself.',
            other: '# entries wait on this device and are sent by themselves.',
          })}
        </span>
      )}
      {refused[0] && (
        <Link className="link text-breach" to={refused[0].at}>
          {plural(refused.length, { one: '# entry was refused: look at it', other: '# entries were refused: look' })}
        </Link>
      )}
      {others[0] && (
        <span>
          {plural(others.length, {
            one: '# entry waits here until its person signs in on this device:',
            other: '# entries wait here until their person signs in on this device:',
          })}{' '}
          {names}
        </span>
      )}
    </>
  )
}
