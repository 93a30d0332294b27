import { screen } from '@testing-library/react'
import { expect, it } from 'vitest'

import { show } from '../testing'
import { NamedWelders } from './NamedWelders'

const reasons = ['Welding position: PC is not covered.']

it.each([
  ['may', 'is qualified for this weld', 'holds'],
  ['lapsed', 'has lapsed', 'nonconformity'],
  ['blocked', 'is not qualified for this weld', 'nonconformity'],
  ['untested', 'holds no certificate', 'nonconformity'],
  ['open', 'is not decided', 'unknown'],
  ['unknown', 'is not known', 'unknown'],
] as const)('says of somebody who is %s that the qualification %s', (standing, said, mark) => {
  show(<NamedWelders found={[{ name: 'R. Okafor', standing, reasons }]} note="It is not released." />)
  const status = screen.getByRole('status')
  expect(status.textContent).toContain(said)
  expect(status.textContent).toContain(reasons[0])
  expect(screen.getByRole('img', { name: mark })).toBeDefined()
  // What follows is said only where something stands against it.
  expect(status.textContent.includes('It is not released.')).toBe(standing !== 'may')
})

it('says nothing where nobody is named', () => {
  show(<NamedWelders found={[]} />)
  expect(screen.queryByRole('status')).toBeNull()
})
