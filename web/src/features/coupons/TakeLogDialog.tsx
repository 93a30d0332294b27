import { t } from '@lingui/core/macro'
import { Trans } from '@lingui/react/macro'
import { useMutation, useQueryClient } from '@tanstack/react-query'
import { useState } from 'react'

import { Refusal } from '../../api/client'
import { sendBytes } from '../../api/files'
import { Button } from '../../ui/Button'
import { Modal } from '../../ui/Modal'

/** A hand-written log, copied into the template, taken whole or refused whole. */
export function TakeLogDialog({ couponId, open, onClose }: { couponId: number; open: boolean; onClose: () => void }) {
  const queries = useQueryClient()
  const [file, setFile] = useState<File | null>(null)
  const take = useMutation({
    mutationFn: (chosen: File) => sendBytes(`/api/coupons/${String(couponId)}/table`, chosen),
    onSuccess: async () => {
      await queries.invalidateQueries({ queryKey: ['coupon', couponId] })
      onClose()
    },
  })
  const refusal = take.error instanceof Refusal ? take.error : null
  return (
    <Modal title={t`Take a log from CSV or XLSX`} open={open} onClose={onClose}>
      <form
        className="grid gap-3"
        onSubmit={(event) => {
          event.preventDefault()
          if (file) take.mutate(file)
        }}
      >
        <p className="text-steel">
          <Trans>
            The first row names the columns as the template does. A cell may say its own unit, such as 10 ipm. All rows
            are taken, or none, with every mistake named by its line.
          </Trans>
        </p>
        <input
          type="file"
          aria-label={t`Log file`}
          accept=".csv,.xlsx,text/csv"
          onChange={(event) => {
            setFile(event.target.files?.[0] ?? null)
            take.reset()
          }}
        />
        {take.isError && (
          <div role="alert" className="max-h-60 overflow-auto text-[13px] text-breach">
            {refusal && refusal.body.errors.length > 0 ? (
              <ul>
                {refusal.body.errors.map((one, at) => (
                  <li key={at}>
                    {one.path && <b>{one.path}: </b>}
                    {one.message}
                    {one.value ? ` (${one.value})` : ''}
                  </li>
                ))}
              </ul>
            ) : (
              take.error.message
            )}
          </div>
        )}
        <div className="flex justify-end gap-2">
          <Button onClick={onClose}>
            <Trans>Not now</Trans>
          </Button>
          <Button look="main" type="submit" disabled={!file || take.isPending}>
            {take.isPending ? t`Reading …` : t`Take it`}
          </Button>
        </div>
      </form>
    </Modal>
  )
}
