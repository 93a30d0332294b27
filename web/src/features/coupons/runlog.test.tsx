import { screen, waitFor } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import { afterEach, beforeEach, expect, it, vi } from 'vitest'

import type { Coupon, PassRecord } from '../../api/types'
import { Outbox, type OutboxState } from '../../domain/outbox'
import type { WaitingPass } from '../../domain/waiting'
import { serve, show } from '../../testing'
import { Checklist } from './Checklist'
import { Countdown, secondsLeft } from './Countdown'
import { WaitingPasses } from './Waiting'
import { mirroredHeat } from './model'
import { useSavePiece } from './useSavePiece'

const ENGINEER = { id: 4, name: 'Imra Vance' }
vi.mock('../../session/session', async (original) => ({
  ...(await original<object>()),
  useSession: () => ({ person: ENGINEER, may: () => true }),
}))

beforeEach(() => localStorage.clear())
afterEach(() => vi.unstubAllGlobals())

const record: PassRecord = {
  number: 2,
  side: 1,
  energy_method: 'mean',
  segments: [],
  flags: [],
  current_a: 150,
  voltage_v: { mean: 24 },
  length_mm: 300,
  time_s: 100,
}

/** The parts of a coupon that these components look at. */
function coupon(more: object = {}): Coupon {
  return {
    id: 7,
    version: 1,
    status: 'welding',
    rows: [],
    people: [],
    checklist: [{ id: 'polarity', question: 'Polarity looked at?', why: '' }],
    piece: {
      checklist: [],
      batches: [],
      preheat_readings: [],
      treatments_done: [],
      base_metals: [],
      thickness_mm: [20],
    },
    procedure: { passes: [], thermal: { heat_input_kj_mm: { min: 0.5, max: 0.9 } } },
    log: { passes: [], to_weld: [2, 3], piece: [] },
    evaluation: { heat_input: [{ pass_number: 2, k: 0.8, min_kj_mm: 0.5, max_kj_mm: 1.5 }] },
    cooling: { after_pass: 1, wait_s: 90, to_c: 250, plate_c: 100 },
    cooling_since: '2026-11-26T08:00:00Z',
    server_time: '2026-11-26T08:01:00Z',
    ...more,
  } as unknown as Coupon
}

it.each([
  [90, '2026-11-26T08:00:00Z', '2026-11-26T08:00:30Z', 60],
  [90, '2026-11-26T08:00:00Z', '2026-11-26T08:02:00Z', -30],
])('a wait of %d s since %s has at %s %d s left', (wait, since, now, left) => {
  expect(secondsLeft(wait, since, new Date(now).getTime())).toBe(left)
})

it.each([
  [null, 'Cooling after pass 1 to 250 °C'],
  [180, 'The reading confirms it'],
  [260, 'The reading is above 250 °C'],
])('a reading of %s °C: %s', (readC, words) => {
  show(<Countdown coupon={coupon()} fetchedAt={Date.now()} readC={readC} unsent={null} />)
  expect(screen.getByRole('region', { name: 'Interpass' })).toHaveTextContent(words)
})

it('says nothing of cooling while a later pass is not at the server', () => {
  show(<Countdown coupon={coupon()} fetchedAt={Date.now()} readC={null} unsent={2} />)
  const said = screen.getByRole('region', { name: 'Interpass' })
  expect(said).toHaveTextContent('The cooling after pass 2 is estimated once the pass is at the server')
  expect(said).not.toHaveTextContent('250')
})

it('is felt when the wait is over, and not for one that was over before', () => {
  vi.useFakeTimers()
  const felt = vi.fn()
  vi.stubGlobal('navigator', Object.assign(Object.create(navigator), { vibrate: felt }))
  show(<Countdown coupon={coupon()} fetchedAt={Date.now()} readC={null} unsent={null} />)
  vi.advanceTimersByTime(3_600_000)
  expect(felt).toHaveBeenCalledTimes(1)
  vi.advanceTimersByTime(3_600_000)
  expect(felt).toHaveBeenCalledTimes(1)
  vi.useRealTimers()
})

it('heat input on the device is V·I·t/L with the k of the plan, and nothing where something is missing', () => {
  expect(mirroredHeat(record, coupon())).toBeCloseTo(0.96, 6)
  expect(mirroredHeat({ ...record, time_s: null }, coupon())).toBeNull()
  expect(mirroredHeat({ ...record, number: 9 }, coupon())).toBeNull()
})

it('a refused pass says why, and is not taken back over what is being typed', () => {
  const state: OutboxState<WaitingPass> = {
    waiting: [
      {
        clientId: 'a',
        by: ENGINEER,
        record,
        savedAt: '',
        refused: { message: 'Pass 2 is in the log already.', conflict: true },
      },
    ],
    away: '',
  }
  const queue = new Outbox<WaitingPass>(
    'pass:7',
    () => null,
    () => Promise.resolve({ kind: 'sent' }),
    localStorage,
    () => undefined,
  )
  const { again } = show(
    <WaitingPasses coupon={coupon()} state={state} queue={queue} mayTakeBack={false} onTakeBack={() => undefined} />,
  )
  expect(screen.getByRole('status')).toHaveTextContent('0.96 kJ/mm')
  expect(screen.getByRole('status')).toHaveTextContent('out of the band')
  expect(screen.getByRole('button', { name: 'Keep mine as pass 3' })).toBeEnabled()
  expect(screen.getByRole('button', { name: 'Take it back into the entry' })).toBeDisabled()
  again(<WaitingPasses coupon={coupon()} state={state} queue={queue} mayTakeBack onTakeBack={() => undefined} />)
  expect(screen.getByRole('button', { name: 'Take it back into the entry' })).toBeEnabled()
})

function Saved() {
  const save = useSavePiece(7)
  return <Checklist coupon={coupon()} disabled={false} onSave={(step) => save.mutate({ piece: step })} />
}

it('an answer is put on top of what someone else saved meanwhile', async () => {
  let version = 1
  const asked = serve(({ path, body }) => {
    if (!('version' in body))
      return {
        body: coupon({
          version,
          piece: { ...coupon().piece, checklist: version > 1 ? [{ item: 'gap', answer: 'no' }] : [] },
        }),
      }
    expect(path).toBe('/api/coupons/7')
    if (body['version'] === 1) {
      version = 2
      return { status: 409, body: { type: '/problems/stale', title: '', status: 409, detail: 'changed', errors: [] } }
    }
    return { body: { id: 7, version: 3 } }
  })
  show(<Saved />)
  await userEvent.click(screen.getByRole('button', { name: 'yes' }))
  await waitFor(() => {
    const sent = asked.filter((one) => 'version' in one.body).map((one) => one.body)
    expect(sent).toMatchObject([
      { version: 1, piece: { checklist: [{ item: 'polarity', answer: 'yes' }] } },
      {
        version: 2,
        piece: {
          checklist: [
            { item: 'gap', answer: 'no' },
            { item: 'polarity', answer: 'yes' },
          ],
        },
      },
    ])
  })
})
