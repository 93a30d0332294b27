import { screen, waitFor, within } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import { MemoryRouter } from 'react-router'
import { afterEach, describe, expect, it, vi } from 'vitest'

import type { Book, BookNumber, Person } from '../../api/types'
import { SessionContext } from '../../session/session'
import { serve, show, type Answer } from '../../testing'
import { BookPage, valueText } from './BookPage'

afterEach(() => vi.unstubAllGlobals())

const number = (row: string, column: string, value: unknown, status = 'memory'): BookNumber =>
  ({ id: `efficiency/${row}/${column}`, column, value, entered: value, status }) as BookNumber
const table = (id: string, title: string, ...rows: BookNumber[][]) => ({
  id,
  title,
  document: 'ISO/TR 17671-1',
  edition: '',
  clause: 'table 1',
  provenance: 'memory',
  notes: [],
  earlier: '',
  rows: rows.map((numbers) => ({
    key: numbers[0]?.id.split('/')[1] ?? '',
    clause: 'table 1',
    confidence: 'high',
    numbers,
  })),
})
const book = (code: string): Book =>
  ({
    parts: [
      { code: 'd11', title: 'AWS D1.1:2020', numbers: 3000, said: 1 },
      { code: 'heat', title: 'Heat input', numbers: 40, said: 0 },
    ],
    part:
      code === 'heat'
        ? {
            code: 'heat',
            title: 'Heat input',
            tables: [
              table(
                'efficiency',
                'Thermal efficiency k',
                [number('135', 'k', 0.8)],
                [number('141', 'k', 0.6, 'confirmed')],
              ),
            ],
          }
        : {
            code: 'd11',
            title: 'AWS D1.1:2020',
            tables: [table('preheat', 'Preheat', [number('B', 'groups', ['A36', 'A572'])])],
          },
    entries: [],
  }) as unknown as Book
const effect = {
  revision_id: 4,
  number: 'FB-27-P03',
  letter: 'A',
  stage: 'released',
  covered_before: true,
  covered_after: false,
  blocking: ['Thickness'],
  changes: ['Thickness 10 to 40 becomes 10 to 30'],
}

function open(
  at = '/book',
  answer: (path: string, body: Record<string, unknown>) => Answer | undefined = () => undefined,
  allowed: string[] = ['CORRECT_BOOK'],
) {
  const seen = serve(({ path, query, body }) => {
    const said = answer(path, body)
    if (said !== undefined) return said
    if (path === '/api/book/touched') return { body: [] }
    if (path === '/api/book/preview') return { body: [effect] }
    return { body: book(query.get('row')?.startsWith('efficiency') ? 'heat' : (query.get('code') ?? '')) }
  })
  show(
    <SessionContext value={{ person: { allowed } as unknown as Person, codes: [], signOut: () => undefined }}>
      <MemoryRouter initialEntries={[at]}>
        <BookPage />
      </MemoryRouter>
    </SessionContext>,
  )
  return seen
}

const dialog = async (name: RegExp) => {
  await userEvent.click(await screen.findByRole('button', { name }))
  return screen.findByRole('dialog')
}

describe('the code book', () => {
  it('counts the numbers of every part and shows one of them', async () => {
    open()
    expect(await screen.findByText(/3,040 numbers, 1 confirmed or corrected/)).toBeInTheDocument()
    expect(screen.getByText('Preheat')).toBeInTheDocument()
    expect(screen.queryByText('Thermal efficiency k')).toBeNull()
  })

  it('opens the part of a row that a source names', async () => {
    open('/book?row=efficiency/141')
    expect(await screen.findByRole('button', { name: /k ?0\.6/ })).toBeInTheDocument()
    expect(screen.queryByRole('button', { name: /k ?0\.8/ })).toBeNull()
  })

  it('shows only what nobody confirmed, where that is asked', async () => {
    open('/book?row=efficiency')
    await screen.findByRole('button', { name: /k ?0\.6/ })
    await userEvent.click(screen.getByRole('button', { name: 'Which numbers' }))
    await userEvent.click(await screen.findByRole('option', { name: 'not confirmed yet' }))
    await waitFor(() => expect(screen.queryByRole('button', { name: /k ?0\.6/ })).toBeNull())
  })

  it('says what does not answer', async () => {
    open('/book', (path) =>
      path === '/api/book'
        ? { status: 422, body: { type: '', title: '', status: 422, detail: 'The book is not there.', errors: [] } }
        : undefined,
    )
    expect(await screen.findByText('The book is not there.')).toBeInTheDocument()
  })
})

