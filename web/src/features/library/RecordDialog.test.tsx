import { screen, waitFor } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import { afterEach, expect, it, vi } from 'vitest'

import type { Product, LibraryRecord } from '../../api/types'
import { serve, show } from '../../testing'
import { TextField } from '../../ui/TextField'
import { ProductForm } from './ProductForm'
import { RecordDialog } from './RecordDialog'
import { MetalForm } from './MetalForm'

afterEach(() => vi.unstubAllGlobals())

const product: Product = {
  format: 'grounded-bead/product',
  version: 1,
  name: 'Fern 71',
  designation: 'E71T-1M',
  ranges: [],
}
const record: LibraryRecord = {
  id: 7,
  kind: 'product',
  name: 'Fern 71',
  version: 3,
  document: product,
  saved_by: 'Imra Vance',
  saved_at: '2026-01-01T10:00:00Z',
  damaged: '',
  used_in: 0,
  overdue_meters: [],
}
const refusal = (type: string, status: number, detail: string, more: object = {}) => ({
  status,
  body: { type: `/problems/${type}`, title: '', status, detail, errors: [], ...more },
})

function dialog(onClose = vi.fn(), one: LibraryRecord | null = record) {
  show(
    <RecordDialog<Product>
      kind="product"
      words="filler"
      record={one}
      empty={product}
      onClose={onClose}
      form={(document, put, errors) => (
        <TextField
          label="Notes"
          value={document.notes}
          onChange={(notes) => put({ notes })}
          error={errors.get('notes')}
        />
      )}
    />,
  )
  return onClose
}

it('saves with the version that was opened', async () => {
  const seen = serve(() => ({ body: record }))
  const close = dialog()
  await userEvent.type(await screen.findByLabelText('Notes'), 'dry it')
  await userEvent.click(screen.getByRole('button', { name: 'Save' }))
  await waitFor(() => expect(close).toHaveBeenCalled())
  expect(seen[0]).toMatchObject({ path: '/api/library/7', body: { version: 3, document: { notes: 'dry it' } } })
})

it('when someone saved in the meantime nothing is lost, and one chooses', async () => {
  const theirs = { version: 4, document: { ...product, notes: 'theirs' } }
  const seen = serve(({ body }) =>
    body.version === 3
      ? refusal('stale', 409, 'Odile saved Fern 71 after you opened it.', { current: theirs })
      : { body: record },
  )
  const close = dialog()
  await userEvent.type(await screen.findByLabelText('Notes'), 'mine')
  await userEvent.click(screen.getByRole('button', { name: 'Save' }))
  expect(await screen.findByText(/Odile saved/)).toBeInTheDocument()
  expect(screen.getByLabelText('Notes')).toHaveValue('mine')
  await userEvent.click(screen.getByRole('button', { name: 'Save mine over it' }))
  await waitFor(() => expect(close).toHaveBeenCalled())
  expect(seen.at(-1)?.body).toMatchObject({ version: 4, document: { notes: 'mine' } })
})

it('a refusal stands beside its field, and goes as one types on', async () => {
  serve(() => refusal('document', 422, 'no', { errors: [{ path: 'notes', message: 'too odd', value: '' }] }))
  dialog(vi.fn(), null)
  await userEvent.click(await screen.findByRole('button', { name: 'Add the filler' }))
  expect(await screen.findByText('too odd')).toBeInTheDocument()
  await userEvent.type(screen.getByLabelText('Notes'), 'x')
  await waitFor(() => expect(screen.queryByText('too odd')).not.toBeInTheDocument())
})

it('what is in use is not removed, and says where', async () => {
  serve(() => refusal('conflict', 409, 'Fern 71 is used in FB-27-P03 A; it stays while they use it.'))
  const close = dialog()
  await userEvent.click(await screen.findByRole('button', { name: 'Remove' }))
  await userEvent.click(screen.getByRole('button', { name: 'Remove it' }))
  expect(await screen.findByText(/is used in FB-27-P03 A/)).toBeInTheDocument()
  expect(close).not.toHaveBeenCalled()
})

it('a number that was not understood keeps the record from being saved without it', async () => {
  const seen = serve(({ path }) =>
    path === '/api/read' ? refusal('unreadable', 422, 'abc does not start with a number') : { body: record },
  )
  const close = vi.fn()
  show(
    <RecordDialog<Product>
      kind="product"
      words="filler"
      record={record}
      empty={product}
      onClose={close}
      form={(document, put, errors) => (
        <ProductForm
          document={{ ...document, ranges: [{ diameter_mm: 1.2, positions: [] }], designation: '' }}
          put={put}
          errors={errors}
        />
      )}
    />,
  )
  await userEvent.type(await screen.findByLabelText('Current, range 1'), 'abc')
  await screen.findByText(/does not start with a number/)
  await userEvent.click(screen.getByRole('button', { name: 'Save' }))
  expect(await screen.findByText(/correct the marked field first/)).toBeInTheDocument()
  expect(seen.every((one) => one.path === '/api/read')).toBe(true)
})

it('two steps of yield typed quickly are both kept', async () => {
  serve(({ body }) => ({ body: { value: Number(body.text), understood: String(body.text) } }))
  const kept: unknown[] = []
  const put = vi.fn((change: unknown) =>
    kept.push(typeof change === 'function' ? (change as (before: object) => object)({ yield_steps: [] }) : change),
  )
  show(
    <MetalForm
      document={{ format: 'grounded-bead/metal', version: 1, name: 'x', family: 'carbon', also: [], yield_steps: [] }}
      put={put}
      errors={new Map()}
    />,
  )
  await userEvent.type(screen.getByLabelText('Up to, new step'), '40')
  await userEvent.type(screen.getByLabelText('Yield, new step'), '355')
  await userEvent.tab()
  await waitFor(() => expect(kept).toContainEqual({ yield_steps: [{ up_to_mm: 40, yield_mpa: 355 }] }))
})
