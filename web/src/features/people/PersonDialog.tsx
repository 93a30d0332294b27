import { t } from '@lingui/core/macro'
import { Trans } from '@lingui/react/macro'
import { useMutation, useQueryClient } from '@tanstack/react-query'
import { useState } from 'react'

import { api, unwrap } from '../../api/client'
import type { Account, Invitation } from '../../api/types'
import { errorsOf } from '../../api/errors'
import { useSession } from '../../session/session'
import { Button } from '../../ui/Button'
import { Choice } from '../../ui/Choice'
import { Labelled } from '../../ui/Labelled'
import { Modal } from '../../ui/Modal'
import { Notice } from '../../ui/Notice'
import { PasswordField } from '../../ui/PasswordField'
import { TextField } from '../../ui/TextField'
import { JobsSeen } from './JobsSeen'
import { ROLES } from './roles'

type Props = { account?: Account | undefined; onClose: () => void; onInvited: (made: Invitation) => void }

/** Invite somebody, or change name, role or access; whoever does it enters the password again. */
export function PersonDialog({ account, onClose, onInvited }: Props) {
  const queries = useQueryClient()
  const { person } = useSession()
  const [form, setForm] = useState({
    username: '',
    name: account?.name ?? '',
    role: account?.role ?? ('engineer' as Account['role']),
    active: account?.active ?? true,
    only_jobs: account?.only_jobs ?? null,
    password: '',
  })
  const set = (changed: Partial<typeof form>) => setForm((now) => ({ ...now, ...changed }))
  const save = useMutation({
    mutationFn: async () => {
      const { username, active, ...said } = form
      if (!account) {
        onInvited(await unwrap(api.POST('/api/people', { body: { ...said, username } })))
        return
      }
      const body = { ...said, active, seen: account.seen }
      await unwrap(api.PUT('/api/people/{person_id}', { params: { path: { person_id: account.id } }, body }))
    },
    onSuccess: async () => {
      await queries.invalidateQueries({ queryKey: ['people'] })
      onClose()
    },
    // Whoever was beaten to it looks again before the next try.
    onError: () => queries.invalidateQueries({ queryKey: ['people'] }),
  })
  const error = errorsOf(save.error)
  const own = account?.id === person.id
  return (
    <Modal title={account ? t`Change ${account.name}` : t`Invite a person`} open onClose={onClose}>
      <form
        className="grid gap-3"
        onSubmit={(event) => {
          event.preventDefault()
          save.mutate()
        }}
      >
        <Labelled words={t`Full name, as signatures show it`}>
          <TextField
            label={t`Full name, as signatures show it`}
            path="name"
            value={form.name}
            error={error('name')}
            onChange={(name) => set({ name: name ?? '' })}
          />
        </Labelled>
        {!account && (
          <Labelled words={t`Name to sign in with`}>
            <TextField
              label={t`Name to sign in with`}
              path="username"
              value={form.username}
              error={error('username')}
              onChange={(username) => set({ username: username ?? '' })}
            />
          </Labelled>
        )}
        <Labelled words={t`Role`}>
          <Choice
            label={t`Role`}
            value={form.role}
            options={ROLES}
            disabled={own}
            onChange={(role: Account['role'] | null) =>
              role && set({ role, ...(role === 'administrator' && { only_jobs: null }) })
            }
          />
          {error('role') && (
            <span role="alert" className="text-[12px] text-breach">
              {error('role')}
            </span>
          )}
        </Labelled>
        {form.role !== 'administrator' && (
          <JobsSeen value={form.only_jobs} error={error('only_jobs')} onChange={(only_jobs) => set({ only_jobs })} />
        )}
        {account && !own && (
          <label className="flex items-center gap-2">
            <input type="checkbox" checked={form.active} onChange={() => set({ active: !form.active })} />
            <Trans>May sign in</Trans>
          </label>
        )}
        {own && (
          <p className="text-[13px] text-steel2">
            <Trans>Another administrator changes your own role or access.</Trans>
          </p>
        )}
        <PasswordField value={form.password} error={error('password')} onChange={(password) => set({ password })} />
        {save.isError && (
          <Notice mark="breach" className="text-[13px]">
            {save.error.message}
          </Notice>
        )}
        <div className="flex justify-end gap-2">
          <Button onClick={onClose}>
            <Trans>Not now</Trans>
          </Button>
          <Button
            type="submit"
            look="main"
            disabled={save.isPending || form.password === '' || form.name.trim() === ''}
          >
            {account ? t`Save` : t`Make the invitation`}
          </Button>
        </div>
      </form>
    </Modal>
  )
}
