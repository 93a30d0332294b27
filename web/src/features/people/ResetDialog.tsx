import { t } from '@lingui/core/macro'
import { Trans } from '@lingui/react/macro'
import { useMutation, useQueryClient } from '@tanstack/react-query'
import { useState } from 'react'

import { api, unwrap } from '../../api/client'
import { errorsOf } from '../../api/errors'
import type { Account, Invitation } from '../../api/types'
import { Button } from '../../ui/Button'
import { Modal } from '../../ui/Modal'
import { Notice } from '../../ui/Notice'
import { PasswordField } from '../../ui/PasswordField'

type Props = { account: Account; onClose: () => void; onReset: (made: Invitation) => void }

/** Take a password away: the person is signed out everywhere, and sets a new one by the link. */
export function ResetDialog({ account, onClose, onReset }: Props) {
  const queries = useQueryClient()
  const [password, setPassword] = useState('')
  const reset = useMutation({
    mutationFn: () =>
      unwrap(
        api.POST('/api/people/{person_id}/reset', {
          params: { path: { person_id: account.id } },
          body: { password },
        }),
      ),
    onSuccess: async (made) => {
      await queries.invalidateQueries({ queryKey: ['people'] })
      onReset(made)
      onClose()
    },
  })
  return (
    <Modal title={t`New password link for ${account.name}`} open onClose={onClose}>
      <form
        className="grid gap-3"
        onSubmit={(event) => {
          event.preventDefault()
          reset.mutate()
        }}
      >
        <p className="text-steel">
          {account.invited ? (
            <Trans>The link that was given before ends. {account.name} sets a password by the new one.</Trans>
          ) : (
            <Trans>
              {account.name} is signed out everywhere, the present password ends, and a new one is set by the link.
            </Trans>
          )}
        </p>
        <PasswordField value={password} error={errorsOf(reset.error)('password')} onChange={setPassword} />
        {reset.isError && (
          <Notice mark="breach" className="text-[13px]">
            {reset.error.message}
          </Notice>
        )}
        <div className="flex justify-end gap-2">
          <Button onClick={onClose}>
            <Trans>Not now</Trans>
          </Button>
          <Button type="submit" look="main" disabled={reset.isPending || password === ''}>
            <Trans>Make the link</Trans>
          </Button>
        </div>
      </form>
    </Modal>
  )
}
