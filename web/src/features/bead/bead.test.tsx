import { fireEvent, screen, waitFor, within } from '@testing-library/react'
import { expect, test } from 'vitest'

import type { BeadFigure, BeadPrediction, BeadSettings } from '../../api/types'
import { refusal, serve, show, type Answer } from '../../testing'
import { FiguresTable } from './FiguresTable'
import { JointDrawing, viewOf } from './JointDrawing'
import { kindOf, knobsOf, settingWords, STARTS } from './settings'
import { TrySettings } from './TrySettings'

const FIGURE: BeadFigure = {
  key: 'width_mm',
  group: 'bead',
  title: 'Bead width',
  value: 9.2,
  low: 7.3,
  high: 11.1,
  quantity: 'length',
  unit: '',
  swatch: '',
  words: '',
  level: '',
  no_model: '',
  source: 'Rosenthal 1946',
  confidence: 'high',
  error: 'conduction',
}
const PICTURE = {
  thickness_mm: 10,
  crown: [
    [-4, 0],
    [0, 3],
    [4, 0],
  ],
  lines: [
    { name: 'zone', peak_c: 725, points: [[-7, 0], [0, -5], [7, 0]] }, // prettier-ignore
    { name: 'pool', peak_c: 1510, points: [[-4, 0], [0, -3], [4, 0]] }, // prettier-ignore
  ],
}
const START = STARTS['135'] as BeadSettings

function predicted(changed: string[] = [], figures: BeadFigure[] = [FIGURE]): BeadPrediction {
  return {
    figures,
    picture: PICTURE,
    joint: null,
    trace: null,
    changed,
    sentence: changed.length ? 'Bead width 9 % less.' : '',
  }
}

/** A server that predicts, and says of the cure what it is given. */
function predicting(cure: Answer = null) {
  return serve(({ path, body }) => {
    if (path.endsWith('/bead/cure')) return cure
    if (path.endsWith('/read')) return { body: { understood: true, value: 500, text: '500' } }
    const asked = body.settings as BeadSettings[]
    const items = asked.map((one) => predicted(one.travel_mm_min === asked[0]?.travel_mm_min ? [] : ['travel_mm_min']))
    return { body: { items, goals: [{ key: 'flatter', title: 'Flatter crown' }] } }
  })
}

test('every process has settings to start from, and a value for what it cannot do without', () => {
  for (const [process, start] of Object.entries(STARTS)) {
    expect(start.process).toBe(process)
    expect(start.travel_mm_min).toBeGreaterThan(0)
    expect(start.current_a ?? start.wire_feed_m_min).toBeGreaterThan(0)
    const fields = knobsOf(process).map((one) => one.field)
    expect(new Set(fields).size).toBe(fields.length)
    expect(fields).toContain(start.wire_feed_m_min ? 'wire_feed_m_min' : 'current_a')
  }
  expect(settingWords('travel_mm_min')).toBe('Travel speed')
  expect(settingWords('cup')).toBe('Cup')
  expect(kindOf('start_c')).toBe('temperature')
  expect(kindOf('cup')).toBe('')
})

test('a figure shows its number, its band, its error and its source; without a model it says so', () => {
  const none = { ...FIGURE, key: 't85_s', title: 'Cooling time', value: null, no_model: 'For steel only.', source: '' }
  const bad = {
    ...FIGURE,
    key: 'burn',
    title: 'Burn-through',
    level: 'bad' as const,
    quantity: '',
    unit: 'kN',
    value: 160,
  }
  show(<FiguresTable items={[predicted([], [FIGURE, none, bad])]} names={['Now']} />)
  const row = screen.getByRole('row', { name: /Bead width/ })
  expect(row.textContent).toContain('9.2 mm')
  expect(row.textContent).toContain('(7.3–11.1)')
  expect(row.textContent).toContain('conduction · Rosenthal 1946')
  expect(screen.getByRole('row', { name: /Cooling time/ }).textContent).toContain('No model. For steel only.')
  const burn = screen.getByRole('row', { name: /Burn-through/ })
  expect(within(burn).getByRole('img', { name: 'bad' })).toBeTruthy()
  expect(burn.textContent).toContain('160 kN')
})

