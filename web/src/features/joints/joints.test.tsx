import { screen, waitFor } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import { afterEach, beforeEach, expect, it, vi } from 'vitest'

import type { WeldList } from '../../api/types'
import { serve, show } from '../../testing'
import { JointGrid } from './JointGrid'
import { Answered, Questions } from './Questions'
import { NumberField } from './NumberField'

const LIST: WeldList = {
  version: 3,
  code: { id: 'iso-15614-1:2017', level: 2, units: 'si', route: 'test' },
  columns: [
    { name: 'mark', title: 'Mark', own: true },
    { name: 'weld', title: 'Weld type', own: false },
    { name: 'thickness', title: 'Thickness 1', own: false },
    { name: 'joint', title: 'Joint type', own: false },
    { name: 'positions', title: 'Positions', own: false },
  ],
  rows: ['W1', 'W2', 'W3'].map((mark, at) => ({
    id: at + 1,
    version: 1,
    cells: { mark, weld: 'CJP', thickness: '20 mm' },
    type: 'T1',
    problems: at === 2 ? [{ column: 'thickness', message: 'It is a date.', asks: '', choices: [] }] : [],
  })),
  questions: [
    {
      key: 'weld:bw',
      column: 'weld',
      message: 'BW, how far?',
      choices: ['cjp-groove', 'pjp-groove'],
      rows: 2,
      first_row: 1,
    },
    { key: 'metal:s355', column: 'metal', message: 'S355 is unknown.', choices: ['S355J2'], rows: 1, first_row: 3 },
  ],
  answers: { size: 'leg' },
  shop: { processes: ['135'], positions: [], keep: [], without: [] },
  prices: { currency: 'EUR', hour: 60, plate_kg: 2.5, weld_metal_kg: 8, coupon: 150, tests: {} },
}
const cell = (name: string) => screen.getByRole('gridcell', { name })

beforeEach(() => {
  // The list draws what is seen: here everything is.
  for (const [name, size] of [
    ['clientHeight', 600],
    ['clientWidth', 1000],
    ['offsetHeight', 600],
    ['offsetWidth', 1000],
  ] as const)
    vi.spyOn(
      name.startsWith('client') ? Element.prototype : HTMLElement.prototype,
      name as 'clientHeight',
      'get',
    ).mockReturnValue(size)
  Element.prototype.scrollIntoView = () => undefined
})
afterEach(() => vi.restoreAllMocks())

it('is written in by keyboard, filled down, undone, and saved as one', async () => {
  const user = userEvent.setup()
  const seen = serve(() => ({ body: LIST }))
  show(<JointGrid jobId={1} list={LIST} />)
  await user.click(cell('Mark: W1'))
  await user.keyboard('{ArrowRight}{ArrowRight}12 mm{Enter}')
  expect(screen.getAllByRole('gridcell', { name: 'Thickness 1: 12 mm' })).toHaveLength(1)
  await user.keyboard('{ArrowUp}{Shift>}{ArrowDown}{ArrowDown}{/Shift}{Control>}d{/Control}')
  expect(screen.getAllByRole('gridcell', { name: 'Thickness 1: 12 mm' })).toHaveLength(3)
  await user.keyboard('{Control>}z{/Control}')
  expect(screen.getAllByRole('gridcell', { name: 'Thickness 1: 12 mm' })).toHaveLength(1)
  await user.keyboard('{F2}5{Escape}{Control>}s{/Control}')
  await waitFor(() => expect(seen).toHaveLength(1))
  expect(seen[0]?.body).toEqual({
    code: LIST.code,
    changes: [{ id: 1, version: 1, cells: { mark: 'W1', weld: 'CJP', thickness: '12 mm' } }],
  })
})

it('takes a pasted block below the last joint', async () => {
  const user = userEvent.setup()
  serve(() => ({ body: LIST }))
  show(<JointGrid jobId={1} list={LIST} />)
  await user.click(cell('Mark: W3'))
  await user.keyboard('{ArrowDown}')
  await user.paste('W4\tFW\t8 mm\nW5\tFW\t8 mm\n')
  expect(cell('Mark: W5')).toBeInTheDocument()
  expect(screen.getByRole('button', { name: 'Save 2 changed joints' })).toBeInTheDocument()
})

