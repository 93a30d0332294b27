import fc from 'fast-check'
import { expect, test } from 'vitest'

import { choose, merge } from './merge'

type Pass = {
  id: string
  number: number
  role: string
  process?: string
  polarity?: string
  current_a?: object
  sources?: object
}
type Doc = { passes: Pass[] }

const counted = (...passes: Omit<Pass, 'number'>[]): Doc => ({
  passes: passes.map((one, at) => ({ ...one, number: at + 1 })),
})
const root = { id: 'r', role: 'root', process: '141' }
const hot = { id: 'h', role: 'hot', process: '111' }
const cap = { id: 'c', role: 'cap', process: '111' }
const BASE = counted(root, hot)

test('one removes the root and adds a cap while the other sets the polarity of the root: the hot pass keeps its own', () => {
  const got = merge(BASE, counted(hot, cap), counted({ ...root, polarity: 'DCEN' }, hot))
  expect(got.document.passes.find((one) => one.id === 'h')).toEqual({ ...hot, number: 2 })
  expect(got.clashes).toEqual([{ path: 'passes.0', mine: undefined, theirs: { ...root, polarity: 'DCEN', number: 1 } }])
  expect(choose(got, new Set())).toEqual(counted(hot, cap))
  expect(choose(got, new Set(['passes.0']))).toEqual(counted({ ...root, polarity: 'DCEN' }, hot, cap))
})

test.each([
  [
    'a row removed by me',
    counted(hot),
    counted(root, { ...hot, polarity: 'DCEP' }),
    counted({ ...hot, polarity: 'DCEP' }),
  ],
  ['rows removed by both', counted(hot), counted(root), { passes: [] }],
  [
    'a row set in above, another changed',
    counted(root, cap, hot),
    counted({ ...root, polarity: 'DCEN' }, hot),
    counted({ ...root, polarity: 'DCEN' }, cap, hot),
  ],
  [
    'rows that both set in, at two places',
    counted(cap, root, hot),
    counted(root, { ...cap, id: 'd' }, hot),
    counted(cap, root, { ...cap, id: 'd' }, hot),
  ],
  ['rows moved by them', BASE, counted(hot, root), counted(hot, root)],
  [
    'rows moved by them, one changed by me',
    counted({ ...root, polarity: 'DCEN' }, hot),
    counted(hot, root),
    counted(hot, { ...root, polarity: 'DCEN' }),
  ],
])('%s: no question', (_, mine, theirs, document) => {
  const got = merge(BASE, mine, theirs)
  expect(got.clashes).toEqual([])
  expect(got.document).toEqual(document)
})

test('both put a new pass on top: theirs is asked about', () => {
  const got = merge(BASE, counted(root, hot, cap), counted(root, hot, { ...cap, id: 'd' }))
  expect(got.clashes.map((one) => [one.path, one.mine])).toEqual([['passes.3', undefined]])
  expect(choose(got, new Set())).toEqual(counted(root, hot, cap))
  expect(choose(got, new Set(['passes.3']))).toEqual(counted(root, hot, cap, { ...cap, id: 'd' }))
})

test.each<[string, unknown, unknown, unknown, string]>([
  [
    'another process against another current',
    { passes: [{ ...root, number: 1 }] },
    { passes: [{ ...root, process: '111', number: 1 }] },
    { passes: [{ ...root, current_a: { min: 90, max: 110 }, number: 1 }] },
    'passes.0',
  ],
  [
    'each one end of a range',
    { a: { min: 90, max: 110 } },
    { a: { min: 105, max: 110 } },
    { a: { min: 90, max: 100 } },
    'a',
  ],
  [
    'two gases',
    { gas: { components_percent: { Ar: 82, CO2: 18 } } },
    { gas: { components_percent: { Ar: 80, CO2: 20 } } },
    { gas: { components_percent: { Ar: 98, O2: 2 } } },
    'gas.components_percent',
  ],
  [
    'another metal against the thickness of the old one',
    { base_metals: [{ designation: 'S355J2' }] },
    { base_metals: [{ designation: '304L' }] },
    { base_metals: [{ designation: 'S355J2', thickness_mm: 8 }] },
    'base_metals.0',
  ],
  [
    'two heats',
    { certificate: { heat: '1', chemistry: { C: 0.1 } } },
    { certificate: { heat: '2', chemistry: { C: 0.1 } } },
    { certificate: { heat: '1', chemistry: { C: 0.2 } } },
    'certificate',
  ],
  [
    'positions, which have no ids',
    { positions: ['PA', 'PF'] },
    { positions: ['PB', 'PF'] },
    { positions: ['PA', 'PE'] },
    'positions',
  ],
  [
    'passes of before there were ids',
    { passes: [{ a: 1 }] },
    { passes: [{ a: 2 }] },
    { passes: [{ a: 1 }, { a: 3 }] },
    'passes',
  ],
])('%s: asked, never mixed', (_, was, mine, theirs, path) => {
  const got = merge(was, mine, theirs)
  expect(got.clashes.map((one) => one.path)).toEqual([path])
  expect(choose(got, new Set())).toEqual(mine)
  expect(choose(got, new Set([path]))).toEqual(theirs)
})

