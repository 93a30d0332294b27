import { screen } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import { afterEach, expect, test, vi } from 'vitest'

import { refusal, serve, show } from '../testing'
import { SecondFactor } from './SecondFactor'
import { SignInForm } from './SignIn'

afterEach(() => vi.unstubAllGlobals())

const CODES = ['0011-2233-4455-6677', '8899-aabb-ccdd-eeff']

test('it is set up with a code of the device, and the recovery codes are shown', async () => {
  const asked = serve(({ path, body }) => {
    if (path !== '/api/session/factor') return { body: {} }
    if ('password' in body) return { body: { secret: 'ABCDEFGH2345', address: 'otpauth://totp/x', qr: 'data:,' } }
    return 'code' in body ? { body: { codes: CODES } } : { body: { on: false, set_at: null, codes_left: 0 } }
  })
  show(<SecondFactor onClose={vi.fn()} />)
  await userEvent.type(await screen.findByLabelText('your password, again'), 'nine quiet kettles')
  await userEvent.click(screen.getByRole('button', { name: 'Begin' }))
  expect(await screen.findByText(/ABCD EFGH 2345/)).toBeVisible()
  expect(screen.getByRole('img', { name: /QR code/ })).toHaveAttribute('src', 'data:,')
  await userEvent.type(screen.getByLabelText('Code of your device'), '287082')
  await userEvent.click(screen.getByRole('button', { name: 'Ask for it from now on' }))
  for (const one of CODES) expect(await screen.findByText(one)).toBeVisible()
  expect(asked.map((one) => one.body)).toEqual(
    expect.arrayContaining([{ password: 'nine quiet kettles' }, { code: '287082' }]),
  )
})

test('it is removed with password and code, and a wrong code is said beside the field', async () => {
  const said = 'Password and code do not fit, or the code was used.'
  const wrong = refusal(said)
  serve(({ path }) =>
    path === '/api/session/factor/removal'
      ? { status: 422, body: { ...(wrong?.body as object), errors: [{ path: 'code', message: said, value: '' }] } }
      : { body: { on: true, set_at: '2026-12-01T08:00:00Z', codes_left: 9 } },
  )
  const onClose = vi.fn()
  show(<SecondFactor onClose={onClose} />)
  expect(await screen.findByText(/9 recovery codes are left/)).toBeVisible()
  await userEvent.type(screen.getByLabelText('your password, again'), 'nine quiet kettles')
  await userEvent.type(screen.getByLabelText('Code of your device'), '000000')
  await userEvent.click(screen.getByRole('button', { name: 'Remove it' }))
  expect(await screen.findByRole('alert')).toHaveTextContent(said)
  expect(onClose).not.toHaveBeenCalled()
})

test('signing in asks for the code only where one is needed, and sends it with the rest', async () => {
  const needed = { type: '/problems/code-needed', title: '', status: 422, detail: 'Enter the code.', errors: [] }
  const asked = serve(({ body }) => (body.code ? { body: { person: null, demo: [] } } : { status: 422, body: needed }))
  const onDone = vi.fn()
  show(<SignInForm demo={[]} onDone={onDone} />)
  expect(screen.queryByLabelText(/Code of your device/)).not.toBeInTheDocument()
  await userEvent.type(screen.getByLabelText('Name'), 'imra')
  await userEvent.type(screen.getByLabelText('Password'), 'nine quiet kettles')
  await userEvent.click(screen.getByRole('button', { name: 'Sign in' }))
  await userEvent.type(await screen.findByLabelText(/Code of your device/), '287082')
  await userEvent.click(screen.getByRole('button', { name: 'Sign in' }))
  expect(asked.at(-1)?.body).toEqual({ username: 'imra', password: 'nine quiet kettles', code: '287082' })
  expect(onDone).toHaveBeenCalled()
})