it('saves the cell that is written in, and what waits is there again after another page', async () => {
  const user = userEvent.setup()
  const seen = serve(() => null)
  const { again } = show(<JointGrid jobId={1} list={LIST} />)
  await user.click(cell('Mark: W2'))
  await user.keyboard('W2b{Control>}s{/Control}')
  await waitFor(() => expect(seen).toHaveLength(1))
  expect(seen[0]?.body.changes).toMatchObject([{ id: 2, cells: { mark: 'W2b' } }])
  again(<p>another page</p>)
  again(<JointGrid jobId={1} list={LIST} />)
  expect(cell('Mark: W2b')).toBeInTheDocument()
  await user.click(screen.getByRole('button', { name: 'Undo' }))
  expect(cell('Mark: W2')).toBeInTheDocument()
})

it('names what is wrong with a cell', async () => {
  const user = userEvent.setup()
  show(<JointGrid jobId={1} list={LIST} />)
  const wrong = screen.getAllByRole('gridcell', { name: 'Thickness 1: 20 mm' })[2]
  if (!wrong) throw new Error('no third row')
  expect(wrong).toHaveAttribute('aria-invalid', 'true')
  await user.click(wrong)
  expect(screen.getByText('It is a date.')).toBeInTheDocument()
})

it('keeps what was typed where somebody else changed the joint, and saves it over when asked', async () => {
  const user = userEvent.setup()
  const theirs = { rows: [{ id: 1, version: 4, cells: { mark: 'W1', weld: 'PJP', thickness: '20 mm' } }], gone: [] }
  const stale = {
    type: '/problems/stale',
    title: '',
    status: 409,
    detail: 'Ida changed these.',
    errors: [],
    current: theirs,
  }
  let times = 0
  const seen = serve(() => ((times += 1) === 1 ? { status: 409, body: stale } : { body: LIST }))
  show(<JointGrid jobId={1} list={LIST} />)
  await user.click(cell('Mark: W1'))
  await user.keyboard('X1{Enter}{Control>}s{/Control}')
  expect(await screen.findByText(/Ida changed these/)).toBeInTheDocument()
  expect(cell('Mark: X1')).toBeInTheDocument()
  await user.click(screen.getByRole('button', { name: 'Save mine over it' }))
  await waitFor(() => expect(seen).toHaveLength(2))
  expect(seen[1]?.body.changes).toEqual([{ id: 1, version: 4, cells: { mark: 'X1', weld: 'CJP', thickness: '20 mm' } }])
})

it('answers once for all rows, and keeps what was answered before', async () => {
  const user = userEvent.setup()
  const seen = serve(() => ({ body: LIST }))
  show(<Questions jobId={1} list={LIST} />)
  expect(screen.getByRole('button', { name: 'Answer' })).toBeDisabled()
  await user.type(screen.getByRole('combobox', { name: /S355 is unknown/ }), 'S355J2')
  await user.click(screen.getByRole('button', { name: 'Answer' }))
  await waitFor(() => expect(seen).toHaveLength(1))
  expect(seen[0]?.body).toMatchObject({ version: 3, answers: { size: 'leg', 'metal:s355': 'S355J2' } })
})

it('shows what was answered, and takes it back', async () => {
  const user = userEvent.setup()
  const seen = serve(() => ({ body: LIST }))
  const answered = {
    ...LIST,
    answers: { size: 'leg', 'weld:bw': 'pjp-groove', 'joint:fillet': 't', 'positions:': 'PA' },
  }
  show(<Answered jobId={1} list={answered} />)
  const list = screen.getByRole('list', { name: 'Answers', hidden: true })
  expect(list).toHaveTextContent('Size of a fillet weld: leg')
  expect(list).toHaveTextContent('Weld type “bw”: PJP groove weld, partial penetration')
  expect(list).toHaveTextContent('Joint type of “fillet weld”: T joint')
  expect(list).toHaveTextContent('Positions, not stated: PA')
  await user.click(screen.getByText('4 answers hold for all rows'))
  await user.click(screen.getByRole('button', { name: /Take back: Weld type/ }))
  await waitFor(() => expect(seen).toHaveLength(1))
  expect(seen[0]?.body.answers).toEqual({ size: 'leg', 'joint:fillet': 't', 'positions:': 'PA' })
})

it('takes a price with point or comma and no word', async () => {
  const user = userEvent.setup()
  const taken: number[] = []
  show(<NumberField label="Price" value={60} onChange={(value) => taken.push(value)} />)
  const field = screen.getByLabelText('Price')
  await user.clear(field)
  await user.type(field, '2,5')
  expect(taken.at(-1)).toBe(2.5)
  await user.type(field, 'x')
  expect(screen.getByRole('alert')).toHaveTextContent('a number is needed')
  expect(taken.at(-1)).toBe(2.5)
})
