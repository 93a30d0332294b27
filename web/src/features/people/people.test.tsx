import { screen } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import { expect, test, vi } from 'vitest'

import type { Account, Person } from '../../api/types'
import { SessionContext } from '../../session/session'
import { serve, show } from '../../testing'
import { PersonDialog } from './PersonDialog'

vi.mock('../../session/job', () => ({
  useJob: () => ({
    jobs: [
      { id: 3, number: 'FB-27', title: 'Footbridge' },
      { id: 4, number: 'GY-2', title: 'Gantry' },
    ],
  }),
}))

const GIL: Account = {
  id: 7,
  username: 'gil',
  name: 'Gil Stone',
  role: 'examiner',
  active: true,
  only_jobs: [3],
  invited: false,
  password_own: true,
  locked: false,
  second_factor: false,
  last_login: null,
  seen: 'abc',
}

function open(account?: Account) {
  const person = { id: 1, allowed: ['KEEP_PEOPLE'] } as unknown as Person
  const onClose = vi.fn()
  show(
    <SessionContext value={{ person, codes: [], signOut: () => undefined }}>
      <PersonDialog account={account} onClose={onClose} onInvited={vi.fn()} />
    </SessionContext>,
  )
  return onClose
}

async function save() {
  await userEvent.type(screen.getByLabelText(/your password/), 'nine quiet kettles 4')
  await userEvent.click(screen.getByRole('button', { name: 'Save' }))
}

test('the jobs that a person sees are ticked, and sent over what was seen', async () => {
  const asked = serve(() => ({ body: GIL }))
  const onClose = open(GIL)
  expect(screen.getByLabelText('FB-27 Footbridge')).toBeChecked()
  await userEvent.click(screen.getByLabelText('GY-2 Gantry'))
  await userEvent.click(screen.getByLabelText('FB-27 Footbridge'))
  await save()
  expect(asked[0]?.body).toMatchObject({ only_jobs: [4], seen: 'abc', role: 'examiner' })
  expect(onClose).toHaveBeenCalled()
})

test('all of the shop is told as none named', async () => {
  const asked = serve(() => ({ body: GIL }))
  open(GIL)
  await userEvent.click(screen.getByLabelText('all jobs and the whole shop'))
  expect(screen.queryByLabelText('FB-27 Footbridge')).toBeNull()
  await save()
  expect(asked[0]?.body.only_jobs).toBeNull()
})

test('a refusal stands beside the jobs, and what was ticked stays', async () => {
  const said = 'Name at least one job.'
  const errors = [{ path: 'only_jobs', message: said, value: '' }]
  serve(() => ({ status: 422, body: { type: '/problems/invalid', title: '', status: 422, detail: said, errors } }))
  const onClose = open(GIL)
  await save()
  expect(await screen.findByRole('alert')).toHaveTextContent(said)
  expect(screen.getByLabelText('FB-27 Footbridge')).toBeChecked()
  expect(onClose).not.toHaveBeenCalled()
})
