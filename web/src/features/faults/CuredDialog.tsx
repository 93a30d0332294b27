import { t } from '@lingui/core/macro'
import { Trans } from '@lingui/react/macro'
import { useMutation, useQueryClient } from '@tanstack/react-query'
import { useState } from 'react'

import { api, unwrap } from '../../api/client'
import type { FaultCause } from '../../api/types'
import { Button } from '../../ui/Button'
import { Labelled } from '../../ui/Labelled'
import { Modal } from '../../ui/Modal'
import { TextField } from '../../ui/TextField'

type Props = {
  cause: FaultCause
  remedy: number
  passId: number | null
  revisionId: number | null
  onClose: () => void
}

/** Keep what cured it: next time this cause ranks higher in this shop. */
export function CuredDialog({ cause, remedy, passId, revisionId, onClose }: Props) {
  const queries = useQueryClient()
  const [note, setNote] = useState<string | null>(null)
  const keep = useMutation({
    mutationFn: () =>
      unwrap(
        api.POST('/api/faults/cures', {
          body: { cause: cause.row, remedy, note: note ?? '', pass_id: passId, revision_id: revisionId },
        }),
      ),
    onSuccess: async () => {
      onClose()
      await queries.invalidateQueries({ queryKey: ['causes'] })
      await queries.invalidateQueries({ queryKey: ['cures'] })
    },
  })
  return (
    <Modal title={t`What cured it`} open onClose={onClose}>
      <form
        className="grid gap-3"
        onSubmit={(event) => {
          event.preventDefault()
          keep.mutate()
        }}
      >
        <p>
          <b>{cause.cause}</b>: {cause.remedies[remedy]?.words}
        </p>
        <p className="text-[13px] text-steel2">
          <Trans>It is kept under your name. Next time this cause ranks higher in this shop.</Trans>
        </p>
        <Labelled words={t`Note (optional)`}>
          <TextField
            label={t`Note (optional)`}
            value={note}
            onChange={setNote}
            rows={2}
            error={keep.isError ? keep.error.message : undefined}
          />
        </Labelled>
        <div className="flex justify-end gap-2">
          <Button onClick={onClose}>
            <Trans>Cancel</Trans>
          </Button>
          <Button type="submit" look="main" disabled={keep.isPending}>
            <Trans>Keep it</Trans>
          </Button>
        </div>
      </form>
    </Modal>
  )
}
