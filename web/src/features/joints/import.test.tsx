import { screen, waitFor } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import { afterEach, expect, it, vi } from 'vitest'

import type { ListLook } from '../../api/types'
import { show } from '../../testing'
import { ImportDialog } from './ImportDialog'

const LOOK: ListLook = {
  version: 4,
  columns: [
    { name: 'mark', title: 'Mark', own: true },
    { name: 'weld', title: 'Weld type', own: false },
    { name: 'metal', title: 'Base metal 1', own: false },
    { name: 'thickness', title: 'Thickness 1', own: false },
  ],
  headings: ['Weld No.', 'Nahtart', 'Wish'],
  first_row: 3,
  mapping: { mark: 'Weld No.', weld: 'Nahtart' },
  units: {},
  questions: [
    {
      key: 'weld:bw',
      column: 'weld',
      message: 'BW, how far?',
      choices: ['cjp-groove', 'pjp-groove'],
      rows: 2,
      first_row: 3,
    },
  ],
  rows: [
    {
      id: 5,
      version: 0,
      cells: { mark: 'W3' },
      type: '',
      problems: [{ column: 'thickness', message: 'It is a date.', asks: '', choices: [] }],
    },
  ],
  joints: 3,
  with_problems: 3,
  added: 1,
  changed: [{ mark: 'W2', cells: [{ column: 'thickness', before: '20 mm', after: '25 mm' }] }],
  changed_count: 1,
  same: 1,
  gone: ['W7'],
}

type Sent = { path: string; head: Record<string, unknown> | null; file: string }

/** Stand in for the server: what was sent in front of the file, and the file. */
function receive(answer: (sent: Sent) => { status: number; body: unknown }): Sent[] {
  const seen: Sent[] = []
  vi.stubGlobal('fetch', async (address: string, options: { body: ArrayBuffer }) => {
    const url = new URL(address, 'http://127.0.0.1')
    const bytes = new Uint8Array(options.body)
    const head = Number(url.searchParams.get('head'))
    const text = (part: Uint8Array) => new TextDecoder().decode(part)
    const sent = {
      path: url.pathname + url.search.replace(/head=\d+&?/, ''),
      head: head > 0 ? (JSON.parse(text(bytes.slice(0, head))) as Record<string, unknown>) : null,
      file: text(bytes.slice(head)),
    }
    seen.push(sent)
    const { status, body } = answer(sent)
    return Promise.resolve(new Response(JSON.stringify(body), { status }))
  })
  return seen
}

afterEach(() => vi.unstubAllGlobals())

async function choose(user: ReturnType<typeof userEvent.setup>) {
  await user.upload(screen.getByLabelText('Weld list file'), new File(['Weld No.;Nahtart\n'], 'list.csv'))
}

it('shows how a file is read, asks once, and takes it with the answers', async () => {
  const user = userEvent.setup()
  let closed = false
  const seen = receive(({ path }) => ({ status: 200, body: path.includes('/take') ? { rows: [] } : LOOK }))
  show(<ImportDialog jobId={9} onClose={() => (closed = true)} />)
  await choose(user)
  expect(await screen.findByRole('button', { name: 'Column Nahtart' })).toHaveTextContent('Weld type')
  expect(screen.getByRole('button', { name: 'Column Wish' })).toHaveTextContent('left out')
  expect(screen.getByText('1 added, 1 changed, 1 gone, 1 as before')).toBeInTheDocument()
  expect(screen.getByText(/20 mm → 25 mm/)).toBeInTheDocument()
  expect(screen.getByRole('list', { name: 'To correct' })).toHaveTextContent('W3 Thickness 1: It is a date.')
  expect(seen[0]).toMatchObject({ head: null, file: 'Weld No.;Nahtart\n' })

  await user.click(screen.getByRole('button', { name: 'BW, how far?' }))
  await user.click(await screen.findByRole('option', { name: /full penetration/ }))
  await user.click(screen.getByRole('button', { name: 'Column Wish' }))
  await user.click(await screen.findByRole('option', { name: 'Base metal 1' }))
  await waitFor(() => expect(seen.at(-1)?.head).toMatchObject({ headings: { metal: 'Wish' } }))

  await user.click(screen.getByRole('checkbox', { name: /W7/ }))
  await user.click(screen.getByRole('button', { name: 'Take the list' }))
  await waitFor(() => expect(closed).toBe(true))
  const taken = seen.at(-1)
  expect(taken?.path).toBe('/api/jobs/9/weld-list/take?version=4&remove_gone=true')
  expect(taken?.file).toBe('Weld No.;Nahtart\n')
  expect(taken?.head).toEqual({
    first_row: 3,
    headings: { mark: 'Weld No.', weld: 'Nahtart', metal: 'Wish' },
    units: {},
    answers: { 'weld:bw': 'cjp-groove' },
  })
})

it('keeps what was read in sight while an answer is read, and takes only what was seen', async () => {
  const user = userEvent.setup()
  receive(() => ({ status: 200, body: LOOK }))
  const soon = fetch
  const held: (() => void)[] = []
  show(<ImportDialog jobId={9} onClose={() => undefined} />)
  await choose(user)
  await screen.findByRole('button', { name: 'BW, how far?' })
  vi.stubGlobal('fetch', async (...of: Parameters<typeof fetch>) => {
    await new Promise<void>((done) => held.push(done))
    return soon(...of)
  })
  await user.click(screen.getByRole('button', { name: 'BW, how far?' }))
  await user.click(await screen.findByRole('option', { name: /full penetration/ }))
  expect(screen.getByRole('button', { name: 'Take the list' })).toBeDisabled()
  // A list that is opened while the answer is on its way stays open when it comes.
  await user.click(screen.getByRole('button', { name: 'Column Wish' }))
  await waitFor(() => expect(held).toHaveLength(1))
  expect(screen.getByRole('option', { name: 'Base metal 1' })).toBeVisible()
  held.forEach((release) => release())
  await waitFor(() => expect(screen.getByRole('option', { name: 'Base metal 1' })).toBeVisible())
  await user.keyboard('{Escape}')
  await waitFor(() => expect(screen.getByRole('button', { name: 'Take the list' })).toBeEnabled())
})

it('says why a file is refused, and takes another one', async () => {
  const user = userEvent.setup()
  const problem = {
    type: '/problems/invalid',
    title: '',
    status: 422,
    detail: 'This is neither CSV nor XLSX.',
    errors: [],
  }
  let times = 0
  receive(() => ((times += 1) === 1 ? { status: 422, body: problem } : { status: 200, body: LOOK }))
  show(<ImportDialog jobId={9} onClose={() => undefined} />)
  await choose(user)
  expect(await screen.findByText('This is neither CSV nor XLSX.')).toBeInTheDocument()
  expect(screen.getByRole('button', { name: 'Take the list' })).toBeDisabled()
  await choose(user)
  expect(await screen.findByRole('button', { name: 'Column Nahtart' })).toBeInTheDocument()
  expect(screen.queryByText('This is neither CSV nor XLSX.')).not.toBeInTheDocument()
})
