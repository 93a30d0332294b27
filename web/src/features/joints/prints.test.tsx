import { screen } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import { expect, it } from 'vitest'

import { serve, show } from '../../testing'
import { PrintAll } from './PrintAll'

const RUN = { id: 7, what: 'sheets', state: 'running', doing: 'set', done: 40, of: 90, problem: '' }
const sheets = (count: number) =>
  show(<PrintAll jobId={3} what="sheets" count={count} atOnce={40} direct="/direct" words="Print the booth sheets" />)

it('is a link while somebody can wait for the sheets', () => {
  serve(() => ({ body: RUN }))
  sheets(40)
  expect(screen.getByRole('link', { name: 'Print the booth sheets' })).toHaveAttribute('href', '/direct')
})

it('has many set beside the pages, tells how far they are, and opens what was made', async () => {
  let looks = 0
  const sent = serve(({ path }) => {
    if (path.endsWith('/print-runs')) return { body: { ...RUN, state: 'waiting', done: 0, of: 0 } }
    looks += 1
    return { body: looks < 2 ? RUN : { ...RUN, state: 'done' } }
  })
  sheets(90)
  await userEvent.click(screen.getByRole('button', { name: 'Print the booth sheets (90)' }))
  expect(await screen.findByText('40 of 90')).toBeVisible()
  const open = await screen.findByRole('link', { name: 'Open the 90 booth sheets (PDF)' })
  expect(open).toHaveAttribute('href', '/api/jobs/3/joints/print-runs/7/file')
  expect(sent[0]?.body).toMatchObject({ what: 'sheets', units: 'si' })
})

it('is ended, and asked for again', async () => {
  let stopped = false
  serve(({ path }) => {
    if (path.endsWith('/stop')) stopped = true
    return { body: stopped ? { ...RUN, state: 'stopped' } : RUN }
  })
  sheets(90)
  await userEvent.click(screen.getByRole('button', { name: 'Print the booth sheets (90)' }))
  await userEvent.click(await screen.findByRole('button', { name: 'Stop' }))
  expect(await screen.findByRole('button', { name: 'Print the booth sheets (90)' })).toBeEnabled()
})

it('says why there is none', async () => {
  serve(() => ({ body: { ...RUN, state: 'failed', problem: 'The list changed since: print again.' } }))
  sheets(90)
  await userEvent.click(screen.getByRole('button', { name: 'Print the booth sheets (90)' }))
  expect(await screen.findByText('The list changed since: print again.')).toBeVisible()
})
