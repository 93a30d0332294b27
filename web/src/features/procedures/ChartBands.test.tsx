import { screen, within } from '@testing-library/react'
import { describe, expect, it } from 'vitest'

import type { PassBands, SourceBands } from '../../api/types'
import { show } from '../../testing'
import { ChartBands } from './ChartBands'

const source = (more: Partial<SourceBands>): SourceBands => ({
  source: 'Door chart, page 2',
  kind: 'chart',
  current_a: { min: 150, max: 300 },
  voltage_v: null,
  wire_feed_m_min: null,
  differs: [],
  wrong: false,
  followed: false,
  ...more,
})
const group = (...sources: SourceBands[]): PassBands => ({
  passes: [2, 3, 4],
  role: 'fill',
  current_scale_a: { min: 100, max: 350 },
  voltage_scale_v: null,
  wire_feed_scale_m_min: null,
  sources: [source({ source: 'Proposal', kind: 'own', current_a: { min: 200, max: 240 } }), ...sources],
})

describe('charts beside a proposal', () => {
  it('shows nothing where no source but the proposal speaks', () => {
    show(<ChartBands groups={[]} />)
    expect(screen.queryByRole('region')).toBeNull()
  })

  it.each([
    [source({ followed: true }), 'these passes keep inside it'],
    [source({ kind: 'code', source: 'Table 5.1', followed: true }), 'keep within the limit'],
    [
      source({ differs: ['The chart is for CO2, the pass uses Ar+18CO2.'] }),
      'The chart is for CO2, the pass uses Ar+18CO2. Not followed.',
    ],
    [source({}), 'these passes go beyond it'],
    [source({ kind: 'trial', source: 'Own trial of 2026-03-01, 12 mm' }), 'offered before every estimate'],
  ])('says how a source compares', (one, said) => {
    show(<ChartBands groups={[group(one)]} />)
    const rows = screen.getAllByRole('row')
    expect(rows.at(-1)?.textContent).toContain(said)
    expect(screen.getByText('Passes 2 to 4, fill')).toBeTruthy()
  })

  it('has a column only for what some source gives', () => {
    show(<ChartBands groups={[group(source({}))]} />)
    const heads = within(screen.getByRole('table'))
      .getAllByRole('columnheader')
      .map((one) => one.textContent)
    expect(heads).toEqual(['Source', 'Amps, A', 'How it compares'])
  })
})
