import { screen, waitFor, within } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import { MemoryRouter } from 'react-router'
import { expect, it, vi } from 'vitest'

import type { WeldList } from '../../api/types'
import { serve, show } from '../../testing'
import { CodeOfList } from './CodeOfList'
import { CouponsPlanPage } from './CouponsPlanPage'
import { CoveragePage } from './CoveragePage'

vi.mock('../../session/job', () => ({ useJob: () => ({ job: { id: 3 } }) }))

const CODES = [
  { id: 'iso-15614-1:2017', short: 'ISO 15614-1:2017', levels: [1, 2], unit_column: 'si' },
  { id: 'aws-d1.1:2020', short: 'AWS D1.1:2020', levels: [], unit_column: 'us' },
]
vi.mock('../../session/session', async (original) => ({
  ...(await original<object>()),
  useSession: () => ({ codes: CODES }),
}))

const CODE = { id: 'iso-15614-1:2017', level: 2, units: 'si', route: 'test' }
const LIST = {
  version: 2,
  code: CODE,
  columns: [],
  rows: [],
  questions: [],
  answers: {},
  shop: { processes: ['135'], positions: [], keep: [], without: [], thickest_mm: null },
  prices: { currency: 'EUR', hour: 60, plate_kg: 2.5, weld_metal_kg: 8, coupon: 150, tests: {} },
}
const TYPES = [
  {
    key: 'T1',
    words: 'butt, 12 mm; PA',
    marks: ['W1', 'W2'],
    welds: 8,
    length_mm: null,
    verdict: 'covered',
    by: ['Q01'],
  },
  { key: 'T2', words: 'butt, 40 mm; PC', marks: ['W3'], welds: 1, length_mm: 300, verdict: 'blocked', by: [] },
  { key: 'T3', words: 'fillet; PB', marks: ['W4'], welds: 2, length_mm: 300, verdict: 'open', by: [] },
].map((one) => ({
  ...one,
  cells: [{ verdict: one.verdict, variables: [], names: one.verdict === 'blocked' ? ['Base metal thickness'] : [] }],
}))
const COVER = { version: 2, code: CODE, records: ['Q01'], types: TYPES, joints: 5, unread: 1 }
const PLAN = {
  code: CODE,
  types: 4,
  gaps: 2,
  coupons: [
    { name: '135 10 mm PF', cost: 1000.4, covers: ['T2'], only: ['T2'] },
    { name: '135 20 mm PC', cost: 500, covers: ['T2', 'T3'], only: ['T3'] },
  ],
  cost: 1500.4,
  bound: 1500.4,
  optimal: true,
  tried: 44,
  currency: 'EUR',
  uncovered: [{ key: 'T9', words: 'butt in 111', reasons: ['The shop does not weld process 111.'] }],
}
const SEARCH = {
  id: 8,
  state: 'done',
  doing: '',
  done: 0,
  of: 0,
  problem: '',
  keep: [],
  without: [] as string[],
  current: true,
  plan: PLAN as typeof PLAN | null,
}
const page = (children: React.ReactNode) => show(<MemoryRouter>{children}</MemoryRouter>)

it('shows which types are covered, filters to the rest, and says why', async () => {
  const user = userEvent.setup()
  const seen = serve(({ path }) =>
    path.endsWith('/why')
      ? { body: [{ record: 'Q01', verdict: 'blocked', reasons: ['40 mm is above 24 mm.'] }] }
      : { body: COVER },
  )
  page(<CoveragePage />)
  expect(await screen.findByText('covered by Q01')).toBeInTheDocument()
  expect(screen.getByText('8 welds', { exact: false })).toBeInTheDocument()
  expect(screen.getByRole('link', { name: /1 row of the list is no joint yet/ })).toBeInTheDocument()
  await user.click(screen.getByLabelText('Only what is not covered'))
  expect(screen.queryByText('covered by Q01')).not.toBeInTheDocument()
  expect(screen.getByText('Base metal thickness')).toBeInTheDocument()
  await user.click(screen.getByRole('button', { name: 'T2' }))
  expect(await screen.findByText('40 mm is above 24 mm.')).toBeInTheDocument()
  expect(seen.at(-1)?.path).toBe('/api/jobs/3/weld-list/types/T2/why')
})

it('says that a job has no list yet', async () => {
  const detail = 'This job has no weld list yet.'
  serve(() => ({ status: 409, body: { type: '/problems/conflict', title: '', status: 409, detail, errors: [] } }))
  page(<CoveragePage />)
  expect(await screen.findByText(detail)).toBeInTheDocument()
})

