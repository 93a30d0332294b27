import { fireEvent, screen, waitFor } from '@testing-library/react'
import { expect, test, vi } from 'vitest'

import { serve, show } from '../testing'
import { PasswordDialog } from './PasswordDialog'

const fill = (label: RegExp, value: string) => fireEvent.change(screen.getByLabelText(label), { target: { value } })

test('two new passwords that differ are not sent', () => {
  const asked = serve(() => ({ body: {} }))
  show(<PasswordDialog onClose={vi.fn()} onDone={vi.fn()} />)
  fill(/Present/, 'old-one-of-mine')
  fill(/at least/, 'heather-and-tin-4')
  fill(/again/, 'heather-and-tin-5')
  expect(screen.getByRole('alert')).toHaveTextContent('not the same')
  expect(screen.getByRole('button', { name: 'Change it' })).toBeDisabled()
  expect(asked).toEqual([])
})

test('a refusal stands beside its field, and what was typed stays', async () => {
  serve(() => ({
    status: 422,
    body: {
      type: '/problems/invalid',
      title: '',
      status: 422,
      detail: 'The password is made of your own name.',
      errors: [{ path: 'new', message: 'The password is made of your own name.', value: '' }],
    },
  }))
  const onClose = vi.fn()
  show(<PasswordDialog onClose={onClose} onDone={vi.fn()} />)
  fill(/Present/, 'old-one-of-mine')
  fill(/at least/, 'imra-vance-imra')
  fill(/again/, 'imra-vance-imra')
  fireEvent.click(screen.getByRole('button', { name: 'Change it' }))
  expect(await screen.findByRole('alert')).toHaveTextContent('your own name')
  expect(screen.getByLabelText(/at least/)).toHaveValue('imra-vance-imra')
  expect(onClose).not.toHaveBeenCalled()
})

test('a change is handed on and the dialog closes', async () => {
  const asked = serve(() => ({ body: { person: null, demo: [] } }))
  const onClose = vi.fn()
  const onDone = vi.fn()
  show(<PasswordDialog onClose={onClose} onDone={onDone} />)
  fill(/Present/, 'old-one-of-mine')
  fill(/at least/, 'heather-and-tin-4')
  fill(/again/, 'heather-and-tin-4')
  fireEvent.click(screen.getByRole('button', { name: 'Change it' }))
  await waitFor(() => expect(onClose).toHaveBeenCalled())
  expect(onDone).toHaveBeenCalledWith({ person: null, demo: [] })
  expect(asked[0]?.body).toEqual({ current: 'old-one-of-mine', new: 'heather-and-tin-4' })
})
