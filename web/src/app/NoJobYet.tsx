import { Trans } from '@lingui/react/macro'
import { useState } from 'react'
import { useLocation } from 'react-router'

import { AddJob } from '../features/jobs'
import { useJob } from '../session/job'
import { useSession } from '../session/session'
import { Button } from '../ui/Button'

const OF_A_JOB = ['/joints', '/procedures', '/coupons', '/production', '/crew/joints']

/** Pages of a job where there is none: what belongs there, and who makes the first. */
export function NoJobYet() {
  const { jobs } = useJob()
  const { may } = useSession()
  const { pathname } = useLocation()
  const [adding, setAdding] = useState(false)
  if (jobs?.length !== 0 || !OF_A_JOB.some((one) => pathname === one || pathname.startsWith(`${one}/`))) return null
  return (
    <section className="panel mx-5 mt-4 flex flex-wrap items-center gap-4 p-4" role="status">
      <p className="text-steel">
        {may('CREATE_JOB') ? (
          <Trans>This page belongs to a job, and there is none yet.</Trans>
        ) : (
          <Trans>There is no job yet. An engineer or an administrator adds the first one.</Trans>
        )}
      </p>
      {may('CREATE_JOB') && (
        <Button look="main" onClick={() => setAdding(true)}>
          <Trans>Add the first job</Trans>
        </Button>
      )}
      {adding && <AddJob onClose={() => setAdding(false)} />}
    </section>
  )
}
