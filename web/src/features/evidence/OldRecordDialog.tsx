import { t } from '@lingui/core/macro'
import { Trans } from '@lingui/react/macro'
import { useMutation } from '@tanstack/react-query'
import { useState } from 'react'
import { useNavigate } from 'react-router'

import { Refusal, api, unwrap } from '../../api/client'
import { Button } from '../../ui/Button'
import { Choice } from '../../ui/Choice'
import { Labelled } from '../../ui/Labelled'
import { Modal } from '../../ui/Modal'
import { TextField } from '../../ui/TextField'

const EDITIONS = [
  ['iso-15614-1:2004', t`ISO 15614-1:2004`],
  ['aws-d1.1:2015', t`AWS D1.1:2015`],
  ['aws-d1.1:2010', t`AWS D1.1:2010`],
] as const

/** An old record: the revision is written as its certificate prints it, and no run log is kept. */
export function OldRecordDialog({
  revisionId,
  open,
  onClose,
}: {
  revisionId: number
  open: boolean
  onClose: () => void
}) {
  const navigate = useNavigate()
  const [certificate, setCertificate] = useState<string | null>(null)
  const [testedTo, setTestedTo] = useState<string | null>(null)
  const enter = useMutation({
    mutationFn: () =>
      unwrap(
        api.POST('/api/revisions/{revision_id}/old-record', {
          params: { path: { revision_id: revisionId } },
          body: { certificate: certificate ?? '', tested_to: testedTo ?? '' },
        }),
      ),
    onSuccess: (made) => void navigate(`/coupons/${String(made.id)}/tests`),
  })
  const at =
    enter.error instanceof Refusal
      ? enter.error.body.errors.find((one) => one.path.endsWith('certificate'))?.message
      : undefined
  return (
    <Modal title={t`Enter an existing PQR or WPQR`} open={open} onClose={onClose}>
      <form
        className="grid gap-3"
        onSubmit={(event) => {
          event.preventDefault()
          enter.mutate()
        }}
      >
        <p className="text-steel">
          <Trans>
            The values of this revision are taken as the certificate prints them, and it is frozen. The tests are
            entered next; what the certificate only calls acceptable may be taken so. Ranges are marked as coming from a
            certificate.
          </Trans>
        </p>
        <Labelled words={t`certificate`}>
          <TextField
            label={t`Certificate`}
            placeholder={t`number and date`}
            value={certificate}
            onChange={setCertificate}
            error={at}
          />
        </Labelled>
        <Labelled words={t`tested to`}>
          <Choice
            label={t`Tested to`}
            value={testedTo}
            none={t`the code of this procedure`}
            options={EDITIONS}
            onChange={setTestedTo}
          />
        </Labelled>
        {enter.isError && !at && (
          <p role="alert" className="text-[13px] text-breach">
            {enter.error.message}
          </p>
        )}
        <div className="flex justify-end gap-2">
          <Button onClick={onClose}>
            <Trans>Not now</Trans>
          </Button>
          <Button look="main" type="submit" disabled={enter.isPending || !certificate?.trim()}>
            <Trans>Enter it</Trans>
          </Button>
        </div>
      </form>
    </Modal>
  )
}
