import { fireEvent, screen, waitFor } from '@testing-library/react'
import { expect, test, vi } from 'vitest'

import { serve, show } from '../../testing'
import { CoversBox } from './CoversBox'

vi.mock('../../session/job', () => ({ useJob: () => ({ job: undefined }) }))

const COVERED = { covered: true, verdict: 'complies', by: ['WPQR'], combination: '', findings: [] }

test('what is asked is what was typed last, and an answer goes with a changed joint', async () => {
  const waiting: (() => void)[] = []
  const asked = serve(async ({ path, body }) => {
    if (path.endsWith('/covers')) return { body: COVERED }
    if (!path.endsWith('/read')) return { body: [] }
    await new Promise<void>((go) => waiting.push(go))
    return { body: { understood: true, value: Number(body.text), text: body.text } }
  })
  const told = () => asked.filter((one) => one.path.endsWith('/covers'))
  show(<CoversBox couponId={1} code={null} />)
  fireEvent.change(screen.getByLabelText('Thickness'), { target: { value: '40' } })
  fireEvent.blur(screen.getByLabelText('Thickness'))
  fireEvent.click(screen.getByRole('button', { name: 'Ask' }))
  await waitFor(() => expect(waiting).toHaveLength(1))
  await new Promise((go) => setTimeout(go, 150))
  expect(told()).toHaveLength(0)
  waiting[0]?.()
  expect(await screen.findByText(/covered by WPQR/)).toBeTruthy()
  expect(told()[0]?.body.joint).toMatchObject({ base_metals: [{ thickness_mm: 40 }, { thickness_mm: 40 }] })

  fireEvent.change(screen.getByLabelText('Thickness'), { target: { value: '80' } })
  await waitFor(() => expect(screen.queryByText(/covered by WPQR/)).toBeNull())
})
