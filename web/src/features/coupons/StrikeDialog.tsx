import { t } from '@lingui/core/macro'
import { Trans } from '@lingui/react/macro'
import { useMutation, useQueryClient } from '@tanstack/react-query'
import { useState } from 'react'

import { api, unwrap } from '../../api/client'
import type { Coupon } from '../../api/types'
import { Button } from '../../ui/Button'
import { Modal } from '../../ui/Modal'
import { TextField } from '../../ui/TextField'

/** Strike a pass with a reason; it stays in the trail. */
export function StrikeDialog({
  coupon,
  row,
  open,
  onClose,
}: {
  coupon: Coupon
  row: Coupon['rows'][number]
  open: boolean
  onClose: () => void
}) {
  const queries = useQueryClient()
  const [reason, setReason] = useState<string | null>(null)
  const strike = useMutation({
    mutationFn: () =>
      unwrap(
        api.POST('/api/passes/{pass_id}/strike', {
          params: { path: { pass_id: row.id } },
          body: { version: row.version, reason: reason ?? '' },
        }),
      ),
    onSuccess: async () => {
      setReason(null)
      onClose()
      await queries.invalidateQueries({ queryKey: ['coupon', coupon.id] })
    },
  })
  return (
    <Modal title={t`Void pass ${row.record.number}`} open={open} onClose={onClose}>
      <form
        className="grid gap-3"
        onSubmit={(event) => {
          event.preventDefault()
          strike.mutate()
        }}
      >
        <p className="text-steel">
          <Trans>It stays in the trail, with your reason, and no longer counts.</Trans>
        </p>
        <TextField
          label={t`Reason`}
          placeholder={t`Why`}
          value={reason}
          onChange={setReason}
          error={strike.isError ? strike.error.message : undefined}
        />
        <div className="flex justify-end gap-2">
          <Button onClick={onClose}>
            <Trans>Keep it</Trans>
          </Button>
          <Button look="main" type="submit" disabled={strike.isPending}>
            <Trans>Void it</Trans>
          </Button>
        </div>
      </form>
    </Modal>
  )
}
