import { screen, within } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import { expect, test, vi } from 'vitest'

import { serve, show } from '../testing'
import { SessionsDialog } from './SessionsDialog'

const line = (id: number, device: string, here = false) => ({
  id,
  device,
  address: `10.0.0.${String(id)}`,
  began_at: '2026-11-28T08:00:00Z',
  last_at: '2026-11-28T09:30:00Z',
  this: here,
})
const THREE = [line(1, 'Firefox, Linux', true), line(2, 'Chromium, Android'), line(3, '')]

test('a lost tablet is signed out, and the one in use is not offered', async () => {
  const asked = serve(({ path }) => ({ body: path.endsWith('/2') ? [THREE[0], THREE[2]] : THREE }))
  show(<SessionsDialog onClose={vi.fn()} />)
  const rows = await screen.findAllByRole('listitem')
  expect(within(rows[0] as HTMLElement).queryByRole('button')).toBeNull()
  expect(rows[2]).toHaveTextContent('A device that does not say what it is')
  await userEvent.click(screen.getByRole('button', { name: 'Sign out Chromium, Android' }))
  expect(await screen.findAllByRole('listitem')).toHaveLength(2)
  expect(asked.map((one) => one.path)).toEqual(['/api/session/all', '/api/session/all/2'])
  // One other is left: signing out everywhere else would be the same button twice.
  expect(screen.queryByRole('button', { name: 'Sign out everywhere else' })).toBeNull()
})

test('all others are signed out at once', async () => {
  serve(({ path }) => ({ body: path === '/api/session/all' ? THREE : [] }))
  show(<SessionsDialog onClose={vi.fn()} />)
  await screen.findAllByRole('listitem')
  serve(() => ({ body: [THREE[0]] }))
  await userEvent.click(screen.getByRole('button', { name: 'Sign out everywhere else' }))
  expect(await screen.findByText('You are signed in nowhere else.')).toBeVisible()
})

test('what fails is said, and nothing is told as ended', async () => {
  serve(() => ({ body: THREE }))
  show(<SessionsDialog onClose={vi.fn()} />)
  await screen.findAllByRole('listitem')
  serve(() => ({
    status: 503,
    body: { type: '/problems/database', title: '', status: 503, detail: 'It is away.', errors: [] },
  }))
  await userEvent.click(screen.getByRole('button', { name: 'Sign out Chromium, Android' }))
  expect(await screen.findByText('It is away.')).toBeVisible()
  expect(screen.getAllByRole('listitem')).toHaveLength(3)
})
