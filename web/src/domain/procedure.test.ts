import { describe, expect, it } from 'vitest'

import type { Pass, Procedure } from '../api/types'
import {
  EMPTY,
  addPass,
  gasText,
  groupsOf,
  removePass,
  withJointKind,
  withMetal,
  withPasses,
  withPreparation,
  withSide,
  withWeld,
} from './procedure'

const pass = (number: number, more: Partial<Pass> = {}): Pass => ({
  number,
  side: 1,
  role: 'fill',
  process: '136',
  ...more,
})
const three: Procedure = {
  ...EMPTY,
  passes: [pass(1, { role: 'root', process: '135' }), pass(2), pass(3, { role: 'cap' })],
}
const shape = (document: Procedure) => document.passes.map((one) => `${String(one.number)} ${one.role}`)

describe('passes keep counting 1, 2, 3', () => {
  it('adds above, never a second root', () => {
    expect(shape(addPass(three, 1))).toEqual(['1 root', '2 fill', '3 fill', '4 cap'])
    expect(shape(addPass(three, 3))).toEqual(['1 root', '2 fill', '3 cap', '4 cap'])
    expect(shape(addPass(three, null))).toEqual(['1 root', '2 fill', '3 cap', '4 cap'])
    expect(shape(addPass(EMPTY, null))).toEqual(['1 root'])
  })
  it('duplicates', () => {
    expect(shape(addPass(three, 1, true))).toEqual(['1 root', '2 root', '3 fill', '4 cap'])
  })
  it('removes', () => {
    expect(shape(removePass(three, 2))).toEqual(['1 root', '2 cap'])
  })
  it('changes only those named, and nothing of the document before', () => {
    const changed = withPasses(three, [2, 3], { polarity: 'DCEP' })
    expect(changed.passes.map((one) => one.polarity)).toEqual([undefined, 'DCEP', 'DCEP'])
    expect(three.passes[1]?.polarity).toBeUndefined()
  })
})

it('groups neighbours with the same set-up', () => {
  const document = withPasses(three, [3], { transfer: 'pulsed' })
  expect(groupsOf(document.passes).map((group) => group.passes.length)).toEqual([1, 1, 1])
  expect(groupsOf(three.passes).map((group) => group.passes.length)).toEqual([1, 2])
})

it('keeps the other metal', () => {
  const document = withMetal(withMetal(EMPTY, 1, { designation: 'A36' }), 0, { thickness_mm: 10 })
  expect(document.base_metals).toEqual([{ thickness_mm: 10 }, { designation: 'A36' }])
})

it('begins a T and a lap as fillets, and a butt as a groove', () => {
  expect(withJointKind(EMPTY, 't').joint).toMatchObject({ kind: 't', weld: 'fillet' })
  expect(withJointKind(EMPTY, 'lap').joint).toMatchObject({ kind: 'lap', weld: 'fillet' })
  expect(withJointKind(EMPTY, 'butt').joint).toMatchObject({ kind: 'butt', weld: 'cjp-groove' })
})

it('drops the legs when a fillet becomes a groove, and the edges the other way round', () => {
  const fillet = withJointKind(EMPTY, 't')
  const groove = withWeld({ ...fillet, joint: fillet.joint ? { ...fillet.joint, leg1_mm: 8 } : null }, 'cjp-groove')
  expect(groove.joint).toMatchObject({ leg1_mm: null })
  expect(withWeld(withPreparation(groove, { form: 'single-bevel' }), 'fillet').joint).toMatchObject({
    preparation: null,
  })
})

it('keeps what else was typed when one side of the edges changes', () => {
  const butt = withPreparation(withJointKind(EMPTY, 'butt'), { form: 'double-u', root_gap_mm: 2 })
  const radius = withSide(withSide(butt, 1, { depth_mm: 9 }), 0, { radius_mm: 6 })
  expect(radius.joint?.preparation).toMatchObject({
    form: 'double-u',
    root_gap_mm: 2,
    sides: [{ radius_mm: 6 }, { depth_mm: 9 }],
  })
})

it('takes no number of an edge before its form is chosen', () => {
  expect(withPreparation(withJointKind(EMPTY, 'butt'), { root_gap_mm: 2 }).joint?.preparation ?? null).toBeNull()
})

it.each([
  [{ CO2: 18, Ar: 82 }, 'Ar+18CO2'],
  [{ Ar: 100 }, 'Ar'],
  [{ He: 90, Ar: 7.5, CO2: 2.5 }, 'He+7.5Ar+2.5CO2'],
  [{ Ar: 100, CO2: 0 }, 'Ar'],
  [null, ''],
])('writes a gas %j', (components, text) => {
  expect(gasText(components)).toBe(text)
})
