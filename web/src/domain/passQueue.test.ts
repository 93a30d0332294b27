import { beforeEach, expect, test, vi } from 'vitest'

import type { PassRecord } from '../api/types'
import { PassQueue, type Sent, type Waiting } from './passQueue'

const pass = (number: number): Waiting => ({
  clientId: `id-${String(number)}`,
  record: { number, side: 1, energy_method: 'mean', segments: [], flags: [] } as PassRecord,
  savedAt: '2026-11-26T08:00:00Z',
  refused: null,
})

beforeEach(() => {
  localStorage.clear()
  vi.useFakeTimers()
})

function queue(answers: Sent[]) {
  const sent: number[] = []
  const made = new PassQueue(
    7,
    (one) => {
      sent.push(one.record.number)
      return Promise.resolve(answers.shift() ?? { kind: 'sent' })
    },
    localStorage,
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
  made.renumber('id-1', 3)
  await vi.runAllTimersAsync()
  expect(sent).toEqual([1, 2, 3])
  expect(made.snapshot().waiting).toEqual([])
})
