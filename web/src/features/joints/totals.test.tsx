import { screen } from '@testing-library/react'
import { MemoryRouter } from 'react-router'
import { expect, it, vi } from 'vitest'

import { serve, show } from '../../testing'
import { TotalsPage } from './TotalsPage'

vi.mock('../../session/job', () => ({ useJob: () => ({ job: { id: 3 } }) }))
vi.mock('../../session/session', async (original) => ({
  ...(await original<object>()),
  useSession: () => ({ codes: [], may: () => true }),
}))

const hours = { of: '135 PA', arc_h: 10.25, at_joint_h: 30, weld_metal_kg: 123.4, welds: 12, cost: 2000 }
const TOTALS = {
  version: 2,
  code: { id: 'iso-15614-1:2017', level: 2, units: 'si', route: 'test' },
  currency: 'EUR',
  totals: {
    welds: 12,
    length_m: 40,
    weld_metal_kg: 123.4,
    cost: 2000.4,
    fillers: [
      {
        process: '135',
        filler: 'G 42 4 M G3Si1',
        diameter_mm: 1.2,
        used_kg: 128,
        bought_kg: 131.8,
        packs: 9,
        pack: 'spool',
        pack_kg: 15,
      },
      {
        process: '112',
        filler: 'X',
        diameter_mm: null,
        used_kg: null,
        bought_kg: null,
        packs: null,
        pack: '',
        pack_kg: null,
      },
    ],
    gas_l: { 'M21-ArC-18': 9500, I1: null },
    hours: [hours],
    parts: [{ ...hours, of: '' }],
    left_out: [{ reason: 'no WPS is assigned', welds: 3, types: ['T2', 'T3'] }],
  },
}

it('shows what the job takes, and what is not counted', async () => {
  serve(() => ({ body: TOTALS }))
  show(
    <MemoryRouter>
      <TotalsPage />
    </MemoryRouter>,
  )
  expect(await screen.findByText('12 welds counted')).toBeVisible()
  expect(screen.getByText('9 × spool of 15 kg')).toBeVisible()
  expect(screen.getByText(/3 welds, no WPS is assigned \(T2, T3\)/)).toBeVisible()
  expect(screen.getByText('9.5 m³')).toBeVisible()
  expect(screen.getByText('not known: a pass states no flow')).toBeVisible()
  expect(screen.getByRole('region', { name: 'By part' })).toHaveTextContent('not stated')
  expect(screen.getAllByText('not known')).toHaveLength(3)
})