test('two values that are read at once both count', async () => {
  const waiting: (() => void)[] = []
  const asked = serve(async ({ path, body }) => {
    if (!path.endsWith('/read')) return { body: { items: [predicted()], goals: [] } }
    await new Promise<void>((go) => waiting.push(go))
    const value = Number(body.text)
    return { body: { understood: true, value, text: String(value) } }
  })
  show(<TrySettings start={START} />)
  fireEvent.change(screen.getByLabelText('Wire feed speed'), { target: { value: '4' } })
  fireEvent.blur(screen.getByLabelText('Wire feed speed'))
  fireEvent.change(screen.getByLabelText('Arc voltage'), { target: { value: '17.5' } })
  fireEvent.blur(screen.getByLabelText('Arc voltage'))
  await waitFor(() => expect(waiting).toHaveLength(2))
  for (const go of waiting) go()
  await waitFor(() => {
    const last = asked.filter((one) => one.path.endsWith('/bead')).at(-1)?.body.settings as BeadSettings[]
    expect(last[0]).toMatchObject({ wire_feed_m_min: 4, voltage_v: 17.5 })
  })
})

test('a pulse, position and the AC wave are set under more settings', async () => {
  const asked = predicting()
  const last = () => (asked.filter((one) => one.path.endsWith('/bead')).at(-1)?.body.settings as BeadSettings[])[0]
  show(<TrySettings start={STARTS['141'] as BeadSettings} />)
  fireEvent.click(screen.getByText('More settings'))
  fireEvent.click(screen.getByLabelText('pulsed'))
  await waitFor(() => expect(last()).toMatchObject({ current_a: null, pulse: { frequency_hz: 2 } }))
  fireEvent.click(screen.getByLabelText('trailing shield'))
  await waitFor(() => expect(last()).toMatchObject({ trailing_shield: true, pulse: { peak_a: 110 } }))
  fireEvent.click(screen.getByLabelText('pulsed'))
  await waitFor(() => expect(last()).toMatchObject({ pulse: null, current_a: 75 }))
})

test('a bead is drawn in its joint where that is known, and drawings keep one scale', () => {
  const joint = {
    members: [[[0, 0], [9, 0], [9, -9]]], // prettier-ignore
    deposit: [[5, 0], [0, 0], [0, 5]], // prettier-ignore
    wall: [[5, 0], [0, 0], [0, 5]], // prettier-ignore
    beside: [
      { name: '500', peak_c: 500, beyond_mm: 6 },
      { name: 'zone', peak_c: 725, beyond_mm: 3 },
      { name: 'pool', peak_c: 1510, beyond_mm: 1 },
    ],
    low: [-4, -4],
    high: [9, 7],
  }
  const items = [
    { ...predicted(), joint },
    { ...predicted(), joint: { ...joint, low: [-6, -2], high: [7, 8] } },
  ]
  const view = viewOf(items)
  expect(view).toEqual({ left: -6, bottom: -4, right: 9, top: 8 })
  const { container } = show(<JointDrawing picture={joint} view={view} tint={undefined} />)
  expect(screen.getByRole('img')).toHaveAttribute('viewBox', '-6 -8 15 12')
  expect(container.textContent).toContain('3 mm beyond the prepared edge')
})

