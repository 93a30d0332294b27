import { t } from '@lingui/core/macro'
import { useEffect, useState, useSyncExternalStore } from 'react'

import { Refusal, api, unwrap } from '../../api/client'
import type { Procedure, Revision } from '../../api/types'
import { DraftKeeper, type SaveResult, type Theirs } from '../../domain/draftKeeper'

async function send(id: number, version: number, document: Procedure): Promise<SaveResult> {
  try {
    return await put(id, version, document)
  } catch {
    return { kind: 'no-answer', message: t`The server does not answer.`, errors: [] }
  }
}

async function put(id: number, version: number, document: Procedure): Promise<SaveResult> {
  try {
    const done = await unwrap(
      api.PUT('/api/revisions/{revision_id}', { params: { path: { revision_id: id } }, body: { version, document } }),
    )
    return { kind: 'saved', version: done.version, savedAt: done.saved_at }
  } catch (error) {
    const refusal = error instanceof Refusal ? error : null
    const message = refusal?.message ?? t`Saving failed.`
    const errors = refusal?.body.errors ?? []
    if (refusal?.status === 409 && refusal.body.current)
      return { kind: 'conflict', theirs: await standing(id), message }
    if (refusal?.status === 401) return { kind: 'signed-out', message, errors }
    return { kind: refusal && !refusal.passing ? 'refused' : 'no-answer', message, errors }
  }
}

/** The revision as it stands at the server, whole, to be merged with. */
async function standing(id: number): Promise<Theirs> {
  const now = await unwrap(api.GET('/api/revisions/{revision_id}', { params: { path: { revision_id: id } } }))
  return { version: now.version, document: now.document, saved_by: now.saved_by, saved_at: now.saved_at }
}

/** A draft that saves itself. */
export function useDraft(revision: Revision) {
  const [keeper] = useState(
    () =>
      new DraftKeeper(
        {
          id: revision.id,
          version: revision.version,
          document: revision.document,
          savedBy: revision.saved_by,
          savedAt: revision.saved_at,
          frozen: revision.frozen,
        },
        (version, document) => send(revision.id, version, document),
        localStorage,
      ),
  )
  const draft = useSyncExternalStore(keeper.subscribe, keeper.snapshot)
  useEffect(() => {
    const again = () => void keeper.save()
    window.addEventListener('signed-in', again)
    return () => window.removeEventListener('signed-in', again)
  }, [keeper])
  return { ...draft, change: keeper.change, settle: keeper.settle, saveNow: keeper.save }
}
