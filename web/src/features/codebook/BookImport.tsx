import { t } from '@lingui/core/macro'
import { Trans } from '@lingui/react/macro'
import { useMutation, useQueryClient } from '@tanstack/react-query'

import { Refusal, api, unwrap } from '../../api/client'
import { Button } from '../../ui/Button'
import { Modal } from '../../ui/Modal'
import { Notice } from '../../ui/Notice'

/** Take a file of corrections in, whole or not at all. */
export function BookImport({ open, onClose }: { open: boolean; onClose: () => void }) {
  const queries = useQueryClient()
  const take = useMutation({
    mutationFn: async (file: File) => {
      const document: unknown = JSON.parse(await file.text())
      return unwrap(api.POST('/api/book/import', { body: { document: document as never } }))
    },
    onSuccess: () => queries.invalidateQueries(),
  })
  const close = () => {
    take.reset()
    onClose()
  }
  const errors = take.error instanceof Refusal ? take.error.body.errors : []
  return (
    <Modal title={t`Import corrections`} open={open} onClose={close}>
      <p className="mb-3 text-steel">
        <Trans>
          A file of confirmations and corrections, as this book exports it. It is taken whole, or nothing of it.
        </Trans>
      </p>
      <input
        type="file"
        accept="application/json,.json"
        aria-label={t`File of corrections`}
        onChange={(event) => {
          const file = event.target.files?.[0]
          if (file) take.mutate(file)
        }}
      />
      {take.isError && (
        <Notice mark="breach" className="mt-3 text-[13px]">
          <Trans>Nothing was taken.</Trans>{' '}
          {take.error instanceof SyntaxError ? t`The file is no JSON.` : take.error.message}
          {errors.length > 0 && (
            <ul className="mt-1 list-disc pl-4">
              {errors.slice(0, 6).map((one) => (
                <li key={one.path + one.message}>
                  {one.path}: {one.message}
                </li>
              ))}
            </ul>
          )}
        </Notice>
      )}
      {take.data && (
        <Notice mark="holds" className="mt-3 text-[13px]">
          {take.data.made === 0 ? t`Everything stood so already.` : t`${take.data.made} numbers were taken in.`}
        </Notice>
      )}
      <div className="mt-4 flex justify-end">
        <Button onClick={close}>
          <Trans>Close</Trans>
        </Button>
      </div>
    </Modal>
  )
}
