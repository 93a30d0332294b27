import { t } from '@lingui/core/macro'
import { Trans } from '@lingui/react/macro'
import { useMutation, useQueryClient } from '@tanstack/react-query'
import { useState } from 'react'

import { api, unwrap } from '../../api/client'
import { errorsOf } from '../../api/errors'
import type { CrewMember } from '../../api/types'
import { Button } from '../../ui/Button'
import { Labelled } from '../../ui/Labelled'
import { Modal } from '../../ui/Modal'
import { Notice } from '../../ui/Notice'
import { TextField } from '../../ui/TextField'

type Props = { member?: CrewMember; onClose: () => void; onDone?: (id: number) => void }

/** Add somebody, or change what the list says of a person. */
export function MemberDialog({ member, onClose, onDone }: Props) {
  const queries = useQueryClient()
  const [form, setForm] = useState({
    name: member?.name ?? '',
    mark: member?.mark ?? '',
    employer: member?.employer ?? '',
    leftOn: member?.left_on ?? '',
  })
  const set = (changed: Partial<typeof form>) => setForm((now) => ({ ...now, ...changed }))
  const save = useMutation({
    mutationFn: () => {
      const body = { name: form.name, mark: form.mark, employer: form.employer, left_on: form.leftOn || null }
      return member
        ? unwrap(
            api.PUT('/api/crew/{member_id}', {
              params: { path: { member_id: member.id } },
              body: { ...body, version: member.version },
            }),
          )
        : unwrap(api.POST('/api/crew', { body }))
    },
    onSuccess: async (made) => {
      await queries.invalidateQueries({ queryKey: ['crew'] })
      onClose()
      onDone?.(made.id)
    },
  })
  const error = errorsOf(save.error)
  return (
    <Modal title={member ? t`Change ${member.name}` : t`Add a welder`} open onClose={onClose}>
      <form
        className="grid gap-3"
        onSubmit={(event) => {
          event.preventDefault()
          save.mutate()
        }}
      >
        <Labelled words={t`Name, as the logs have it`}>
          <TextField
            label={t`Name, as the logs have it`}
            path="name"
            value={form.name}
            error={error('name')}
            disabled={(member?.certificates.length ?? 0) > 0}
            onChange={(name) => set({ name: name ?? '' })}
          />
        </Labelled>
        <Labelled words={t`Mark on the welds`}>
          <TextField
            label={t`Mark on the welds`}
            value={form.mark}
            error={error('mark')}
            onChange={(mark) => set({ mark: mark ?? '' })}
          />
        </Labelled>
        <Labelled words={t`Employer`}>
          <TextField
            label={t`Employer`}
            value={form.employer}
            error={error('employer')}
            onChange={(employer) => set({ employer: employer ?? '' })}
          />
        </Labelled>
        {member && (
          <label>
            <span className="label">{t`Left on`}</span>
            <input
              type="date"
              className="field"
              value={form.leftOn}
              onChange={(event) => set({ leftOn: event.target.value })}
            />
          </label>
        )}
        {save.isError && <Notice mark="breach">{save.error.message}</Notice>}
        <p className="text-[12.5px] text-steel2">
          <Trans>Nothing else is kept of a person than this, the certificates, and the welds of the logs.</Trans>
        </p>
        <div className="flex justify-end gap-2">
          <Button onClick={onClose}>
            <Trans>Not now</Trans>
          </Button>
          <Button type="submit" look="main" disabled={save.isPending || form.name.trim() === ''}>
            {member ? t`Save` : t`Add`}
          </Button>
        </div>
      </form>
    </Modal>
  )
}
