import { expect, test } from 'vitest'

import { choose, merge } from './merge'

const ROOT = { id: 'r', a: 1, v: 20 }
const HOT = { id: 'h', a: 2, v: 22 }
const CAP = { id: 'c', a: 3, v: 23 }
const base = { title: 'T', notes: null as string | null, thermal: { preheat: 75, interpass: 250 }, passes: [ROOT, HOT] }

test.each([
  ['only mine changed', { ...base, title: 'Mine' }, base, { ...base, title: 'Mine' }, []],
  ['only theirs changed', base, { ...base, title: 'Theirs' }, { ...base, title: 'Theirs' }, []],
  [
    'each another field',
    { ...base, title: 'Mine' },
    { ...base, thermal: { preheat: 90, interpass: 250 } },
    { ...base, title: 'Mine', thermal: { preheat: 90, interpass: 250 } },
    [],
  ],
  [
    'each another field of one group',
    { ...base, thermal: { preheat: 80, interpass: 250 } },
    { ...base, thermal: { preheat: 75, interpass: 220 } },
    { ...base, thermal: { preheat: 80, interpass: 220 } },
    [],
  ],
  [
    'each another pass',
    { ...base, passes: [{ ...ROOT, a: 9 }, HOT] },
    { ...base, passes: [ROOT, { ...HOT, v: 8 }] },
    {
      ...base,
      passes: [
        { ...ROOT, a: 9 },
        { ...HOT, v: 8 },
      ],
    },
    [],
  ],
  ['both the same change', { ...base, title: 'New' }, { ...base, title: 'New' }, { ...base, title: 'New' }, []],
  [
    'both the same field',
    { ...base, title: 'Mine' },
    { ...base, title: 'Theirs' },
    { ...base, title: 'Mine' },
    ['title'],
  ],
  [
    'one value in one pass',
    { ...base, passes: [{ ...ROOT, a: 5 }, HOT] },
    { ...base, passes: [{ ...ROOT, a: 6 }, HOT] },
    { ...base, passes: [{ ...ROOT, a: 5 }, HOT] },
    ['passes.0.a'],
  ],
  [
    'a pass added by one, another changed by the other',
    { ...base, passes: [...base.passes, CAP] },
    { ...base, passes: [{ ...ROOT, a: 7 }, HOT] },
    { ...base, passes: [{ ...ROOT, a: 7 }, HOT, CAP] },
    [],
  ],
  [
    'a value emptied by me',
    { ...base, title: null as unknown as string },
    { ...base, notes: 'n' },
    { ...base, title: null, notes: 'n' },
    [],
  ],
])('%s', (_, mine, theirs, document, clashes) => {
  const got = merge(base, mine as typeof base, theirs as typeof base)
  expect(got.document).toEqual(document)
  expect(got.clashes.map((one) => one.path)).toEqual(clashes)
})

test('a clash is settled by the side that is chosen', () => {
  const got = merge(
    base,
    { ...base, title: 'Mine', passes: [{ ...ROOT, a: 5 }, HOT] },
    { ...base, title: 'Theirs', passes: [{ ...ROOT, a: 6 }, HOT] },
  )
  expect(choose(got, new Set())).toEqual(got.document)
  expect(choose(got, new Set(['passes.0.a']))).toMatchObject({ title: 'Mine', passes: [{ a: 6 }, { a: 2 }] })
  expect(choose(got, new Set(['title', 'passes.0.a']))).toMatchObject({ title: 'Theirs', passes: [{ a: 6 }, { a: 2 }] })
})
