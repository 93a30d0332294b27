import { screen, within } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import { expect, it, vi } from 'vitest'

import type { WeldList } from '../../api/types'
import { refusal, serve, show } from '../../testing'
import { CompareCodes } from './CompareCodes'

vi.mock('../../session/session', async (original) => ({
  ...(await original<object>()),
  useSession: () => ({
    codes: [
      { id: 'iso-15614-1:2017', short: 'ISO 15614-1:2017', levels: [1, 2], unit_column: 'si' },
      { id: 'aws-d1.1:2020', short: 'AWS D1.1:2020', levels: [], unit_column: 'us' },
    ],
  }),
}))

const LIST = { code: { id: 'iso-15614-1:2017', level: 2, units: 'si', route: 'test' } } as unknown as WeldList
const plan = (gaps: number, cost: number) => ({
  types: 9,
  gaps,
  cost,
  currency: 'EUR',
  optimal: true,
  coupons: [{ name: '135 10 mm PF', cost, covers: [], only: [] }],
  uncovered: [{ key: 'T9', words: '', reasons: [] }],
})

it('asks one code after the other, and keeps what was found where one is refused', async () => {
  const asked = serve(({ body }) => {
    const code = body.code as { id: string; level: number | null }
    if (code.id.startsWith('aws')) return refusal('120 joint types lack cover.')
    const found = plan(code.level === 1 ? 1 : 3, code.level === 1 ? 500 : 2475)
    return { body: { id: 1, state: 'done', keep: [], without: [], plan: found } }
  })
  show(<CompareCodes jobId={3} list={LIST} busy={false} />)
  await userEvent.click(screen.getByRole('button', { name: 'Compare codes' }))
  expect(await screen.findByText('120 joint types lack cover.')).toBeVisible()
  const rows = within(screen.getByRole('table')).getAllByRole('row').slice(1)
  expect(rows.map((row) => row.textContent)).toEqual([
    expect.stringContaining('8 of 9'),
    expect.stringContaining('6 of 9'),
    expect.stringContaining('120 joint types'),
  ])
  expect(rows[1]).toHaveTextContent('2475 EUR')
  expect(rows[1]).toHaveClass('font-semibold')
  expect(asked.map((one) => (one.body.code as { id: string }).id)).toEqual([
    'iso-15614-1:2017',
    'iso-15614-1:2017',
    'aws-d1.1:2020',
  ])
})
