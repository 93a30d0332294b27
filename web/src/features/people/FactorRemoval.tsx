import { t } from '@lingui/core/macro'
import { Trans } from '@lingui/react/macro'
import { useMutation, useQueryClient } from '@tanstack/react-query'
import { useState } from 'react'

import { api, unwrap } from '../../api/client'
import { errorsOf } from '../../api/errors'
import type { Account } from '../../api/types'
import { Button } from '../../ui/Button'
import { Modal } from '../../ui/Modal'
import { Notice } from '../../ui/Notice'
import { PasswordField } from '../../ui/PasswordField'

/** Remove the second factor of somebody whose device is lost. */
export function FactorRemoval({ account, onClose }: { account: Account; onClose: () => void }) {
  const queries = useQueryClient()
  const [password, setPassword] = useState('')
  const remove = useMutation({
    mutationFn: () =>
      unwrap(
        api.POST('/api/people/{person_id}/factor-removal', {
          params: { path: { person_id: account.id } },
          body: { password },
        }),
      ),
    onSuccess: async () => {
      await queries.invalidateQueries({ queryKey: ['people'] })
      onClose()
    },
  })
  return (
    <Modal title={t`Remove the second factor of ${account.name}`} open onClose={onClose}>
      <form
        className="grid gap-3"
        onSubmit={(event) => {
          event.preventDefault()
          remove.mutate()
        }}
      >
        <p className="text-steel">
          <Trans>
            Make sure that it is {account.name} who asks: from now on the password alone lets in. {account.name} is
            signed out everywhere and sets up a new one.
          </Trans>
        </p>
        <PasswordField value={password} error={errorsOf(remove.error)('password')} onChange={setPassword} />
        {remove.isError && (
          <Notice mark="breach" className="text-[13px]">
            {remove.error.message}
          </Notice>
        )}
        <div className="flex justify-end gap-2">
          <Button onClick={onClose}>
            <Trans>Not now</Trans>
          </Button>
          <Button type="submit" look="main" disabled={remove.isPending || password === ''}>
            <Trans>Remove it</Trans>
          </Button>
        </div>
      </form>
    </Modal>
  )
}
