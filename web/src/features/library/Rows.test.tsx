import { screen } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import { expect, it } from 'vitest'

import { show } from '../../testing'
import { Rows } from './Rows'

const line = (name: string) => ({ key: name, cells: [name], details: () => <p>all of {name}</p> })
const table = (...names: string[]) => <Rows label="Metals" heads={['Metal']} lines={names.map(line)} />

it('opens one row at a time, and the same button closes it', async () => {
  show(table('S355J2', 'S690QL'))
  const first = screen.getByRole('button', { name: 'S355J2' })
  await userEvent.click(first)
  expect(first).toHaveAttribute('aria-expanded', 'true')
  await userEvent.click(screen.getByRole('button', { name: 'S690QL' }))
  expect(screen.queryByText('all of S355J2')).toBeNull()
  await userEvent.click(screen.getByRole('button', { name: 'S690QL' }))
  expect(screen.queryByText('all of S690QL')).toBeNull()
})

it('keeps a row open while a search that is answered late finds nothing and then the row again', async () => {
  const { again } = show(table('S355J2', 'Lug casting 7'))
  await userEvent.click(screen.getByRole('button', { name: 'Lug casting 7' }))
  again(table())
  expect(screen.queryByRole('table')).toBeNull()
  again(table('Lug casting 7'))
  expect(screen.getByText('all of Lug casting 7')).toBeVisible()
})
