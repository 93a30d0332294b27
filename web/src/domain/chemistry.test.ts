import { expect, it } from 'vitest'

import { chemistryOf, pasted } from './chemistry'

it.each([
  [{ C: '0.16', Mn: '1,45' }, { C: 0.16, Mn: 1.45 }, []],
  [{ C: '.2 %', Si: '' }, { C: 0.2 }, []],
  [{ C: 'abc', Mn: '-1', Cr: '1e5' }, {}, ['C', 'Mn', 'Cr']],
])('%j', (typed, chemistry, wrong) => {
  expect(chemistryOf(typed as Record<string, string>)).toEqual({ chemistry, wrong })
})

it('takes a line from a certificate', () => {
  expect(pasted('C 0,16 Si: 0.40 Mn=1,45 P 0.012 % Cu .15')).toEqual({
    C: '0,16',
    Si: '0.40',
    Mn: '1,45',
    P: '0.012',
    Cu: '.15',
  })
  expect(pasted('0.16')).toEqual({})
})
