import { plural, t } from '@lingui/core/macro'
import { Trans } from '@lingui/react/macro'
import { useMutation, useQueryClient } from '@tanstack/react-query'
import { useState } from 'react'

import { dayAndTime } from '../domain/dayAndTime'
import { canInstall, install, uninstall } from '../session/install'
import { useJob } from '../session/job'
import { isKeeping, keep, keptFor, persistent } from '../session/kept'
import { useSession } from '../session/session'
import { lastTaken, takeAlong, type Taken } from '../session/takeAlong'
import { useUnits } from '../session/units'
import { Button } from '../ui/Button'
import { Modal } from '../ui/Modal'
import { Notice } from '../ui/Notice'

/** Work on this device without a network: turned on and off, and what of the job is taken along. */
export function WithoutNetwork({ onClose }: { onClose: () => void }) {
  const { person } = useSession()
  const { job } = useJob()
  const { system } = useUnits()
  const queries = useQueryClient()
  const [on, setOn] = useState(isKeeping)
  const [safe, setSafe] = useState(true)
  const [taken, setTaken] = useState(lastTaken)
  const [step, setStep] = useState<{ done: number; of: number } | null>(null)
  const turn = useMutation({
    mutationFn: async (next: boolean) => {
      await keep(next, queries)
      if (next) {
        await keptFor(person.id)
        setSafe(await persistent())
        await install()
      } else await uninstall()
      return next
    },
    onSuccess: (next) => setOn(next),
  })
  const take = useMutation({
    mutationFn: (one: { id: number; number: string }) =>
      takeAlong(queries, one, system, (done, of) => setStep({ done, of })),
    onSuccess: setTaken,
    onSettled: () => setStep(null),
  })
  return (
    <Modal title={t`Work without a network`} open onClose={onClose}>
      <div className="grid gap-3 text-[14px]">
        <p>
          <Trans>
            For a tablet where the radio is bad. What was read stays on this device for a week and says how old it is:
            run logs, joints to weld, sheets that were taken along, the fault finder. Passes and welds that you save
            meanwhile are kept and sent under your name once the server answers. Whether a WPS covers a joint and who is
            qualified is asked of the server only.
          </Trans>
        </p>
        <p className="text-steel">
          <Trans>
            Turn it on only where the device has a lock of its own. What was read is forgotten when you sign out.
          </Trans>
        </p>
        {!canInstall() && (
          <Notice mark="unknown">
            <Trans>
              This address is not encrypted (https): the browser does not open the program from it without a network.
              Ask your administrator for the https address.
            </Trans>
          </Notice>
        )}
        {on && !safe && (
          <Notice mark="unknown">
            <Trans>
              The browser may drop what is kept when the device runs out of room. Installing the program helps.
            </Trans>
          </Notice>
        )}
        {turn.isError && <Notice mark="breach">{turn.error.message}</Notice>}
        {take.isError && <Notice mark="breach">{take.error.message}</Notice>}
        {on && taken && <TakenLine taken={taken} />}
        <p role="status" className="text-steel2">
          {step && t`Reading ${step.done} of ${step.of} …`}
        </p>
        <div className="flex flex-wrap justify-end gap-2">
          <Button disabled={turn.isPending || take.isPending} onClick={() => turn.mutate(!on)}>
            {on ? t`Turn it off on this device` : t`Turn it on on this device`}
          </Button>
          {on && job && (
            <Button look="main" disabled={take.isPending} onClick={() => take.mutate(job)}>
              <Trans>Take job {job.number} along</Trans>
            </Button>
          )}
          <Button onClick={onClose}>
            <Trans>Close</Trans>
          </Button>
        </div>
      </div>
    </Modal>
  )
}

function TakenLine({ taken }: { taken: Taken }) {
  const what = [
    plural(taken.coupons, { one: '# coupon being welded', other: '# coupons being welded' }),
    plural(taken.sheets, { one: '# sheet', other: '# sheets' }),
    plural(taken.joints, { one: '# joint', other: '# joints' }),
  ].join(', ')
  return (
    <Notice mark={taken.missed > 0 ? 'caution' : 'holds'}>
      <Trans>
        {taken.job} was taken along at {dayAndTime(taken.at)}: {what}.
      </Trans>{' '}
      {taken.missed > 0 &&
        plural(taken.missed, { one: '# part could not be read.', other: '# parts could not be read.' })}
    </Notice>
  )
}
