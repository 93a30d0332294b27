import { screen } from '@testing-library/react'
import { expect, test } from 'vitest'

import type { Person } from '../../api/types'
import { SessionContext } from '../../session/session'
import { serve, show } from '../../testing'
import { OperationsPage } from './OperationsPage'

const FACTS = [
  { what: 'Backup', said: 'None has been taken.', mark: 'breach', todo: 'Take one with ./bead backup.' },
  { what: 'Disk', said: '80 GB of 271 GB are free', mark: 'holds', todo: '' },
]

function open(allowed: string[]) {
  const person = { allowed } as unknown as Person
  show(
    <SessionContext value={{ person, codes: [], signOut: () => undefined }}>
      <OperationsPage />
    </SessionContext>,
  )
}

test('what has to be done stands with its mark and what helps, in the order of the server', async () => {
  serve(() => ({ body: { version: '0.2.0', at: '2026-11-28T10:00:00Z', facts: FACTS } }))
  open(['KEEP_PEOPLE'])
  const rows = (await screen.findAllByRole('row')).slice(1)
  expect(rows.map((row) => row.textContent)).toEqual([
    expect.stringMatching(/^Backup.*None has been taken\.Take one with/),
    expect.stringMatching(/^Disk.*80 GB of 271 GB are free$/),
  ])
  expect(screen.getByText(/version 0\.2\.0, as of 2026-11-28/)).toBeVisible()
})

test('nobody else asks for it', () => {
  const asked = serve(() => ({ body: {} }))
  open([])
  expect(screen.getByText('An administrator looks after the server.')).toBeVisible()
  expect(asked).toEqual([])
})

test('a server that does not answer is not told as one that stands well', async () => {
  serve(() => ({
    status: 503,
    body: { type: '/problems/database', title: '', status: 503, detail: 'It is away.', errors: [] },
  }))
  open(['KEEP_PEOPLE'])
  expect(await screen.findByText('It is away.')).toBeVisible()
  expect(screen.queryByRole('table')).toBeNull()
})
