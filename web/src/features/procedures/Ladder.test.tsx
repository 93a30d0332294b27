import { fireEvent, screen, within } from '@testing-library/react'
import { beforeEach, expect, it, vi } from 'vitest'

import type { Evaluation, Pass, PassHeat, Procedure } from '../../api/types'
import { EMPTY } from '../../domain/procedure'
import { show } from '../../testing'
import { Ladder } from './Ladder'

beforeEach(() => localStorage.clear())

const pass = (number: number, role: Pass['role'], process: Pass['process']): Pass => ({
  number,
  side: 1,
  role,
  process,
  polarity: 'DCEP',
  current_a: { min: 100, max: 120 },
  voltage_v: { min: 20, max: 22 },
  travel_mm_min: { min: 100, max: 150 },
})
const DOCUMENT: Procedure = {
  ...EMPTY,
  passes: [pass(1, 'root', '141'), pass(2, 'fill', '111'), pass(3, 'cap', '111')],
}
const heat = (number: number, max: number): PassHeat => ({
  pass_number: number,
  min_kj_mm: 0.5,
  max_kj_mm: max,
  min_kj_in: 12.7,
  max_kj_in: max * 25.4,
  method: 'mean',
  k: 0.8,
  citations: [],
  unchecked: [],
})
const EVALUATION = {
  heat_word: 'Heat input',
  heat_input: [heat(1, 1), heat(2, 1.5), heat(3, 2)],
  findings: [
    {
      rule: 'x',
      verdict: 'violates',
      obligation: 'requirement',
      path: 'passes.2.travel_mm_min',
      title: '',
      message: '',
      actual: '',
      limit: '',
      remedy: '',
      citations: [],
      unchecked: [],
    },
  ],
} as unknown as Evaluation

function ladder(more: { disabled?: boolean; document?: Procedure } = {}) {
  const onChange = vi.fn<(change: (before: Procedure) => Procedure) => void>()
  const onSelect = vi.fn<(pass: number) => void>()
  const document = more.document ?? DOCUMENT
  show(
    <Ladder
      document={document}
      evaluation={EVALUATION}
      onChange={onChange}
      selected={2}
      onSelect={onSelect}
      onLight={() => undefined}
      lit={null}
      disabled={more.disabled ?? false}
    />,
  )
  /** The document after the last change that was asked for. */
  const changed = () => onChange.mock.lastCall?.[0](document)
  return { onChange, onSelect, changed }
}

it('lies as in the joint: cap on top, root at the bottom, one heading a set-up', () => {
  ladder()
  expect(
    screen
      .getAllByRole('row')
      .map((row) => row.getAttribute('data-pass'))
      .filter(Boolean),
  ).toEqual(['3', '2', '1'])
  expect(screen.getAllByRole('rowgroup').map((group) => group.textContent?.slice(0, 3))).toEqual(['111', '141'])
})

it('shows heat input, the k it was counted with, and what is out', () => {
  ladder()
  const cap = screen.getByRole('row', { name: 'Pass 3, cap' })
  expect(cap).toHaveTextContent('0.50–2.00')
  expect(within(cap).getByRole('img', { name: 'nonconformity' })).toBeInTheDocument()
  expect(
    within(screen.getByRole('row', { name: 'Pass 1, root' })).queryByRole('img', { name: 'nonconformity' }),
  ).toBeNull()
  expect(screen.getByText(/kJ\/mm, k 0.8/)).toBeInTheDocument()
})

it('keys add and duplicate', () => {
  const { changed, onSelect } = ladder()
  const row = screen.getByRole('row', { name: 'Pass 2, fill' })
  fireEvent.keyDown(row, { key: 'a' })
  expect(changed()?.passes.map((one) => one.role)).toEqual(['root', 'fill', 'fill', 'cap'])
  expect(onSelect).toHaveBeenLastCalledWith(3)
  fireEvent.keyDown(row, { key: 'D', shiftKey: true })
  expect(changed()?.passes).toHaveLength(4)
})

it('arrows move between passes and cells', () => {
  ladder()
  screen.getByRole('row', { name: 'Pass 1, root' }).focus()
  fireEvent.keyDown(document.activeElement ?? document.body, { key: 'ArrowUp' })
  expect(screen.getByRole('row', { name: 'Pass 2, fill' })).toHaveFocus()
  fireEvent.keyDown(document.activeElement ?? document.body, { key: 'Enter' })
  expect(screen.getByLabelText('Current, pass 2')).toHaveFocus()
  fireEvent.keyDown(document.activeElement ?? document.body, { key: 'Enter', shiftKey: true })
  expect(screen.getByLabelText('Current, pass 3')).toHaveFocus()
  fireEvent.keyDown(document.activeElement ?? document.body, { key: 'Escape' })
  expect(screen.getByRole('row', { name: 'Pass 3, cap' })).toHaveFocus()
})

it('removes the selected pass', () => {
  const { changed } = ladder()
  fireEvent.click(screen.getByRole('button', { name: 'Remove pass 2' }))
  expect(changed()?.passes.map((one) => `${String(one.number)} ${one.role}`)).toEqual(['1 root', '2 cap'])
})

it('a frozen revision is only read', () => {
  const { onChange } = ladder({ disabled: true })
  fireEvent.keyDown(screen.getByRole('row', { name: 'Pass 2, fill' }), { key: 'a' })
  expect(onChange).not.toHaveBeenCalled()
  expect(screen.queryByRole('button', { name: /Remove/ })).toBeNull()
  expect(screen.getByLabelText('Current, pass 2')).toBeDisabled()
})

it('an empty ladder has one button', () => {
  const { changed } = ladder({ document: EMPTY })
  fireEvent.click(screen.getByRole('button', { name: 'Add the root pass' }))
  expect(changed()?.passes).toMatchObject([{ number: 1, role: 'root' }])
})
