import { beforeEach, expect, test, vi } from 'vitest'

import type { PassRecord } from '../api/types'
import { Outbox, type Sent, type Writer } from './outbox'
import { moveOld, type WaitingPass } from './waiting'

const RELL: Writer = { id: 4, name: 'Rell Okafor' }
let signedIn: Writer | null = RELL

const pass = (number: number): WaitingPass => ({
  clientId: `id-${String(number)}`,
  record: { number, side: 1, energy_method: 'mean', segments: [], flags: [] } as PassRecord,
  savedAt: '2026-11-26T08:00:00Z',
  refused: null,
  by: RELL,
})

beforeEach(() => {
  localStorage.clear()
  signedIn = RELL
  vi.useFakeTimers()
})

function queue(answers: Sent[], store: Storage = localStorage) {
  const sent: number[] = []
  const made = new Outbox<WaitingPass>(
    'pass:7',
    () => signedIn,
    (one) => {
      sent.push(one.record.number)
      return Promise.resolve(answers.shift() ?? { kind: 'sent' })
    },
    store,
    () => undefined,
  )
  return { made, sent }
}

test('passes go out in order and leave the list', async () => {
  const { made, sent } = queue([])
  made.add(pass(1))
  made.add(pass(2))
  await vi.runAllTimersAsync()
  expect(sent).toEqual([1, 2])
  expect(made.snapshot().waiting).toEqual([])
  expect(localStorage.length).toBe(0)
})

test('while nothing gets through they are kept, and sent again by themselves', async () => {
  const away: Sent = { kind: 'passing', message: 'The server does not answer.' }
  const { made, sent } = queue([away, away])
  made.add(pass(1))
  await vi.advanceTimersByTimeAsync(10)
  expect(made.snapshot().away).toBe('The server does not answer.')
  expect(made.snapshot().waiting).toHaveLength(1)
  await vi.runAllTimersAsync()
  expect(sent).toEqual([1, 1, 1])
  expect(made.snapshot()).toEqual({ waiting: [], away: '' })
})

test('a closed tab loses nothing: the next one finds and sends it', async () => {
  const first = queue([{ kind: 'passing', message: 'away' }])
  first.made.add(pass(4))
  await vi.advanceTimersByTimeAsync(10)
  const second = queue([])
  expect(second.made.snapshot().waiting.map((one) => one.record.number)).toEqual([4])
  const leave = second.made.subscribe(() => undefined)
  await vi.advanceTimersByTimeAsync(10)
  expect(second.sent).toEqual([4])
  leave()
})

test('a refused pass stays with its reason, and others go past it', async () => {
  const { made, sent } = queue([{ kind: 'refused', message: 'Pass 1 is in the log already.', conflict: true }])
  made.add(pass(1))
  made.add(pass(2))
  await vi.runAllTimersAsync()
  expect(made.snapshot().waiting.map((one) => one.refused?.message)).toEqual(['Pass 1 is in the log already.'])
  made.mend('id-1', (one) => ({ ...one, record: { ...one.record, number: 3 } }))
  await vi.runAllTimersAsync()
  expect(sent).toEqual([1, 2, 3])
  expect(made.snapshot().waiting).toEqual([])
})

test('what one person saved is never sent while another is signed in', async () => {
  const { made, sent } = queue([])
  signedIn = { id: 9, name: 'Maren Holt' }
  made.add(pass(1))
  made.add({ ...pass(2), by: signedIn })
  await vi.runAllTimersAsync()
  expect(sent).toEqual([2])
  expect(made.snapshot().waiting.map((one) => one.by?.name)).toEqual(['Rell Okafor'])
  signedIn = RELL
  await made.flush()
  expect(sent).toEqual([2, 1])
})

test('passes of an older version have no name and are not sent under that of whoever comes', async () => {
  const old: Partial<WaitingPass> = { ...pass(1), by: undefined }
  localStorage.setItem('passes-7', JSON.stringify([old, { ...old, clientId: 'id-2' }]))
  moveOld(localStorage)
  const { made, sent } = queue([])
  await made.flush()
  expect(sent).toEqual([])
  expect(made.snapshot().waiting.map((one) => [one.clientId, one.by])).toEqual([
    ['id-1', null],
    ['id-2', null],
  ])
  expect(localStorage.getItem('passes-7')).toBeNull()
})

test('two tabs that keep something at the same time lose neither', () => {
  const away: Sent = { kind: 'passing', message: 'away' }
  const [one, two] = [queue([away]), queue([away])]
  one.made.add(pass(1))
  two.made.add(pass(2))
  const third = queue([away])
  expect(third.made.snapshot().waiting.map((each) => each.record.number)).toEqual([1, 2])
})

test('what a full store does not take is held by the page and still sent', async () => {
  const full = new Proxy(localStorage, {
    get: (store, name) => {
      if (name === 'setItem')
        return () => {
          throw new DOMException('full', 'QuotaExceededError')
        }
      const found: unknown = Reflect.get(store, name)
      return typeof found === 'function' ? (found as () => unknown).bind(store) : found
    },
  })
  const { made, sent } = queue([{ kind: 'passing', message: 'away' }], full)
  made.add(pass(1))
  await vi.advanceTimersByTimeAsync(10)
  expect(made.snapshot().waiting).toHaveLength(1)
  await vi.runAllTimersAsync()
  expect(sent).toEqual([1, 1])
  expect(made.snapshot().waiting).toEqual([])
})