test('each another member: both stand', () => {
  const members = (first: object, second: object) => ({ base_metals: [first, second] })
  const got = merge(
    members({ thickness_mm: 8 }, { thickness_mm: 10 }),
    members({ thickness_mm: 9 }, { thickness_mm: 10 }),
    members({ thickness_mm: 8 }, { thickness_mm: 12 }),
  )
  expect(got).toEqual({ document: members({ thickness_mm: 9 }, { thickness_mm: 12 }), clashes: [] })
})

// --- two editors at random --------------------------------------------------------------------

type Step = { kind: 'set' | 'remove' | 'add' | 'move'; at: number; field: 'polarity' | 'role'; value: string }

const step = fc.record<Step>({
  kind: fc.constantFrom('set', 'remove', 'add', 'move'),
  at: fc.nat(9),
  field: fc.constantFrom('polarity', 'role'),
  value: fc.string({ minLength: 1, maxLength: 3 }),
})

function edited(start: Doc, steps: readonly Step[], who: string): Doc {
  let rows = start.passes
  steps.forEach((one, index) => {
    const at = rows.length ? one.at % rows.length : 0
    if (one.kind === 'add')
      rows = [
        ...rows.slice(0, at + 1),
        { id: `${who}${String(index)}`, number: 0, role: one.value },
        ...rows.slice(at + 1),
      ]
    else if (one.kind === 'remove') rows = rows.filter((_, place) => place !== at)
    else if (one.kind === 'set')
      rows = rows.map((row, place) => (place === at ? { ...row, [one.field]: `${who}${one.value}` } : row))
    else rows = [...rows.slice(at + 1), ...rows.slice(0, at + 1)]
  })
  return { passes: rows.map((row, place) => ({ ...row, number: place + 1 })) }
}

const start = counted(root, hot, { ...cap, id: 'x' }, cap)
const editors = fc
  .tuple(fc.array(step, { maxLength: 6 }), fc.array(step, { maxLength: 6 }))
  .map(([left, right]) => [edited(start, left, 'm'), edited(start, right, 't')] as const)
const find = (doc: Doc, id: string) => doc.passes.find((one) => one.id === id)

test('every value of a merged pass is one that this very pass had on one side', () => {
  fc.assert(
    fc.property(editors, fc.array(fc.boolean(), { maxLength: 12 }), ([mine, theirs], picks) => {
      const got = merge(start, mine, theirs)
      const settled = choose(got, new Set(got.clashes.filter((_, at) => picks[at]).map((one) => one.path)))
      expect(settled.passes.map((one) => one.number)).toEqual(settled.passes.map((_, at) => at + 1))
      expect(new Set(settled.passes.map((one) => one.id)).size).toBe(settled.passes.length)
      for (const one of settled.passes) {
        const sides = [find(mine, one.id), find(theirs, one.id)].filter((side) => side !== undefined)
        expect(sides).not.toEqual([])
        for (const field of ['role', 'polarity', 'process'] as const)
          expect(sides.map((side) => side[field])).toContain(one[field])
      }
    }),
    { numRuns: 400 },
  )
})

test('nothing that one changed is lost without a question', () => {
  fc.assert(
    fc.property(editors, ([mine, theirs]) => {
      const got = merge(start, mine, theirs)
      for (const [side, other] of [
        [mine, theirs],
        [theirs, mine],
      ] as const) {
        for (const one of side.passes) {
          const [old, opposite, now] = [find(start, one.id), find(other, one.id), find(got.document, one.id)]
          for (const field of ['role', 'polarity'] as const) {
            if (old && one[field] === old[field]) continue
            if (!old || !opposite) expect(now?.[field]).toBe(one[field])
            else if (opposite[field] === old[field]) expect(now?.[field]).toBe(one[field])
            else
              expect(opposite[field] === one[field] || got.clashes.some(({ path }) => path.endsWith(field))).toBe(true)
          }
        }
      }
    }),
    { numRuns: 400 },
  )
})

test('what only one did is taken as it stands, and no merge depends on who saved first', () => {
  fc.assert(
    fc.property(editors, ([mine, theirs]) => {
      expect(merge(start, mine, start).document).toEqual(mine)
      expect(merge(start, start, theirs).document).toEqual(theirs)
      const [one, two] = [merge(start, mine, theirs), merge(start, theirs, mine)]
      expect(new Set(two.document.passes.map((row) => row.id))).toEqual(
        new Set(one.document.passes.map((row) => row.id)),
      )
    }),
    { numRuns: 400 },
  )
})
