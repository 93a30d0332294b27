import { screen, waitFor, within } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import { MemoryRouter, Route, Routes } from 'react-router'
import { beforeEach, expect, it, vi } from 'vitest'

import { serve, show, type Answer } from '../../testing'
import { DocumentationPage } from './DocumentationPage'
import { JointPage } from './JointPage'
import { LogPage } from './LogPage'
import { namesOf } from './names'
import { passesOf } from './passCells'
import { RatesPage } from './RatesPage'
import { today } from './states'
import { WeldPage } from './WeldPage'

let role = 'inspector'
const choose = vi.fn()
const JOBS = [
  { id: 3, number: 'FB-27' },
  { id: 4, number: 'AX-1' },
]
vi.mock('../../session/job', () => ({ useJob: () => ({ job: JOBS[0], jobs: JOBS, choose }) }))
vi.mock('../../session/session', async (original) => ({
  ...(await original<object>()),
  useSession: () => ({
    codes: [],
    person: { name: 'Rell Okafor', role },
    may: (action: string) => (action === 'LOG_WELD' ? role !== 'viewer' : role === 'inspector'),
  }),
}))
beforeEach(() => {
  role = 'inspector'
})

const RESULT = {
  id: 70,
  method: 'VT',
  accepted: true,
  report: '',
  inspector: 'T. Lind',
  inspected_on: '2026-05-04',
  found: '',
  entered_name: 'T. Lind',
  entered_at: '2026-05-04T10:00:00Z',
  struck_reason: '',
  struck_name: '',
}
const WELD = {
  id: 7,
  mark: 'W1',
  item: 1,
  joint: 'butt, 12 mm; PA',
  position: 'PA',
  revision_id: 11,
  wps: 'P01 A',
  welders: ['Signe Holm'],
  batches: ['B-1'],
  heats: [],
  welded_on: '2026-05-03',
  remarks: '',
  fit: 'covered',
  against: [] as string[],
  qualified: [] as { name: string; standing: string; reasons: string[] }[],
  state: 'accepted',
  repair_of: null,
  entered_name: 'Signe Holm',
  entered_at: '2026-05-03T10:00:00Z',
  struck_reason: '',
  struck_name: '',
  released_name: '',
  released_at: null,
  results: [RESULT],
  passes: [] as object[],
  judged: [] as object[],
  repaired_by: null,
}
const JOINT = {
  mark: 'W1',
  words: 'butt, 12 mm; PA',
  drawing: '101 B',
  ndt: 'B',
  count: 3,
  left: [2, 3],
  problems: [],
  assigned: 11,
  wps: [
    { revision_id: 11, name: 'P01 A', released: true },
    { revision_id: 9, name: 'P00 A', released: false },
  ],
  welds: [WELD],
  welders: ['Signe Holm', 'Rell Okafor'],
  batches: ['B-1', 'B-2'],
  heats: ['H-1'],
}
const refused = (detail: string, ...errors: object[]): Answer => ({
  status: 409,
  body: { type: '/problems/conflict', title: '', status: 409, detail, errors },
})
const at = (path: string) =>
  show(
    <MemoryRouter initialEntries={[path]}>
      <Routes>
        <Route path="/production" element={<LogPage />} />
        <Route path="/production/rates" element={<RatesPage />} />
        <Route path="/production/documentation" element={<DocumentationPage />} />
        <Route path="/production/joint" element={<JointPage />} />
        <Route path="/production/welds/:weldId" element={<WeldPage />} />
      </Routes>
    </MemoryRouter>,
  )

it('finds welds by what is typed, and says how many', async () => {
  const asked = serve(({ path }) => ({
    body: path.endsWith('/welds')
      ? { total: 1, more: false, welds: [WELD], next: null }
      : { procedures: [], types: [], lost: [] },
  }))
  at('/production')
  expect(await screen.findByText('1 weld')).toBeVisible()
  await userEvent.type(screen.getByLabelText('Filler batch'), 'B-1')
  await waitFor(() => expect(asked.some((one) => one.query.get('batch') === 'B-1')).toBe(true))
  await userEvent.click(screen.getByRole('button', { name: 'Result' }))
  await userEvent.click(screen.getByRole('option', { name: 'UT rejected' }))
  await waitFor(() => {
    const last = asked.at(-1)?.query
    expect([last?.get('method'), last?.get('accepted')]).toEqual(['UT', 'false'])
  })
  expect(screen.getByRole('link', { name: 'Download as XLSX' }).getAttribute('href')).toContain('method=UT')
})

