import { t } from '@lingui/core/macro'
import { Trans } from '@lingui/react/macro'
import { useMutation, useQueryClient } from '@tanstack/react-query'
import { useState } from 'react'
import { useNavigate } from 'react-router'
import { Refusal, api, unwrap } from '../../api/client'
import type { Revision } from '../../api/types'
import { Button } from '../../ui/Button'
import { Modal } from '../../ui/Modal'
import { TextField } from '../../ui/TextField'

export function StartDialog({ revision, open, onClose }: { revision: Revision; open: boolean; onClose: () => void }) {
  const navigate = useNavigate()
  const queries = useQueryClient()
  const [welder, setWelder] = useState<string | null>(null)
  const start = useMutation({
    mutationFn: () =>
      unwrap(
        api.POST('/api/revisions/{revision_id}/coupons', {
          params: { path: { revision_id: revision.id } },
          body: { welder: welder ?? '' },
        }),
      ),
    onSuccess: (made) => {
      void queries.invalidateQueries()
      void navigate(`/coupons/${String(made.id)}`)
    },
  })
  return (
    <Modal title={t`Weld a coupon from revision ${revision.letter}`} open={open} onClose={onClose}>
      <form
        onSubmit={(event) => {
          event.preventDefault()
          start.mutate()
        }}
        className="grid gap-3"
      >
        {!revision.frozen && (
          <p className="text-steel">
            <Trans>
              The coupon takes a copy of this revision, and the revision is frozen from then on. Changes go into the
              next one.
            </Trans>
          </p>
        )}
        <div>
          <span className="label">
            <Trans>Welder</Trans>
          </span>
          <TextField label={t`Welder`} value={welder} onChange={setWelder} />
        </div>
        {start.isError && (
          <p role="alert" className="text-[13px] text-breach">
            {start.error instanceof Refusal ? start.error.message : t`It did not start.`}
          </p>
        )}
        <div className="flex justify-end gap-2">
          <Button onClick={onClose}>
            <Trans>Not now</Trans>
          </Button>
          <Button look="main" type="submit" disabled={start.isPending}>
            <Trans>Start the coupon</Trans>
          </Button>
        </div>
      </form>
    </Modal>
  )
}
