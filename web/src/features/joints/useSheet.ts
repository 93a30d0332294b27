import { useMutation, useQueryClient } from '@tanstack/react-query'
import { useEffect, useMemo, useState } from 'react'

import { api, Refusal, unwrap } from '../../api/client'
import type { WeldList } from '../../api/types'
import { weldListQuery } from '../../queries/joints'
import {
  changesOf,
  corners,
  EMPTY,
  fillDown,
  put,
  removeRows,
  rowsWith,
  undo,
  type Cells,
  type Change,
  type Place,
  type Row,
} from './sheet'

type Theirs = { rows: { id: number; version: number; cells: Cells }[]; gone: number[] }
export type SheetState = ReturnType<typeof useSheet>

const UNSAVED = 'unsaved-weld-list'

/** The rows that stand, what was typed over them, and how it is saved. */
export function useSheet(jobId: number, list: WeldList) {
  const queries = useQueryClient()
  // What is not saved waits while another page is looked at, until its writer signs out.
  const [sheet, setSheet] = useState(() => queries.getQueryData<typeof EMPTY>([UNSAVED, jobId]) ?? EMPTY)
  useEffect(() => {
    queries.setQueryDefaults([UNSAVED], { gcTime: Infinity })
    queries.setQueryData([UNSAVED, jobId], sheet)
  }, [queries, jobId, sheet])
  const [theirs, setTheirs] = useState<Theirs | null>(null)
  const columns = useMemo(() => list.columns.map((one) => one.name), [list.columns])
  const standing = useMemo<Row[]>(
    () => list.rows.map((row) => ({ key: String(row.id), id: row.id, version: row.version, cells: row.cells })),
    [list.rows],
  )
  const rows = useMemo(() => rowsWith(standing, sheet), [standing, sheet])
  const changes = useMemo(() => changesOf(standing, sheet), [standing, sheet])
  const key = weldListQuery(jobId).queryKey
  const send = useMutation({
    mutationFn: (sent: { changes: Change[]; edits: typeof sheet.edits }) =>
      unwrap(
        api.POST('/api/jobs/{job_id}/weld-list/rows', {
          params: { path: { job_id: jobId } },
          body: { code: list.code, changes: sent.changes },
        }),
      ),
    onSuccess: (next, sent) => {
      setTheirs(null)
      // What was typed while this was on its way stays.
      setSheet((now) => ({
        ...now,
        past: [],
        edits: new Map([...now.edits].filter(([name, cells]) => sent.edits.get(name) !== cells)),
      }))
      queries.setQueryData(key, next)
      void queries.invalidateQueries({ queryKey: ['weld-list', jobId, 'coverage'] })
    },
    onError: (error) => {
      const current = error instanceof Refusal ? error.body.current : null
      setTheirs(current && 'rows' in current ? (current as unknown as Theirs) : null)
    },
  })
  useEffect(() => {
    const warn = (event: BeforeUnloadEvent) => event.preventDefault()
    if (changes.length > 0) window.addEventListener('beforeunload', warn)
    return () => window.removeEventListener('beforeunload', warn)
  }, [changes.length])

  /** Save what was typed, with what stands in the cell that is written in just now. */
  const save = (typing?: { text: string; at: Place }) => {
    const next = typing ? put(sheet, rows, columns, [[typing.text]], typing.at) : sheet
    if (typing) setSheet(next)
    const wanted = changesOf(standing, next)
    if (wanted.length > 0 && !send.isPending) send.mutate({ changes: wanted, edits: next.edits })
  }
  return {
    rows,
    changed: new Set(sheet.edits.keys()),
    unsaved: changes.length,
    saving: send.isPending,
    refusal: send.isError ? send.error.message : null,
    theirs,
    save,
    put: (texts: readonly (readonly string[])[], at: Place) =>
      setSheet((now) => put(now, rowsWith(standing, now), columns, texts, at)),
    clear: (one: Place, other: Place) => {
      const [from, to] = corners(one, other)
      const blank = Array.from({ length: to.column - from.column + 1 }, () => '')
      const lines = Math.min(to.row, rows.length - 1) - from.row + 1
      if (lines > 0)
        setSheet((now) =>
          put(
            now,
            rowsWith(standing, now),
            columns,
            Array.from({ length: lines }, () => blank),
            from,
          ),
        )
    },
    fillDown: (one: Place, other: Place) =>
      setSheet((now) => fillDown(now, rowsWith(standing, now), columns, one, other)),
    remove: (one: Place, other: Place) => setSheet((now) => removeRows(now, rowsWith(standing, now), one, other)),
    undo: () => setSheet(undo),
    takeTheirs: () => {
      if (!theirs) return
      const lost = new Set([...theirs.rows.map((row) => row.id), ...theirs.gone].map(String))
      setSheet((now) => ({ ...now, past: [], edits: new Map([...now.edits].filter(([name]) => !lost.has(name))) }))
      setTheirs(null)
      send.reset()
      void queries.invalidateQueries({ queryKey: key })
    },
    saveOver: () => {
      if (!theirs) return
      const now = new Map(theirs.rows.map((row) => [row.id, row.version]))
      const gone = new Set(theirs.gone)
      const again = changes
        .filter((one) => one.id === null || !gone.has(one.id) || one.cells !== null)
        .map((one) =>
          one.id !== null && gone.has(one.id)
            ? { ...one, id: null, version: 0 }
            : { ...one, version: (one.id === null ? undefined : now.get(one.id)) ?? one.version },
        )
      send.mutate({ changes: again, edits: sheet.edits })
    },
  }
}