describe('a number', () => {
  it('shows which procedures a correction reaches before it is said', async () => {
    const seen = open('/book?row=efficiency/135')
    const box = await dialog(/^k ?0\.8/)
    const value = within(box).getByLabelText('Value as printed')
    await userEvent.clear(value)
    await userEvent.type(value, '0.85')
    expect(
      await within(box).findByText(/FB-27-P03 A, released: Thickness 10 to 40 becomes 10 to 30\. No longer covered\./),
    ).toBeInTheDocument()
    expect(seen.find((one) => one.path === '/api/book/preview')?.body).toEqual({
      number_id: 'efficiency/135/k',
      said: 'correct',
      value: 0.85,
    })
    expect(within(box).getByRole('button', { name: 'Confirm it' })).toBeDisabled()
  })

  it('is corrected with its reason, and a refusal stands beside the field', async () => {
    const refused = {
      status: 422,
      body: {
        type: '',
        title: '',
        status: 422,
        detail: 'State the reason.',
        errors: [{ path: 'reason', message: 'state what was compared', value: '' }],
      },
    }
    const seen = open('/book?row=efficiency/135', (path, body) =>
      path === '/api/book' && body.said ? (body.reason ? { status: 201, body: {} } : refused) : undefined,
    )
    const box = await dialog(/^k ?0\.8/)
    await userEvent.clear(within(box).getByLabelText('Value as printed'))
    await userEvent.type(within(box).getByLabelText('Value as printed'), '0,85')
    await waitFor(() => expect(within(box).getByRole('button', { name: 'Correct it' })).toBeEnabled())
    await userEvent.click(within(box).getByRole('button', { name: 'Correct it' }))
    expect(await within(box).findByText('state what was compared')).toBeInTheDocument()
    expect(within(box).getByLabelText('Value as printed')).toHaveValue('0,85')
    await userEvent.type(within(box).getByLabelText('Reason'), 'own copy, page 12')
    await userEvent.click(within(box).getByRole('button', { name: 'Correct it' }))
    await waitFor(() => expect(screen.queryByRole('dialog')).toBeNull())
    expect(seen.findLast((one) => one.path === '/api/book' && one.body.said)?.body).toEqual({
      number_id: 'efficiency/135/k',
      said: 'correct',
      value: 0.85,
      reason: 'own copy, page 12',
    })
  })

  it('takes no word for a number', async () => {
    open('/book?row=efficiency/135')
    const box = await dialog(/^k ?0\.8/)
    await userEvent.clear(within(box).getByLabelText('Value as printed'))
    await userEvent.type(within(box).getByLabelText('Value as printed'), 'much')
    expect(await within(box).findByText('Wrong type of value')).toBeInTheDocument()
    expect(within(box).getByRole('button', { name: 'Correct it' })).toBeDisabled()
  })

  it('is only read by those who may not correct it', async () => {
    open('/book?row=efficiency/135', undefined, [])
    const box = await dialog(/^k ?0\.8/)
    expect(within(box).getByText('Engineers confirm and correct numbers.')).toBeInTheDocument()
    expect(within(box).queryByRole('button', { name: 'Correct it' })).toBeNull()
  })
})

it.each([
  [[1, 2], '1, 2'],
  [[], 'none'],
  [true, 'yes'],
  [false, 'no'],
  [0.8, '0.8'],
  ['', 'none'],
  [{ over: 5, to: 15 }, 'over 5, to 15'],
  [
    [
      [1, 2],
      [3, 4],
    ],
    '1, 2, 3, 4',
  ],
])('%j is written as %s', (value, written) => {
  expect(valueText(value)).toBe(written)
})
