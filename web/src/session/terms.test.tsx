import { screen } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import { afterEach, expect, it } from 'vitest'

import type { Code, Person } from '../api/types'
import { processName, processOptions, weldOptions } from '../domain/words'
import { show } from '../testing'
import { SessionContext } from './session'
import { capital, usePin, useTerms, useUsage } from './terms'

afterEach(() => localStorage.removeItem('words'))

const codes = [
  { id: 'aws-d1.1:2020', usage: 'aws' },
  { id: 'iso-15614-1:2017', usage: 'iso' },
] as Code[]

function Words({ code }: { code: string | null }) {
  const term = useTerms(code)
  const [, setPin] = usePin()
  return (
    <>
      <p>
        {capital(term('root-gap'))}, {term('no-such-key')}, {processName('136', useUsage(code))}
      </p>
      <p>
        {weldOptions(term)
          .map(([, words]) => words)
          .join('; ')}
      </p>
      <button type="button" onClick={() => setPin('aws')}>
        AWS
      </button>
      <button type="button" onClick={() => setPin('code')}>
        by code
      </button>
    </>
  )
}

const under = (code: string | null) =>
  show(
    <SessionContext value={{ person: {} as Person, codes, signOut: () => undefined }}>
      <Words code={code} />
    </SessionContext>,
  )

it.each([
  ['aws-d1.1:2020', 'Root opening, no such key, FCAW-G', 'fillet weld; CJP groove weld; PJP groove weld'],
  ['iso-15614-1:2017', 'Root gap, no such key, 136', 'fillet weld; full penetration; partial penetration'],
  [null, 'Root gap, no such key, 136', 'fillet weld; full penetration; partial penetration'],
])('speaks as the code %s does', (code, first, welds) => {
  under(code)
  expect(screen.getByText(first)).toBeVisible()
  expect(screen.getByText(welds)).toBeVisible()
})

it('keeps the words that the reader pinned, whatever the code', async () => {
  under('iso-15614-1:2017')
  await userEvent.click(screen.getByRole('button', { name: 'AWS' }))
  expect(screen.getByText('Root opening, no such key, FCAW-G')).toBeVisible()
  expect(localStorage.getItem('words')).toBe('aws')
  await userEvent.click(screen.getByRole('button', { name: 'by code' }))
  expect(screen.getByText('Root gap, no such key, 136')).toBeVisible()
})

it('names every process by number and letters', () => {
  expect(processOptions('aws').find(([number]) => number === '111')?.[1]).toBe('SMAW · covered electrode (111)')
  expect(processOptions('iso').find(([number]) => number === '111')?.[1]).toBe('111 SMAW · covered electrode')
})
