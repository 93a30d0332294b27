import { t } from '@lingui/core/macro'
import { Trans } from '@lingui/react/macro'
import { useMutation, useQueryClient } from '@tanstack/react-query'
import { useState } from 'react'
import { useNavigate } from 'react-router'
import { api, unwrap } from '../../api/client'
import { Button } from '../../ui/Button'
import { Modal } from '../../ui/Modal'
import { Notice } from '../../ui/Notice'

/** Why a signed record is amended; a copy of its coupon is opened to be corrected. */
export function AmendDialog({ recordId, number, onClose }: { recordId: number; number: string; onClose: () => void }) {
  const navigate = useNavigate()
  const queries = useQueryClient()
  const [reason, setReason] = useState('')
  const begin = useMutation({
    mutationFn: () =>
      unwrap(
        api.POST('/api/records/{record_id}/amend', { params: { path: { record_id: recordId } }, body: { reason } }),
      ),
    onSuccess: async (made) => {
      await queries.invalidateQueries()
      onClose()
      void navigate(`/coupons/${String(made.id)}/tests`)
    },
  })
  return (
    <Modal title={t`Amend ${number}`} open onClose={onClose}>
      <form
        className="grid gap-3"
        onSubmit={(event) => {
          event.preventDefault()
          begin.mutate()
        }}
      >
        <p className="text-steel">
          <Trans>
            The signed record stays as it is. Its log and tests are copied, corrected in the copy, and signed anew; from
            that signature on the amended record counts in its place.
          </Trans>
        </p>
        <label className="block">
          <span className="label">
            <Trans>What is wrong</Trans>
          </span>
          <textarea
            className="field"
            rows={3}
            maxLength={4000}
            value={reason}
            onChange={(event) => setReason(event.target.value)}
          />
        </label>
        {begin.isError && (
          <Notice mark="breach" className="text-[13px]">
            {begin.error.message}
          </Notice>
        )}
        <div className="flex justify-end gap-2">
          <Button onClick={onClose}>
            <Trans>Not now</Trans>
          </Button>
          <Button look="main" type="submit" disabled={begin.isPending || reason.trim() === ''}>
            <Trans>Begin the amendment</Trans>
          </Button>
        </div>
      </form>
    </Modal>
  )
}