test('a pinned setting stays, and what is changed against it is told', async () => {
  const seen = predicting()
  show(<TrySettings start={START} />)
  await screen.findByRole('img', { name: /Section of the bead/ })
  fireEvent.click(screen.getByRole('button', { name: 'Pin this setting' }))
  fireEvent.change(screen.getByRole('slider', { name: 'Travel speed, slider' }), { target: { value: '500' } })
  await screen.findByText(/Changed against pin 1, and nothing else: Travel speed. Bead width 9 % less./)
  const last = seen.at(-1)?.body.settings as BeadSettings[]
  expect(last.map((one) => one.travel_mm_min)).toEqual([400, 500])
  fireEvent.click(screen.getByRole('button', { name: 'Go back to pin 1' }))
  await screen.findByText('Nothing is changed against pin 1.')
  fireEvent.click(screen.getByRole('button', { name: 'Remove pin 1' }))
  await waitFor(() => expect(screen.queryByText(/against pin 1/)).toBeNull())
})

test('a remedy inside the limits is used; one outside is only the engineer’s', async () => {
  const inside = {
    field: 'travel_mm_min',
    before: 400,
    after: 440,
    outcome: 'helps',
    limited: true,
    worsens: ['Hardness'],
    percent: -8,
    why: 'less metal for each length',
    settings: { ...START, travel_mm_min: 440 },
    source: '',
  }
  const outside = { ...inside, field: 'voltage_v', after: null, outcome: 'outside', settings: null, worsens: [] }
  const seen = predicting({ body: { title: '', no_model: '', remedies: [outside, inside] } })
  show(<TrySettings start={START} limits={{ travel_mm_min: { min: 360, max: 440 } }} />)
  expect(screen.getByText(/The procedure allows 360–440 mm\/min/)).toBeTruthy()
  fireEvent.click(await screen.findByRole('button', { name: 'Effect that is wanted' }))
  fireEvent.click(await screen.findByRole('option', { name: 'Flatter crown' }))
  await screen.findByText(/Only outside the limits of the procedure/)
  expect(screen.getByText('Helps in part, as far as the limits go.')).toBeTruthy()
  expect(screen.getByText('Then watch: Hardness')).toBeTruthy()
  expect(screen.getAllByRole('button', { name: /^Use / })).toHaveLength(1)
  fireEvent.click(screen.getByRole('button', { name: 'Use Travel speed 400 → 440 mm/min' }))
  await waitFor(() => expect((seen.at(-1)?.body.settings as BeadSettings).travel_mm_min ?? 440).toBe(440))
  const asked = seen.filter((one) => one.path.endsWith('/cure'))[0]
  expect(asked?.body.limits).toEqual({ travel_mm_min: { min: 360, max: 440 } })
})

test('a value outside the limits is marked, and a refusal is told', async () => {
  serve(() => refusal('thickness_mm is not plausible'))
  show(<TrySettings start={START} limits={{ voltage_v: { min: 24, max: 27 } }} />)
  expect(screen.getByText(/Outside what the procedure allows: 24.0–27.0 V/)).toBeTruthy()
  await screen.findByText(/thickness_mm is not plausible/)
})

test('a limit of nothing is said in words', () => {
  predicting()
  const nothing = { min: 0, max: 0 }
  show(<TrySettings start={START} limits={{ voltage_v: nothing, weave_mm: nothing }} />)
  expect(screen.getByText('Planned outside what its record qualifies.')).toBeTruthy()
  expect(screen.getByText('Stringer beads only.')).toBeTruthy()
  expect(screen.queryByText(/0–0/)).toBeNull()
})

test('another process starts from its own settings', async () => {
  predicting()
  show(<TrySettings start={START} />)
  fireEvent.click(screen.getByRole('button', { name: 'Process' }))
  fireEvent.click(await screen.findByRole('option', { name: /TIG with rod/ }))
  expect(screen.getByRole('textbox', { name: 'Cup number' })).toBeTruthy()
  expect(screen.queryByRole('slider', { name: 'Wire feed speed, slider' })).toBeNull()
  fireEvent.click(screen.getByRole('button', { name: 'Polarity' }))
  fireEvent.click(await screen.findByRole('option', { name: 'AC' }))
  expect((screen.getByRole('textbox', { name: 'Negative share of AC' }) as HTMLInputElement).value).toBe('68')
})