it('says that there are more than are counted', async () => {
  serve(({ path }) => ({
    body: path.endsWith('/welds') ? { total: 10000, more: true, welds: [WELD], next: 5 } : { procedures: [] },
  }))
  at('/production')
  expect(await screen.findByText('more than 10000 welds')).toBeVisible()
})

it('logs a weld of a joint, and keeps what was typed where it is refused', async () => {
  let answer: Answer = refused('Weld 2 of W1 is logged already.')
  const asked = serve(({ path }) => (path.endsWith('/joint') ? { body: JOINT } : answer))
  role = 'welder'
  at('/production/joint?job=AX-1&mark=W1')
  expect(await screen.findByText('Log weld 2 of W1')).toBeVisible()
  expect(choose).toHaveBeenCalledWith(4)
  expect(screen.getByLabelText('Welders')).toHaveValue('Rell Okafor')
  expect(screen.getByLabelText('Filler batches')).toHaveValue('')
  await userEvent.click(screen.getByRole('button', { name: '+ B-1' }))
  await userEvent.click(screen.getByRole('button', { name: '+ B-2' }))
  await userEvent.type(screen.getByLabelText('Heat numbers of the metal'), 'H-9; H-10')
  await userEvent.click(screen.getByRole('button', { name: 'Log this weld' }))
  expect(await screen.findByText('Weld 2 of W1 is logged already.')).toBeVisible()
  expect(screen.getByLabelText('Heat numbers of the metal')).toHaveValue('H-9; H-10')
  const first = asked.at(-1)?.body
  expect(first).toMatchObject({
    mark: 'W1', item: 2, revision_id: 11, welders: ['Rell Okafor'], batches: ['B-1', 'B-2'], heats: ['H-9', 'H-10'],
    welded_on: today(), repair_of: null,
  }) // prettier-ignore
  answer = { status: 201, body: WELD }
  await userEvent.click(screen.getByRole('button', { name: 'Log this weld' }))
  await waitFor(() => expect(asked.filter((one) => one.path.endsWith('/welds'))).toHaveLength(2))
  expect(asked.filter((one) => one.path.endsWith('/welds'))[1]?.body.client_id).toBe(first?.client_id)
})

it('says beside the readings which of them cannot be read', async () => {
  const asked = serve(({ path }) =>
    path.endsWith('/joint')
      ? { body: JOINT }
      : refused('travel_mm_min: should be a valid number', {
          path: 'travel_mm_min',
          message: 'should be a valid number',
          value: 'fast',
        }),
  )
  at('/production/joint?mark=W1')
  await userEvent.click(await screen.findByRole('button', { name: 'Add readings' }))
  await userEvent.type(screen.getByLabelText('Travel speed (mm/min), row 1'), 'fast')
  await userEvent.click(screen.getByRole('button', { name: 'Log this weld' }))
  expect(await screen.findByText('Travel speed (mm/min): should be a valid number')).toBeVisible()
  expect(asked.at(-1)?.body.passes).toEqual([{ number: 1, travel_mm_min: 'fast' }])
  expect(screen.getByLabelText('Travel speed (mm/min), row 1')).toHaveValue('fast')
})

it('warns of a joint without a WPS, and of a job or joint that is not there', async () => {
  serve(() => ({ body: { ...JOINT, assigned: null } }))
  const page = at('/production/joint?mark=W1')
  expect(await screen.findByText(/No WPS is assigned/)).toBeVisible()
  page.unmount()
  serve(() => ({ body: { ...JOINT, count: 0, left: [], welds: [] } }))
  const other = at('/production/joint?mark=W9')
  expect(await screen.findByText(/has no joint W9/)).toBeVisible()
  other.unmount()
  at('/production/joint?job=NO-1&mark=W9')
  expect(await screen.findByText('There is no job NO-1 here.')).toBeVisible()
})

it('releases an accepted weld, and says what stands against it', async () => {
  let answer: Answer = refused('Its WPS does not cover the joint.', { path: 'wps', message: 'PC is outside.' })
  const asked = serve(({ path }) => (path.endsWith('/release') ? answer : { body: WELD }))
  at('/production/welds/7')
  await userEvent.click(await screen.findByRole('button', { name: 'Release this weld' }))
  expect(await screen.findByText('Its WPS does not cover the joint. PC is outside.')).toBeVisible()
  answer = { body: { ...WELD, state: 'released' } }
  await userEvent.click(screen.getByRole('button', { name: 'Release this weld' }))
  await waitFor(() => expect(asked.filter((one) => one.path === '/api/welds/7')).toHaveLength(2))
})

