import { screen, waitFor, within } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import { afterEach, expect, it, vi } from 'vitest'

import type { Drawing } from '../../api/types'
import { EMPTY } from '../../domain/procedure'
import { serve, show } from '../../testing'
import { SectionDrawing } from '../../ui/SectionDrawing'
import { ConflictDialog } from './ConflictDialog'
import { FillerHint } from '../../ui/FillerHint'
import { MetalField } from './MetalField'

afterEach(() => vi.unstubAllGlobals())

it('a conflict is chosen field by field, and nothing is chosen unasked', async () => {
  const settle = vi.fn()
  const theirs = {
    version: 4,
    document: { ...EMPTY, title: 'Theirs' },
    saved_by: 'Tobiah Lind',
    saved_at: '2026-01-01T10:00:00Z',
  }
  show(
    <ConflictDialog
      clashes={[
        { path: 'title', mine: 'Mine', theirs: 'Theirs' },
        { path: 'thermal.preheat_min_c', mine: 80, theirs: 90 },
      ]}
      theirs={theirs}
      onSettle={settle}
    />,
  )
  const row = screen.getByRole('row', { name: /title/ })
  expect(
    within(row)
      .getAllByRole('cell')
      .map((cell) => cell.textContent),
  ).toEqual(['title', 'Mine', 'Theirs'])
  await userEvent.keyboard('{Escape}')
  expect(settle).not.toHaveBeenCalled()
  await userEvent.click(screen.getByRole('radio', { name: /preheat.*: theirs/ }))
  await userEvent.click(screen.getByRole('button', { name: 'Save it like this' }))
  expect(settle).toHaveBeenCalledWith(new Set(['thermal.preheat_min_c']))
  await userEvent.click(screen.getByRole('button', { name: 'Take theirs, drop all of mine' }))
  expect(settle).toHaveBeenLastCalledWith('theirs')
})

const decoded = (more: object) => ({
  valid: true,
  designation: 'x',
  reason: '',
  suggestions: [],
  system: '',
  product: 'flux-cored wire',
  process: '136',
  processes: ['136'],
  meaning: [],
  polarities: ['DCEP'],
  gases: ['CO2'],
  shielding: 'gas',
  positions: 'all',
  runs: 'multi',
  tensile_mpa: 490,
  notes: [],
  sources: { citations: [], unchecked: [] },
  ...more,
})

it('a filler says what it is, or what may have been meant', async () => {
  serve(({ body }) => ({
    body: body.text === 'E71T-1C' ? decoded({}) : decoded({ valid: false, suggestions: ['E71T-1C', 'E71T-1M'] }),
  }))
  const take = vi.fn()
  const view = show(<FillerHint designation="E71T1-C" disabled={false} onTake={take} />)
  await userEvent.click(await screen.findByRole('button', { name: 'E71T-1C' }))
  expect(take).toHaveBeenCalledWith('E71T-1C')
  view.again(<FillerHint designation="E71T-1C" disabled={false} onTake={take} />)
  expect(await screen.findByText('flux-cored wire · DCEP · CO2 · all positions · 490 MPa')).toBeInTheDocument()
})

it('a metal is typed freely or picked', async () => {
  const metal = {
    name: 'S355J2',
    also: [],
    standard: 'EN 10025-2',
    family: 'carbon',
    condition: 'AR',
    iso_15608: '1.2',
    reason: '',
    aws_d1_1: null,
    yield_mpa: 345,
    tensile_mpa: 470,
    magnetic: true,
  }
  serve(() => ({ body: [metal] }))
  const typed = vi.fn()
  const picked = vi.fn()
  show(
    <MetalField
      label="Metal 1"
      path="base_metals.0.designation"
      value={null}
      thicknessMm={20}
      disabled={false}
      error={undefined}
      onType={typed}
      onPick={picked}
    />,
  )
  await userEvent.type(screen.getByLabelText('Metal 1'), 's355')
  expect(typed).toHaveBeenCalled()
  await userEvent.click(await screen.findByRole('option', { name: /S355J2/ }))
  await waitFor(() => expect(picked).toHaveBeenCalledWith(metal))
})

it('a drawing has its beads numbered, and a bead can be picked', async () => {
  const drawing: Drawing = {
    x: 0,
    y: 0,
    width: 10,
    height: 10,
    text_mm: 1,
    caption: 'Section of a test',
    shapes: [
      {
        kind: 'polygon',
        role: 'member',
        points: [
          [0, 0],
          [10, 0],
          [10, 10],
        ],
        pass_number: null,
      },
      {
        kind: 'polygon',
        role: 'bead',
        points: [
          [1, 1],
          [2, 1],
          [2, 2],
        ],
        pass_number: 7,
      },
      { kind: 'label', at: [1.5, 1.5], anchor: 'middle', text: '7', value: null, value_kind: 'none', pass_number: 7 },
      { kind: 'label', at: [5, 5], anchor: 'start', text: 'gap', value: 3, value_kind: 'length', pass_number: null },
      {
        kind: 'line',
        points: [
          [0, 0],
          [5, 0],
        ],
        ticks: true,
      },
    ],
  }
  const pick = vi.fn()
  const { container } = show(<SectionDrawing drawing={drawing} heat={new Map([[7, 1.2]])} onPick={pick} />)
  expect(screen.getByRole('img', { name: 'Section of a test' })).toHaveTextContent('7gap 3')
  const bead = container.querySelectorAll('polygon')[1]
  if (bead) await userEvent.click(bead)
  expect(pick).toHaveBeenCalledWith(7)
})
