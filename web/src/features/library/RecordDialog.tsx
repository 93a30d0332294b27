import { t } from '@lingui/core/macro'
import { Trans } from '@lingui/react/macro'
import { useMutation, useQueryClient } from '@tanstack/react-query'
import { useRef, useState, type ReactNode } from 'react'

import { Refusal, api, unwrap } from '../../api/client'
import type { Machine, OwnMetal, Product, SettingsChart, LibraryRecord } from '../../api/types'
import { Button } from '../../ui/Button'
import { Modal } from '../../ui/Modal'
import { useSaveWhenRead } from '../../ui/commit'
import type { Put } from './FormParts'
import type { RecordKind } from '../../queries/library'
import { NotSaved } from '../../ui/NotSaved'

type Document = Machine | Product | OwnMetal | SettingsChart
type Errors = ReadonlyMap<string, string>
type Props<T extends Document> = {
  kind: RecordKind
  words: string
  record: LibraryRecord | null
  empty: T
  onClose: () => void
  form: (document: T, put: Put<T>, errors: Errors) => ReactNode
}

/** Add, correct or remove one record. What was typed stays until it is kept or dropped by a press. */
export function RecordDialog<T extends Document>({ kind, words, record, empty, onClose, form }: Props<T>) {
  const queries = useQueryClient()
  const [document, setDocument] = useState<T>(() => (record ? (record.document as T) : empty))
  const [version, setVersion] = useState(record?.version ?? 0)
  const [asking, setAsking] = useState(false)
  const [unread, setUnread] = useState(false)
  const frame = useRef<HTMLDivElement>(null)
  const done = () => {
    void queries.invalidateQueries({ queryKey: ['library'] })
    void queries.invalidateQueries({ queryKey: [kind === 'metal' ? 'metals' : 'fillers'] })
    onClose()
  }
  const save = useMutation({
    mutationFn: (as: number) =>
      record
        ? unwrap(
            api.PUT('/api/library/{record_id}', {
              params: { path: { record_id: record.id } },
              body: { version: as, document: document as never },
            }),
          )
        : unwrap(api.POST('/api/library', { body: { document: document as never } })),
    onSuccess: done,
  })
  const remove = useMutation({
    mutationFn: () =>
      unwrap(api.DELETE('/api/library/{record_id}', { params: { path: { record_id: record?.id ?? 0 } } })),
    onSuccess: done,
    onError: () => setAsking(false),
  })
  const refusal = save.error instanceof Refusal ? save.error : null
  const errors: Errors = new Map((refusal?.body.errors ?? []).map((one) => [one.path, one.message]))
  const theirs =
    refusal?.body.type === '/problems/stale'
      ? (refusal.body.current as { version: number; document: T } | null | undefined)
      : null
  const put: Put<T> = (changes) => {
    setUnread(false)
    if (save.isError && !theirs) save.reset()
    setDocument((before) => ({ ...before, ...(typeof changes === 'function' ? changes(before) : changes) }))
  }
  /** A field whose text was not understood keeps the record from being saved without it. */
  const trySave = useSaveWhenRead(frame, () => {
    const odd = frame.current?.querySelector<HTMLElement>('[aria-invalid="true"]')
    setUnread(Boolean(odd))
    if (odd) odd.focus()
    else save.mutate(version)
  })
  const placed = new Set(['name', 'designation', 'sheet_date'])
  return (
    <Modal title={record ? t`Correct ${record.name}` : t`Add a ${words}`} open onClose={onClose} wide>
      <div ref={frame}>{form(document, put, errors)}</div>
      <NotSaved
        unread={unread}
        refusal={
          refusal &&
          (!theirs && refusal.body.errors.length > 0
            ? refusal.body.errors
                .map((one) =>
                  placed.has(one.path) || one.path === ''
                    ? one.message
                    : `${one.path.replaceAll('.', ' › ').replaceAll('_', ' ')}: ${one.message}`,
                )
                .join('; ')
            : refusal.message)
        }
        conflict={
          theirs
            ? {
                takeTheirs: () => {
                  setDocument(theirs.document)
                  setVersion(theirs.version)
                  save.reset()
                },
                saveMine: () => {
                  setVersion(theirs.version)
                  save.mutate(theirs.version)
                },
              }
            : undefined
        }
        notRemoved={remove.error?.message}
      />
      <div className="mt-4 flex items-center justify-end gap-2">
        {record && !asking && (
          <Button look="quiet" className="mr-auto" onClick={() => setAsking(true)}>
            <Trans>Remove</Trans>
          </Button>
        )}
        {record && asking && (
          <span className="mr-auto flex items-center gap-2 text-[13px]">
            <Trans>Remove {record.name} for good?</Trans>
            <Button disabled={remove.isPending} onClick={() => remove.mutate()}>
              <Trans>Remove it</Trans>
            </Button>
            <Button onClick={() => setAsking(false)}>
              <Trans>Keep it</Trans>
            </Button>
          </span>
        )}
        <Button onClick={onClose}>
          <Trans>Not now</Trans>
        </Button>
        <Button look="main" disabled={save.isPending} onClick={trySave}>
          {record ? t`Save` : t`Add the ${words}`}
        </Button>
      </div>
    </Modal>
  )
}
