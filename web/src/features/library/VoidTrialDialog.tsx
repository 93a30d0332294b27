import { t } from '@lingui/core/macro'
import { Trans } from '@lingui/react/macro'
import { useMutation, useQueryClient } from '@tanstack/react-query'
import { useState } from 'react'
import { api, unwrap } from '../../api/client'
import type { TrialRow } from '../../api/types'
import { Button } from '../../ui/Button'
import { Labelled } from '../../ui/Labelled'
import { Modal } from '../../ui/Modal'
import { TextField } from '../../ui/TextField'

export function VoidTrialDialog({ row, onClose }: { row: TrialRow; onClose: () => void }) {
  const queries = useQueryClient()
  const [reason, setReason] = useState<string | null>(null)
  const strike = useMutation({
    mutationFn: () =>
      unwrap(
        api.POST('/api/trials/{entry_id}/strike', {
          params: { path: { entry_id: row.id } },
          body: { reason: reason ?? '' },
        }),
      ),
    onSuccess: () => {
      void queries.invalidateQueries({ queryKey: ['trials'] })
      void queries.invalidateQueries({ queryKey: ['propose'] })
      onClose()
    },
  })
  return (
    <Modal title={t`Void a trial`} open onClose={onClose}>
      <form
        className="grid gap-3"
        onSubmit={(event) => {
          event.preventDefault()
          strike.mutate()
        }}
      >
        <p className="text-steel">
          <Trans>It stays on record with the reason, and counts no more.</Trans>
        </p>
        <Labelled words={t`Why`}>
          <TextField
            label={t`Why`}
            value={reason}
            onChange={setReason}
            error={strike.isError ? strike.error.message : undefined}
          />
        </Labelled>
        <div className="flex justify-end gap-2">
          <Button onClick={onClose}>
            <Trans>Not now</Trans>
          </Button>
          <Button look="main" type="submit" disabled={strike.isPending}>
            <Trans>Void it</Trans>
          </Button>
        </div>
      </form>
    </Modal>
  )
}
