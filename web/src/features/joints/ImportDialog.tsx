import { t } from '@lingui/core/macro'
import { Trans } from '@lingui/react/macro'
import { useMutation, useQueryClient } from '@tanstack/react-query'
import { useEffect, useRef, useState } from 'react'

import { sendBytes } from '../../api/files'
import type { ListLook, WeldList } from '../../api/types'
import { weldListQuery } from '../../queries/joints'
import { Button } from '../../ui/Button'
import { Modal } from '../../ui/Modal'
import { Notice } from '../../ui/Notice'
import { Look } from './Look'

const SETTLED_MS = 350

export type How = { headings: Record<string, string>; answers: Record<string, string> }

/** A file is looked at before it is taken: its columns, what it asks, what it changes. */
export function ImportDialog({ jobId, onClose }: { jobId: number; onClose: () => void }) {
  const queries = useQueryClient()
  const [file, setFile] = useState<File | null>(null)
  const [how, setHow] = useState<How | null>(null)
  const [removeGone, setRemoveGone] = useState(false)
  // What was read last stays in sight while it is read again: whoever answers the next question goes on.
  const [seen, setSeen] = useState<ListLook | null>(null)
  const [settled, setSettled] = useState(true)
  const newest = useRef<{ chosen: File; as: string }>(undefined)
  const address = `/api/jobs/${String(jobId)}/weld-list`
  const look = useMutation({
    mutationFn: ({ chosen, as }: { chosen: File; as: string }) =>
      sendBytes(`${address}/look?head=${String(bytesOf(as))}`, new Blob([as, chosen])) as Promise<ListLook>,
    onSuccess: (read, asked) => {
      // An answer to an earlier question, or of an earlier file, says nothing of this one.
      if (asked !== newest.current) return
      setSeen(read)
      setSettled(true)
      setHow((now) => now ?? { headings: read.mapping, answers: {} })
    },
  })
  const ask = (chosen: File, as: string) => {
    newest.current = { chosen, as }
    look.mutate(newest.current)
  }
  const written = (next: How, at: ListLook) =>
    JSON.stringify({
      first_row: at.first_row,
      headings: next.headings,
      units: unitsOf(next, at),
      answers: next.answers,
    })
  const take = useMutation({
    mutationFn: () => {
      if (!file || !how || !seen) throw new Error(t`Choose a file.`)
      const as = written(how, seen)
      const query = new URLSearchParams({
        head: String(bytesOf(as)),
        version: String(seen.version),
        remove_gone: String(removeGone),
      })
      return sendBytes(`${address}/take?${query.toString()}`, new Blob([as, file])) as Promise<WeldList>
    },
    onSuccess: async (next) => {
      queries.setQueryData(weldListQuery(jobId).queryKey, next)
      await queries.invalidateQueries({ queryKey: ['weld-list', jobId] })
      onClose()
    },
  })
  const waiting = useRef<ReturnType<typeof setTimeout>>(undefined)
  useEffect(() => () => clearTimeout(waiting.current), [])
  const again = (next: How) => {
    setHow(next)
    setSettled(false)
    clearTimeout(waiting.current)
    if (file && seen) waiting.current = setTimeout(() => ask(file, written(next, seen)), SETTLED_MS)
  }
  return (
    <Modal title={t`Import a weld list`} open onClose={onClose} wide>
      <input
        type="file"
        aria-label={t`Weld list file`}
        accept=".csv,.tsv,.txt,.xlsx,text/csv"
        onChange={(event) => {
          const chosen = event.target.files?.[0] ?? null
          setFile(chosen)
          setHow(null)
          setSeen(null)
          clearTimeout(waiting.current)
          look.reset()
          take.reset()
          if (chosen) ask(chosen, '')
        }}
      />
      <p className="mt-1 text-[13px] text-steel2">
        <Trans>CSV or XLSX, up to 30,000 joints. Nothing is taken before you have seen how it is read.</Trans>
      </p>
      {look.isPending && !seen && (
        <p role="status" className="mt-3">
          <Trans>Reading …</Trans>
        </p>
      )}
      {look.isError && (
        <Notice mark="breach" className="mt-3">
          {look.error.message}
        </Notice>
      )}
      {seen && how && <Look seen={seen} how={how} onHow={again} removeGone={removeGone} onRemoveGone={setRemoveGone} />}
      {take.isError && (
        <Notice mark="breach" className="mt-3">
          {take.error.message}
        </Notice>
      )}
      <div className="sticky bottom-0 -mx-5 mt-4 -mb-5 flex justify-end gap-2 rounded-b-sm border-t border-line bg-panel px-5 py-3">
        <Button onClick={onClose}>
          <Trans>Not now</Trans>
        </Button>
        <Button
          look="main"
          disabled={!seen || !settled || look.isPending || look.isError || take.isPending}
          onClick={() => take.mutate()}
        >
          {take.isPending ? t`Reading …` : t`Take the list`}
        </Button>
      </div>
    </Modal>
  )
}

const bytesOf = (text: string) => new TextEncoder().encode(text).length

/** Units that headings name go with their columns. */
function unitsOf(how: How, seen: ListLook): Record<string, string> {
  return Object.fromEntries(Object.entries(seen.units).filter(([column]) => column in how.headings))
}
