import { expect, it } from 'vitest'

import type { Machine, OwnMetal, Procedure, Product } from '../api/types'
import { EMPTY, withMetal } from './procedure'
import { machinesOf, withFiller, withMachine, withOwnMetal } from './library'

const machine = (name: string, more: Partial<Machine> = {}): Machine => ({
  format: 'grounded-bead/machine',
  version: 1,
  name,
  supplies: [],
  meters: [],
  ...more,
})
const product: Product = {
  format: 'grounded-bead/product',
  version: 1,
  name: 'Fern 71',
  designation: 'E71T-1M',
  ranges: [],
}
const metal: OwnMetal = {
  format: 'grounded-bead/metal',
  version: 1,
  name: 'Lug 7',
  family: 'carbon',
  also: [],
  yield_steps: [],
}
const two: Procedure = {
  ...EMPTY,
  passes: [
    { number: 1, side: 1, role: 'root', process: '135' },
    { number: 2, side: 1, role: 'fill', process: '135' },
  ],
}

it('a machine that is chosen goes along, and leaves when no pass names it', () => {
  const one = withMachine(two, [1, 2], 'Bay 1', machine('Bay 1'))
  expect(machinesOf(one).map((found) => found.name)).toEqual(['Bay 1'])
  const both = withMachine(one, [2], 'Bay 2', machine('Bay 2'))
  expect(machinesOf(both).map((found) => found.name)).toEqual(['Bay 1', 'Bay 2'])
  const back = withMachine(both, [1], null, undefined)
  expect(machinesOf(back).map((found) => found.name)).toEqual(['Bay 2'])
  expect(withMachine(back, [2], null, undefined).shelf).toBeNull()
})

it('a record that is taken over again replaces the old copy', () => {
  const before = withMachine(two, [1], 'Bay 1', machine('Bay 1'))
  const after = withMachine(before, [1], 'Bay 1', machine('Bay 1', { notes: 'new' }))
  expect(machinesOf(after)).toHaveLength(1)
  expect(machinesOf(after)[0]?.notes).toBe('new')
})

it('a filler as bought goes along by its name; a class alone takes nothing', () => {
  const bought = withFiller(two, [1], { designation: 'E71T-1M' }, product)
  expect(bought.passes[0]?.filler?.make).toBe('Fern 71')
  expect(bought.shelf?.products).toEqual([product])
  expect(withFiller(bought, [1], { designation: 'ER70S-6' }, null).shelf).toBeNull()
})

it('an own metal goes along while a base metal names it', () => {
  const named = withOwnMetal(withMetal(two, 0, { designation: 'Lug 7' }), metal)
  expect(named.shelf?.metals).toEqual([metal])
  expect(withOwnMetal(withMetal(named, 0, { designation: 'S355J2' }), null).shelf).toBeNull()
})
