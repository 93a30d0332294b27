import { expect, it } from 'vitest'

import type { Finding } from '../../api/types'
import { together } from './Checks'

const finding = (title: string, message = 'Too hot.', rule = 'heat-input.window'): Finding => ({
  rule,
  verdict: 'violates',
  obligation: 'requirement',
  path: '',
  title,
  message,
  actual: '',
  limit: '',
  remedy: '',
  citations: [],
  unchecked: [],
})

it('says the same of several passes once', () => {
  const found = together([
    finding('Too hot, pass 2'),
    finding('Too hot, pass 3'),
    finding('Odd', 'x', 'a'),
    finding('Too hot, pass 5'),
    finding('Too hot, pass 6', 'Other.'),
  ])
  expect(found.map((one) => one.title)).toEqual(['Too hot, passes 2, 3 and 5', 'Odd', 'Too hot, pass 6'])
})

it('never joins what names no pass', () => {
  expect(together([finding('Odd'), finding('Odd')])).toHaveLength(2)
})
