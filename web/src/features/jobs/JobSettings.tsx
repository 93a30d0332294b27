import { t } from '@lingui/core/macro'
import { Trans } from '@lingui/react/macro'
import { useMutation, useQueryClient } from '@tanstack/react-query'
import { useState } from 'react'

import { api, unwrap } from '../../api/client'
import { errorsOf } from '../../api/errors'
import type { Job } from '../../api/types'
import { Button } from '../../ui/Button'
import { Modal } from '../../ui/Modal'
import { TextField } from '../../ui/TextField'
import { TwoSignatures } from './TwoSignatures'

/** Who coordinates the welding of a job, and how many sign. */
export function JobSettings({ job, onClose }: { job: Job; onClose: () => void }) {
  const queries = useQueryClient()
  const [twoSignatures, setTwoSignatures] = useState(job.two_signatures)
  const [seen] = useState(job.coordinator)
  const [coordinator, setCoordinator] = useState<string | null>(seen)
  const save = useMutation({
    mutationFn: () =>
      unwrap(
        api.PATCH('/api/jobs/{job_id}', {
          params: { path: { job_id: job.id } },
          // Only what was changed here: the rest may have been changed by somebody else meanwhile.
          body: {
            two_signatures: twoSignatures === job.two_signatures ? null : twoSignatures,
            coordinator: (coordinator ?? '') === seen ? null : (coordinator ?? ''),
            seen,
          },
        }),
      ),
    onSuccess: async () => {
      await queries.invalidateQueries()
      onClose()
    },
  })
  const problem = errorsOf(save.error)
  return (
    <Modal title={t`Coordinator and signatures of ${job.number}`} open onClose={onClose}>
      <form
        className="grid gap-3"
        onSubmit={(event) => {
          event.preventDefault()
          save.mutate()
        }}
      >
        <div>
          <span className="label">{t`Responsible welding coordinator`}</span>
          <TextField
            label={t`Responsible welding coordinator`}
            value={coordinator}
            onChange={setCoordinator}
            error={problem('coordinator')}
          />
        </div>
        <TwoSignatures value={twoSignatures} onChange={setTwoSignatures} />
        {save.isError && !problem('coordinator') && (
          <p role="alert" className="text-[13px] text-breach">
            {save.error.message}
          </p>
        )}
        <div className="flex justify-end gap-2">
          <Button onClick={onClose}>
            <Trans>Not now</Trans>
          </Button>
          <Button look="main" type="submit" disabled={save.isPending}>
            <Trans>Save</Trans>
          </Button>
        </div>
      </form>
    </Modal>
  )
}
