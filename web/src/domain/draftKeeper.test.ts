import { afterEach, beforeEach, expect, it, vi } from 'vitest'

import { DraftKeeper, type SaveResult, type Store } from './draftKeeper'
import { EMPTY } from './procedure'

const START = {
  id: 7,
  version: 3,
  document: { ...EMPTY, title: 'as opened' },
  savedBy: 'T. Lind',
  savedAt: '2026-01-01T10:00:00Z',
  frozen: false,
}
const titled = (title: string) => (before: typeof EMPTY) => ({ ...before, title })
const saved = (version: number): SaveResult => ({ kind: 'saved', version, savedAt: '2026-01-01T11:00:00Z' })

/** A browser's store that outlives the page. */
function memory(): Store & { held: Map<string, string> } {
  const held = new Map<string, string>()
  return {
    held,
    getItem: (key) => held.get(key) ?? null,
    setItem: (key, value) => void held.set(key, value),
    removeItem: (key) => void held.delete(key),
  }
}

/** Opens a draft whose saves end as told, one after the other; the last one repeats. */
function open(results: SaveResult[], store: Store = memory(), start = START) {
  const sent: { version: number; title: string | null | undefined }[] = []
  const keeper = new DraftKeeper(
    start,
    (version, document) => {
      sent.push({ version, title: document.title })
      const next = results.length > 1 ? results.shift() : results[0]
      return Promise.resolve(next ?? saved(99))
    },
    store,
  )
  const close = keeper.subscribe(() => undefined)
  return { keeper, sent, close }
}

beforeEach(() => void vi.useFakeTimers())
afterEach(() => void vi.useRealTimers())

it('saves once after a pause, with the version that was opened', async () => {
  const { keeper, sent } = open([saved(4), saved(5)])
  keeper.change(titled('a'))
  keeper.change(titled('ab'))
  expect(keeper.snapshot().state).toBe('waiting')
  await vi.advanceTimersByTimeAsync(2000)
  expect(sent).toEqual([{ version: 3, title: 'ab' }])
  expect(keeper.snapshot().state).toBe('saved')
  keeper.change(titled('abc'))
  await vi.advanceTimersByTimeAsync(2000)
  expect(sent[1]).toEqual({ version: 4, title: 'abc' })
})

it('keeps what is not saved in the browser, and brings it back', async () => {
  const store = memory()
  const first = open([{ kind: 'no-answer', message: 'away', errors: [] }], store)
  first.keeper.change(titled('typed'))
  first.close() // the tab is closed before anything was sent
  const second = open([saved(4)], store)
  expect(second.keeper.snapshot()).toMatchObject({ restored: true, state: 'waiting' })
  expect(second.keeper.snapshot().document.title).toBe('typed')
  await vi.advanceTimersByTimeAsync(2000)
  expect(second.sent).toEqual([{ version: 3, title: 'typed' }])
  expect(store.getItem('draft-7')).toBeNull()
})

it('shows both versions where someone else saved while this one lay in the browser', () => {
  const store = memory()
  const first = open([saved(4)], store)
  first.keeper.change(titled('typed'))
  first.close()
  const second = open([saved(5)], store, { ...START, version: 4, document: { ...EMPTY, title: 'theirs' } })
  expect(second.keeper.snapshot()).toMatchObject({
    state: 'conflict',
    theirs: { version: 4, document: { title: 'theirs' } },
  })
  expect(second.keeper.snapshot().document.title).toBe('typed')
})

it('sends again while there is no answer', async () => {
  const { keeper, sent } = open([
    { kind: 'no-answer', message: 'away', errors: [] },
    { kind: 'no-answer', message: 'away', errors: [] },
    saved(4),
  ])
  keeper.change(titled('a'))
  await vi.advanceTimersByTimeAsync(700)
  expect(keeper.snapshot().state).toBe('no-answer')
  await vi.advanceTimersByTimeAsync(10_000)
  expect(sent).toHaveLength(3)
  expect(keeper.snapshot().state).toBe('saved')
})

it.each(['refused', 'signed-out'] as const)('does not send again by itself when %s', async (kind) => {
  const { keeper, sent } = open([{ kind, message: 'no', errors: [{ path: 'title', message: 'too long' }] }])
  keeper.change(titled('a'))
  await vi.advanceTimersByTimeAsync(20_000)
  expect(sent).toHaveLength(1)
  expect(keeper.snapshot()).toMatchObject({ state: kind, errors: [{ path: 'title' }] })
  expect(keeper.snapshot().document.title).toBe('a')
})

const theirs = {
  version: 8,
  document: { ...EMPTY, title: 'theirs' },
  saved_by: 'T. Lind',
  saved_at: '2026-01-01T10:30:00Z',
}

it.each([
  [
    'mine',
    new Set<string>(),
    'mine',
    [
      { version: 3, title: 'mine' },
      { version: 8, title: 'mine' },
    ],
  ],
  [
    'theirs in this field',
    new Set(['title']),
    'theirs',
    [
      { version: 3, title: 'mine' },
      { version: 8, title: 'theirs' },
    ],
  ],
  ['theirs altogether', 'theirs', 'theirs', [{ version: 3, title: 'mine' }]],
] as const)('settles a conflict: %s', async (_, choice, title, expected) => {
  const { keeper, sent } = open([{ kind: 'conflict', theirs, message: 'stale' }, saved(9)])
  keeper.change(titled('mine'))
  await vi.advanceTimersByTimeAsync(5000)
  expect(keeper.snapshot()).toMatchObject({
    state: 'conflict',
    clashes: [{ path: 'title', mine: 'mine', theirs: 'theirs' }],
  })
  expect(sent).toHaveLength(1) // nothing is sent over theirs unasked
  keeper.settle(choice)
  await vi.advanceTimersByTimeAsync(5000)
  expect(sent).toEqual(expected)
  expect(keeper.snapshot()).toMatchObject({ state: 'saved', theirs: null, document: { title } })
})

it('merges without a question where each changed another field', async () => {
  const other = { ...theirs, document: { ...START.document, notes: 'theirs' } }
  const { keeper, sent } = open([{ kind: 'conflict', theirs: other, message: 'stale' }, saved(9)])
  keeper.change(titled('mine'))
  await vi.advanceTimersByTimeAsync(5000)
  expect(sent).toEqual([
    { version: 3, title: 'mine' },
    { version: 8, title: 'mine' },
  ])
  expect(keeper.snapshot()).toMatchObject({
    state: 'saved',
    mergedWith: 'T. Lind',
    document: { title: 'mine', notes: 'theirs' },
  })
})

it('types on while a save is under way', async () => {
  let answer: (result: SaveResult) => void = () => undefined
  const sent: (string | null | undefined)[] = []
  const keeper = new DraftKeeper(
    START,
    (_, document) => {
      sent.push(document.title)
      return new Promise((resolve) => (answer = resolve))
    },
    memory(),
  )
  keeper.subscribe(() => undefined)
  keeper.change(titled('a'))
  await vi.advanceTimersByTimeAsync(700)
  keeper.change(titled('ab'))
  answer(saved(4))
  await vi.advanceTimersByTimeAsync(2000)
  expect(sent).toEqual(['a', 'ab'])
})

it('keeps nothing of a frozen revision', () => {
  const store = memory()
  store.setItem('draft-7', JSON.stringify({ version: 2, document: { ...EMPTY, title: 'old' } }))
  const { keeper } = open([saved(4)], store, { ...START, frozen: true })
  expect(keeper.snapshot().document.title).toBe('as opened')
})