it('finds coupons, asks what it costs to do without one, and drafts the chosen ones', async () => {
  const user = userEvent.setup()
  const seen = serve(({ path, body }) => {
    if (path.endsWith('/drafts'))
      return { status: 201, body: [{ revision_id: 5, number: 'P09', coupon: '135 20 mm PC' }] }
    if (path.endsWith('/coupons')) {
      if (!body.without) return { body: null }
      const without = body.without as string[]
      return without.length > 0
        ? { body: { ...SEARCH, id: 9, without, plan: { ...PLAN, cost: 1650, bound: 1650 } } }
        : { body: SEARCH }
    }
    return { body: LIST }
  })
  page(<CouponsPlanPage />)
  await user.click(await screen.findByRole('button', { name: 'Find the cheapest coupons' }))
  expect(await screen.findByText('proven: no cheaper set among 44 coupons drafted')).toBeInTheDocument()
  expect(screen.getByText(/2 coupons/)).toHaveTextContent('2 coupons, 1500 EUR')
  expect(screen.getByText('The shop does not weld process 111.')).toBeInTheDocument()
  await user.click(screen.getByRole('button', { name: 'Do without 135 10 mm PF' }))
  expect(await screen.findByText('150 EUR more than without the what-if')).toBeInTheDocument()
  const asked = seen.filter((one) => 'without' in one.body)
  expect(asked.at(-1)?.body).toEqual({ keep: [], without: ['135 10 mm PF'] })
  await user.click(screen.getByRole('checkbox', { name: '135 10 mm PF' }))
  await user.click(screen.getByRole('button', { name: 'Draft their procedures' }))
  const drafted = await screen.findByRole('list', { name: 'Drafted' })
  expect(within(drafted).getByRole('link', { name: 'P09' })).toHaveAttribute('href', '/procedures/5')
  expect(seen.find((one) => one.path.endsWith('/drafts'))?.body).toEqual({ names: ['135 20 mm PC'], search: 9 })
})

it('follows a search that is going on, and ends it', async () => {
  const user = userEvent.setup()
  let stopped = false
  const going = { ...SEARCH, state: 'running', doing: 'size', done: 12, of: 40, plan: null }
  serve(({ path }) => {
    if (path.endsWith('/stop')) stopped = true
    if (path.includes('/coupons')) return { body: stopped ? { ...going, state: 'stopped' } : going }
    return { body: LIST }
  })
  page(<CouponsPlanPage />)
  expect(await screen.findByText('Comparing thicknesses and diameters')).toBeVisible()
  expect(screen.getByText('12 of 40')).toBeVisible()
  expect(screen.getByRole('progressbar')).toHaveValue(12)
  await user.click(screen.getByRole('button', { name: 'Stop the search' }))
  expect(await screen.findByRole('button', { name: 'Find the cheapest coupons' })).toBeEnabled()
  expect(screen.queryByRole('progressbar')).not.toBeInTheDocument()
})

it('says when what was found is no longer of this list, and why a search ended', async () => {
  const user = userEvent.setup()
  serve(({ path, body }) => {
    if (!path.endsWith('/coupons')) return { body: LIST }
    if (!body.without) return { body: { ...SEARCH, current: false } }
    return { body: { ...SEARCH, id: 9, state: 'failed', problem: '2100 joint types: too many.', plan: null } }
  })
  page(<CouponsPlanPage />)
  expect(await screen.findByText(/changed since this was found/)).toBeVisible()
  expect(screen.getByText(/2 coupons/)).toBeVisible()
  await user.click(screen.getByRole('button', { name: 'Find the cheapest coupons' }))
  expect(await screen.findByText('2100 joint types: too many.')).toBeVisible()
})

it('saves what the shop welds and what it costs', async () => {
  const user = userEvent.setup()
  const seen = serve(() => ({ body: LIST }))
  page(<CouponsPlanPage />)
  const shop = await screen.findByRole('region', { name: 'Shop' })
  expect(within(shop).getByRole('button', { name: 'Save' })).toBeDisabled()
  await user.click(within(shop).getByRole('checkbox', { name: /^111/ }))
  await user.click(within(shop).getByRole('button', { name: 'Coupons in at most so many positions' }))
  await user.click(screen.getByRole('option', { name: '2' }))
  await user.clear(within(shop).getByLabelText('Plate, per kg'))
  await user.type(within(shop).getByLabelText('Plate, per kg'), '3,5')
  await user.click(within(shop).getByRole('button', { name: 'Save' }))
  const saved = () => seen.find((one) => 'version' in one.body)?.body
  await waitFor(() => expect(saved()).toMatchObject({ version: 2 }))
  expect(saved()).toMatchObject({
    shop: { processes: ['135', '111'], most_positions: 2 },
    prices: { plate_kg: 3.5, hour: 60 },
  })
})

it('judges the list under another code when one is chosen', async () => {
  const user = userEvent.setup()
  const seen = serve(() => ({ body: LIST }))
  page(<CodeOfList jobId={3} list={LIST as unknown as WeldList} />)
  const choice = screen.getByRole('button', { name: 'Code of the list' })
  expect(choice).toHaveTextContent('ISO 15614-1:2017 · level 2')
  await user.click(choice)
  expect(screen.getAllByRole('option').map((one) => one.textContent)).toEqual([
    'ISO 15614-1:2017 · level 1',
    'ISO 15614-1:2017 · level 2',
    'AWS D1.1:2020',
  ])
  await user.click(screen.getByRole('option', { name: 'AWS D1.1:2020' }))
  await waitFor(() => expect(seen).toHaveLength(1))
  expect(seen[0]?.body).toMatchObject({
    version: 2,
    code: { id: 'aws-d1.1:2020', level: null, units: 'us', route: 'test' },
    shop: { processes: ['135'] },
  })
})
