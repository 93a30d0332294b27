import { t } from '@lingui/core/macro'
import { Trans } from '@lingui/react/macro'
import { useMutation, useQueryClient } from '@tanstack/react-query'
import { useState } from 'react'
import { useNavigate } from 'react-router'

import { api, unwrap } from '../../api/client'
import { errorsOf } from '../../api/errors'
import { useJob } from '../../session/job'
import { Button } from '../../ui/Button'
import { Modal } from '../../ui/Modal'
import { TextField } from '../../ui/TextField'
import { TwoSignatures } from './TwoSignatures'

/** Add a job, and open it. */
export function AddJob({ onClose }: { onClose: () => void }) {
  const { choose } = useJob()
  const navigate = useNavigate()
  const queries = useQueryClient()
  const [number, setNumber] = useState<string | null>(null)
  const [title, setTitle] = useState<string | null>(null)
  const [customer, setCustomer] = useState<string | null>(null)
  const [coordinator, setCoordinator] = useState<string | null>(null)
  const [twoSignatures, setTwoSignatures] = useState(false)
  const add = useMutation({
    mutationFn: () =>
      unwrap(
        api.POST('/api/jobs', {
          body: {
            number: number ?? '',
            title: title ?? '',
            customer: customer ?? '',
            coordinator: coordinator ?? '',
            two_signatures: twoSignatures,
          },
        }),
      ),
    onSuccess: async (made) => {
      await queries.invalidateQueries({ queryKey: ['jobs'] })
      choose(made.id)
      onClose()
      void navigate('/')
    },
  })
  const error = errorsOf(add.error)
  const placed = ['number', 'title', 'customer', 'coordinator'].some((path) => error(path))
  const fields = [
    ['number', t`Number`, number, setNumber, 'FB-28'],
    ['title', t`Title`, title, setTitle, t`Weir gate`],
    ['customer', t`Customer`, customer, setCustomer, ''],
    ['coordinator', t`Responsible welding coordinator`, coordinator, setCoordinator, ''],
  ] as const
  return (
    <Modal title={t`Add a job`} open onClose={onClose}>
      <form
        className="grid gap-3"
        onSubmit={(event) => {
          event.preventDefault()
          add.mutate()
        }}
      >
        {fields.map(([path, words, value, set, example]) => (
          <div key={path}>
            <span className="label">{words}</span>
            <TextField label={words} value={value} onChange={set} placeholder={example} error={error(path)} />
          </div>
        ))}
        <TwoSignatures value={twoSignatures} onChange={setTwoSignatures} />
        {add.isError && !placed && (
          <p role="alert" className="text-[13px] text-breach">
            {add.error.message}
          </p>
        )}
        <div className="flex justify-end gap-2">
          <Button onClick={onClose}>
            <Trans>Not now</Trans>
          </Button>
          <Button look="main" type="submit" disabled={add.isPending}>
            <Trans>Add it</Trans>
          </Button>
        </div>
      </form>
    </Modal>
  )
}
