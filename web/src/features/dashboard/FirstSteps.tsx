import { Trans } from '@lingui/react/macro'
import { useState } from 'react'
import { Link } from 'react-router'

import { useSession } from '../../session/session'
import { Button } from '../../ui/Button'
import { AddJob } from '../jobs'

/** Where there is no job yet: what comes first, and for whom. */
export function FirstSteps() {
  const { may } = useSession()
  const [adding, setAdding] = useState(false)
  if (!may('CREATE_JOB'))
    return (
      <p className="panel p-6 text-steel">
        <Trans>There is no job yet. An engineer or an administrator adds the first one.</Trans>
      </p>
    )
  return (
    <section className="panel max-w-2xl p-6" aria-labelledby="first-steps">
      <h2 id="first-steps" className="mb-3 text-[19px]">
        <Trans>Nothing is here yet</Trans>
      </h2>
      <ol className="grid gap-4 text-[15px]">
        {may('KEEP_PEOPLE') && (
          <li>
            <Link className="link font-semibold" to="/people">
              <Trans>Invite the people</Trans>
            </Link>
            <p className="text-[14px] text-steel">
              <Trans>
                Engineers who draft and release, inspectors who log and test, welders, and examiners from outside.
              </Trans>
            </p>
          </li>
        )}
        <li>
          <Button look="main" onClick={() => setAdding(true)}>
            <Trans>Add the first job</Trans>
          </Button>
          <p className="mt-1 text-[14px] text-steel">
            <Trans>Procedures, coupons, the weld list and the production log belong to a job.</Trans>
          </p>
        </li>
        <li>
          <Link className="link font-semibold" to="/crew">
            <Trans>Enter the welders and their certificates</Trans>
          </Link>
          <p className="text-[14px] text-steel">
            <Trans>Then it is known who may weld what, and what runs out.</Trans>
          </p>
        </li>
      </ol>
      {adding && <AddJob onClose={() => setAdding(false)} />}
    </section>
  )
}
