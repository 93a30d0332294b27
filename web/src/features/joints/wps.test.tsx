import { screen, waitFor, within } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import { MemoryRouter } from 'react-router'
import { beforeEach, expect, it, vi } from 'vitest'

import { serve, show } from '../../testing'
import { WpsPage } from './WpsPage'

let allowed = true
vi.mock('../../session/job', () => ({ useJob: () => ({ job: { id: 3 } }) }))
vi.mock('../../session/session', async (original) => ({
  ...(await original<object>()),
  useSession: () => ({ codes: [], may: () => allowed }),
}))
beforeEach(() => {
  allowed = true
})

const cell = (verdict: string, ...names: string[]) => ({
  verdict,
  names,
  reasons: names.map((one) => `${one} is outside.`),
  records: verdict === 'covered' ? ['Q01'] : [],
})
const type = (key: string, cells: object[], more: object = {}) => ({
  key,
  words: `joint ${key}`,
  marks: [`W-${key}`],
  welds: 4,
  cells,
  assigned: null,
  against: [],
  suggested: null,
  reason: '',
  ...more,
})
const TABLE = {
  version: 5,
  code: { id: 'iso-15614-1:2017', level: 2, units: 'si', route: 'test' },
  procedures: [
    { revision_id: 11, name: 'P01 A', title: 'plate', types: 2, welds: 8 },
    { revision_id: 12, name: 'P02 B', title: 'pipe', types: 1, welds: 4 },
  ],
  types: [
    type('T1', [cell('covered'), cell('covered')], { suggested: 11, reason: 'Widest margin.' }),
    type('T2', [cell('covered'), cell('blocked', 'Positions')], { assigned: 11 }),
    type('T3', [cell('blocked', 'Thickness'), cell('open', 'PWHT')], {
      assigned: 12,
      against: ['P02 B is withdrawn.'],
    }),
    type('T4', [cell('blocked', 'Thickness'), cell('blocked', 'Joint')]),
  ],
  lost: [{ id: 9, words: 'joint of before', wps: 'P01 A' }],
}
const page = () =>
  show(
    <MemoryRouter>
      <WpsPage />
    </MemoryRouter>,
  )

it('says how far the joints have a WPS and which assignments have ended', async () => {
  serve(() => ({ body: TABLE }))
  page()
  expect(await screen.findByText('1 of 4 joint types have a WPS')).toBeVisible()
  expect(screen.getByText('4 of 16 welds')).toBeVisible()
  expect(screen.getByText('1 assignment no longer holds')).toBeVisible()
  expect(screen.getByText('P02 B is withdrawn.')).toBeVisible()
  expect(screen.getByText('no released WPS covers it')).toBeVisible()
})

it('assigns what is suggested, with what was seen before', async () => {
  const sent = serve(({ path }) => ({ body: path.endsWith('/assignments') ? { ...TABLE, lost: [] } : TABLE }))
  page()
  await userEvent.click(await screen.findByRole('button', { name: 'Assign P01 A to T1' }))
  await waitFor(() => expect(sent).toHaveLength(2))
  expect(sent[1]?.body).toEqual({ version: 5, assign: { T1: 11 }, before: { T1: null } })
  await waitFor(() => expect(screen.queryByText('joint of before')).not.toBeInTheDocument())
})

it('offers for a type only what covers it', async () => {
  serve(() => ({ body: TABLE }))
  page()
  await userEvent.click(await screen.findByRole('button', { name: 'WPS for T2' }))
  expect(screen.getAllByRole('option').map((one) => one.textContent)).toEqual(['no WPS assigned', 'P01 A'])
})

it('says what each WPS has against a type, and hides what is done', async () => {
  serve(() => ({ body: TABLE }))
  page()
  await userEvent.click(await screen.findByRole('button', { name: 'T2' }))
  const said = within(screen.getByRole('list', { name: 'Released WPSs' }))
  expect(said.getByText('Positions is outside.')).toBeVisible()
  expect(said.getByText('covered by Q01')).toBeVisible()
  await userEvent.click(screen.getByRole('checkbox'))
  expect(screen.queryByRole('button', { name: 'T2' })).not.toBeInTheDocument()
  expect(screen.getByRole('button', { name: 'T3' })).toBeVisible()
})

it('lets only those assign who write procedures', async () => {
  allowed = false
  serve(() => ({ body: TABLE }))
  page()
  expect(await screen.findAllByText('P01 A', { selector: 'span' })).toHaveLength(2)
  expect(screen.queryByRole('button', { name: /WPS for|Assign|Remove/ })).not.toBeInTheDocument()
})

it('shows a refusal with each type that is not covered', async () => {
  const body = {
    type: '/problems/conflict',
    title: '',
    status: 409,
    detail: 'The WPS does not cover joint type T1.',
    errors: [{ path: 'T1', message: 'Thickness: 60 mm' }],
  }
  serve(({ path }) => (path.endsWith('/assignments') ? { status: 409, body } : { body: TABLE }))
  page()
  await userEvent.click(await screen.findByRole('button', { name: 'Assign P01 A to T1' }))
  expect(await screen.findByText(/does not cover joint type T1. T1: Thickness: 60 mm/)).toBeVisible()
})
