import { expect, test } from 'vitest'

import { choose, merge } from './merge'

const base = { title: 'T', notes: null as string | null, thermal: { preheat: 75, interpass: 250 }, passes: [{ a: 1, v: 20 }, { a: 2, v: 22 }] }

test.each([
  ['only mine changed', { ...base, title: 'Mine' }, base, { ...base, title: 'Mine' }, []],
  ['only theirs changed', base, { ...base, title: 'Theirs' }, { ...base, title: 'Theirs' }, []],
  ['each another field', { ...base, title: 'Mine' }, { ...base, thermal: { preheat: 90, interpass: 250 } }, { ...base, title: 'Mine', thermal: { preheat: 90, interpass: 250 } }, []],
  ['each another field of one group', { ...base, thermal: { preheat: 80, interpass: 250 } }, { ...base, thermal: { preheat: 75, interpass: 220 } }, { ...base, thermal: { preheat: 80, interpass: 220 } }, []],
  ['each another pass', { ...base, passes: [{ a: 9, v: 20 }, { a: 2, v: 22 }] }, { ...base, passes: [{ a: 1, v: 20 }, { a: 2, v: 8 }] }, { ...base, passes: [{ a: 9, v: 20 }, { a: 2, v: 8 }] }, []],
  ['both the same change', { ...base, title: 'New' }, { ...base, title: 'New' }, { ...base, title: 'New' }, []],
  ['both the same field', { ...base, title: 'Mine' }, { ...base, title: 'Theirs' }, { ...base, title: 'Mine' }, ['title']],
  ['one value in one pass', { ...base, passes: [{ a: 5, v: 20 }, { a: 2, v: 22 }] }, { ...base, passes: [{ a: 6, v: 20 }, { a: 2, v: 22 }] }, { ...base, passes: [{ a: 5, v: 20 }, { a: 2, v: 22 }] }, ['passes.0.a']],
  ['a pass added by one, another changed by the other', { ...base, passes: [...base.passes, { a: 3, v: 23 }] }, { ...base, passes: [{ a: 7, v: 20 }, { a: 2, v: 22 }] }, { ...base, passes: [...base.passes, { a: 3, v: 23 }] }, ['passes']],
  ['a value emptied by me', { ...base, title: null as unknown as string }, { ...base, notes: 'n' }, { ...base, title: null, notes: 'n' }, []],
])('%s', (_, mine, theirs, document, clashes) => {
  const got = merge(base, mine as typeof base, theirs as typeof base)
  expect(got.document).toEqual(document)
  expect(got.clashes.map((one) => one.path)).toEqual(clashes)
})

test('a clash is settled by the side that is chosen', () => {
  const got = merge(base, { ...base, title: 'Mine', passes: [{ a: 5, v: 20 }, { a: 2, v: 22 }] }, { ...base, title: 'Theirs', passes: [{ a: 6, v: 20 }, { a: 2, v: 22 }] })
  expect(choose(got, new Set())).toEqual(got.document)
  expect(choose(got, new Set(['passes.0.a']))).toMatchObject({ title: 'Mine', passes: [{ a: 6 }, { a: 2 }] })
  expect(choose(got, new Set(['title', 'passes.0.a']))).toMatchObject({ title: 'Theirs', passes: [{ a: 6 }, { a: 2 }] })
})
