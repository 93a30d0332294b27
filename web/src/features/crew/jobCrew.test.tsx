import { screen, within } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import { MemoryRouter } from 'react-router'
import { expect, it, vi } from 'vitest'

import { serve, show } from '../../testing'
import { JobCrewPage } from './JobCrewPage'
import { PositionsPage } from './PositionsPage'

vi.mock('../../session/job', () => ({ useJob: () => ({ job: { id: 3, number: 'FB-27' }, jobs: [] }) }))
// Only the rows that are seen are drawn, and nothing is seen here.
vi.mock('@tanstack/react-virtual', () => ({
  useVirtualizer: ({ count }: { count: number }) => ({
    getTotalSize: () => count * 44,
    getVirtualItems: () => Array.from({ length: count }, (_, index) => ({ index, start: index * 44 })),
  }),
}))

const type = (key: string, may: number) => ({
  key,
  words: `butt joint ${key}`,
  mark: `W-${key}`,
  welds: 4,
  wps: 'P02 B',
  revision_id: 11,
  code: 'ISO 9606-1',
  asked: ['ISO 9606-1 135 P BW FM1 S s12 PA ss nb'],
  open: [],
  may,
})
const CREW = {
  on: '2026-12-01',
  types: [type('T1', 2), type('T2', 0)],
  people: [
    { id: 1, name: 'Rell Okafor', mark: 'RO', cells: 'ml' },
    { id: 2, name: 'Signe Holm', mark: 'SH', cells: 'mb' },
    { id: 3, name: 'Osric Boon', mark: 'OB', cells: 'uo' },
  ],
  without: [{ key: 'T3', words: 'fillet weld T3', welds: 2, why: 'No WPS is assigned to it that covers it.' }],
}
const PLAN = {
  needed: 1,
  tests: [{ member_id: 2, name: 'Signe Holm', designation: 'ISO 9606-1 135 P BW FM1 S s12 PF ss nb', types: ['T2'] }],
  short: 1,
  lacking: [],
  open: [],
  proven: true,
  tried: 50,
}

function page(plan: object = PLAN) {
  serve(({ path }) => ({ body: path.endsWith('/welder-tests') ? plan : CREW }))
  show(
    <MemoryRouter>
      <JobCrewPage />
    </MemoryRouter>,
  )
}

it('says how each person stands to each joint type, and counts types without a WPS as not decided', async () => {
  page()
  expect(await screen.findByText('1 of 3 joint types have a welder')).toBeTruthy()
  const table = screen.getByRole('table', { name: 'Joint types and who may weld them' })
  const row = within(table).getByRole('rowheader', { name: /T2/ }).closest('[role="row"]') as HTMLElement
  const cells = within(row).getAllByRole('cell')
  expect(cells.map((one) => one.textContent)).toEqual([
    '0',
    'the certificate has lapsed',
    'not qualified for this',
    'not decided: a fact is missing',
  ])
  expect(within(row).getByRole('link', { name: 'T2' }).getAttribute('href')).toBe(
    '/crew/who-may?mark=W-T2&job=3&revision=11',
  )
  expect(screen.getByText(/1 joint type of which it is not known/)).toBeTruthy()
})

it('plans the tests that close the gaps, and shows only what lacks welders', async () => {
  page()
  expect(await screen.findByText('ISO 9606-1 135 P BW FM1 S s12 PF ss nb')).toBeTruthy()
  expect(screen.getByText(/1 test closes the gaps/).textContent).toContain('No fewer do, of 50 test pieces')
  await userEvent.click(screen.getByRole('checkbox', { name: 'Only types that lack welders' }))
  const table = screen.getByRole('table', { name: 'Joint types and who may weld them' })
  expect(within(table).getAllByRole('rowheader')).toHaveLength(1)
})

it('tells what stays short, what is open, and that a plan is not proven', async () => {
  page({
    ...PLAN,
    proven: false,
    lacking: [{ key: 'T2', words: 'butt joint T2', held: 0 }],
    open: ['T9'],
  })
  expect(await screen.findByText(/Whether fewer do is not proven/)).toBeTruthy()
  expect(screen.getByText(/Still short/)).toBeTruthy()
  expect(screen.getByText('Not planned, since a fact is missing: T9')).toBeTruthy()
})

it('joins processes with the same positions, and strikes out what only a lapsed certificate covers', async () => {
  const held = (process: string, valid: string[], lapsed: string[]) => ({
    code: 'ISO 9606-1',
    process,
    weld: 'butt',
    valid,
    lapsed,
  })
  const okafor = [held('135', ['PA', 'PF'], []), held('138', ['PA', 'PF'], []), held('111', [], ['PC'])]
  serve(() => ({
    body: {
      on: '2026-12-01',
      people: [
        { id: 1, name: 'Rell Okafor', mark: 'RO', held: okafor },
        { id: 2, name: 'Osric Boon', mark: '', held: [] },
      ],
    },
  }))
  show(
    <MemoryRouter>
      <PositionsPage />
    </MemoryRouter>,
  )
  expect(await screen.findByRole('columnheader', { name: '135, 138 butt' })).toBeTruthy()
  const row = screen.getByRole('row', { name: /Rell Okafor/ })
  expect(within(row).getByText('PA PF')).toBeTruthy()
  expect(within(row).getByText('PC').tagName).toBe('S')
})
