import { t } from '@lingui/core/macro'
import { Trans } from '@lingui/react/macro'
import { useMutation, useQueryClient } from '@tanstack/react-query'
import { useRef } from 'react'

import { sendBytes } from '../../api/files'
import type { Coupon } from '../../api/types'
import { newId } from '../../domain/ids'
import { Button } from '../../ui/Button'
import { Modal } from '../../ui/Modal'

/** The photos of a pass. */
export function PhotosDialog({
  row,
  disabled,
  onClose,
}: {
  row: Coupon['rows'][number]
  disabled: boolean
  onClose: () => void
}) {
  const queries = useQueryClient()
  const input = useRef<HTMLInputElement>(null)
  const add = useMutation({
    mutationFn: (file: File) => sendBytes(`/api/passes/${String(row.id)}/photos?client_id=${newId()}`, file),
    onSettled: () => queries.invalidateQueries({ queryKey: ['coupon'] }),
  })
  return (
    <Modal title={t`Photos of pass ${row.record.number}`} open onClose={onClose} wide>
      <div className="grid max-h-[60vh] grid-cols-2 gap-2 overflow-auto">
        {row.photos.map((id, at) => (
          <a key={id} href={`/api/photos/${String(id)}`} target="_blank" rel="noreferrer">
            <img
              src={`/api/photos/${String(id)}`}
              alt={t`Photo ${at + 1} of pass ${row.record.number}`}
              className="w-full border border-line"
            />
          </a>
        ))}
      </div>
      {row.photos.length === 0 && (
        <p className="text-steel">
          <Trans>No photo yet.</Trans>
        </p>
      )}
      {add.isError && (
        <p role="alert" className="mt-2 text-breach">
          {add.error.message}
        </p>
      )}
      <div className="mt-4 flex justify-end gap-2">
        {!disabled && (
          <>
            <input
              ref={input}
              type="file"
              accept="image/jpeg,image/png,image/webp"
              capture="environment"
              className="hidden"
              aria-label={t`Photo`}
              onChange={(event) => {
                const file = event.target.files?.[0]
                if (file) add.mutate(file)
                event.target.value = ''
              }}
            />
            <Button look="main" disabled={add.isPending} onClick={() => input.current?.click()}>
              {add.isPending ? t`Sending …` : t`Add a photo`}
            </Button>
          </>
        )}
        <Button onClick={onClose}>
          <Trans>Close</Trans>
        </Button>
      </div>
    </Modal>
  )
}