it('enters a rejection only with what was found', async () => {
  const asked = serve(({ path }) =>
    path.endsWith('/results')
      ? refused('Say what was found, and where.', { path: 'found', message: 'Say what was found, and where.' })
      : { body: WELD },
  )
  at('/production/welds/7')
  const form = within(await screen.findByRole('form', { name: 'Enter a result' }))
  await userEvent.click(form.getByRole('button', { name: 'Rejected' }))
  expect(await form.findByRole('alert')).toHaveTextContent('Say what was found, and where.')
  expect(asked.at(-1)?.body).toMatchObject({ method: 'VT', accepted: false, inspector: 'Rell Okafor' })
})

it('strikes an entry with a reason; a viewer can do nothing', async () => {
  const asked = serve(() => ({ body: { ...WELD, fit: 'blocked', against: ['PC is outside.'] } }))
  const page = at('/production/welds/7')
  expect(await screen.findByText('The WPS does not cover this joint.')).toBeVisible()
  await userEvent.click(screen.getByRole('button', { name: 'Strike this entry' }))
  expect(screen.getByRole('button', { name: 'Strike' })).toBeDisabled()
  await userEvent.type(screen.getByLabelText('Why it is struck'), 'wrong joint')
  await userEvent.click(screen.getByRole('button', { name: 'Strike' }))
  await waitFor(() =>
    expect(asked.find((one) => one.path.endsWith('/strike'))?.body).toEqual({ reason: 'wrong joint' }),
  )
  page.unmount()
  role = 'viewer'
  at('/production/welds/7')
  expect(await screen.findByText('accepted, not released')).toBeVisible()
  expect(screen.queryByRole('button')).not.toBeInTheDocument()
})

it('shows readings against the WPS', async () => {
  const judged = {
    pass_number: 1, travel_mm_min: 300, heat_input_kj_mm: 1.2,
    findings: [{ rule: 'current.range', verdict: 'violates', message: '500 A is over 240 A.' }],
  } // prettier-ignore
  serve(() => ({
    body: { ...WELD, passes: [{ number: 1, current_a: { mean: 500 }, voltage_v: 25 }], judged: [judged] },
  }))
  at('/production/welds/7')
  expect(await screen.findByText('500 A is over 240 A.')).toBeVisible()
  expect(screen.getByText('25.0')).toBeVisible()
})

it('shows reject rates with their intervals', async () => {
  const rate = { rejected: 1, inspected: 10, share: 0.1, low: 0.0025, high: 0.445 }
  const asked = serve(() => ({ body: [{ of: 'Signe Holm', rate }] }))
  at('/production/rates')
  expect(await screen.findByText('Signe Holm')).toBeVisible()
  expect(screen.getByText('10.0 %')).toBeVisible()
  expect(screen.getByText('0.3 % to 44.5 %')).toBeVisible()
  await userEvent.click(screen.getByRole('button', { name: 'Grouped' }))
  await userEvent.click(screen.getByRole('option', { name: 'by position' }))
  await waitFor(() => expect(asked.at(-1)?.query.get('by')).toBe('position'))
})

it('says what the documentation lacks, or that nothing is open', async () => {
  const open = [{ said: 'Welds that are not logged', count: 300, marks: ['W1 / 1', 'W2 / 1'] }]
  serve(() => ({ body: { expected: 400, made: 100, released: 40, open } }))
  const page = at('/production/documentation')
  expect(await screen.findByText('1 open point')).toBeVisible()
  expect(screen.getByText('W1 / 1, W2 / 1 …')).toBeVisible()
  expect(screen.getByRole('link', { name: 'Open as one PDF' })).toHaveAttribute('href', '/api/jobs/3/dossier/print')
  page.unmount()
  serve(() => ({ body: { expected: 4, made: 4, released: 4, open: [] } }))
  at('/production/documentation')
  expect(await screen.findByText(/Nothing is open/)).toBeVisible()
})

it('reads names and readings as they are typed', () => {
  expect(namesOf(' A. Bee ; C, ,D')).toEqual(['A. Bee', 'C', 'D'])
  const none = { number: '', current: '', voltage: '', travel: '', before: '' }
  expect(
    passesOf([none, { ...none, current: '228,5', travel: 'fast' }, { ...none, number: '7', before: '80' }]),
  ).toEqual([
    { number: 2, current_a: { mean: 228.5 }, travel_mm_min: 'fast' },
    { number: 7, before_c: 80 },
  ])
})
