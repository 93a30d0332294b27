import { screen, waitFor } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import { useState } from 'react'
import { afterEach, expect, it, vi } from 'vitest'

import type { Machine, Pass } from '../../../api/types'
import { serve, show } from '../../../testing'
import { AcPart } from './AcPart'
import { merged, type PassChanges } from './Part'
import { PulsePart } from './PulsePart'

afterEach(() => vi.unstubAllGlobals())

const TIG: Pass = { number: 1, side: 1, role: 'root', process: '141', polarity: 'AC' }

/** A pass that changes as the parts say; the last one is kept to look at. */
function Harness({
  start,
  seen,
  children,
}: {
  start: Pass
  seen: (one: Pass) => void
  children: (one: Pass, set: (changes: PassChanges | ((pass: Pass) => PassChanges)) => void) => React.ReactNode
}) {
  const [one, setOne] = useState(start)
  seen(one)
  return children(one, (changes) =>
    setOne((before) => ({ ...before, ...(typeof changes === 'function' ? changes(before) : changes) })),
  )
}

it('an object whose fields are all empty is none', () => {
  expect(merged({ a: 1 }, { a: null } as never)).toBeNull()
  expect(merged(null, { a: 2 })).toEqual({ a: 2 })
  expect(merged({ a: 1, b: 2 }, { a: null } as never)).toEqual({ a: null, b: 2 })
})

it('the balance is asked for with the dial of the machine, and kept as the share negative', async () => {
  const asked = serve(({ body }) => ({ body: { value: 0.6, understood: String(body.text) } }))
  const machine = {
    name: 'Bay 3',
    balance_dial: { convention: 'signed', zero_en_share: 0.7, step_en_share: 0.05 },
  } as Machine
  const seen = vi.fn()
  show(
    <Harness start={TIG} seen={seen}>
      {(one, set) => <AcPart one={one} path="passes.0" disabled={false} set={set} odd={false} machine={machine} />}
    </Harness>,
  )
  await userEvent.type(screen.getByLabelText('AC balance'), '-2')
  await waitFor(() => expect(seen).toHaveBeenLastCalledWith(expect.objectContaining({ ac: { en_share: 0.6 } })))
  expect(asked[0]?.body).toMatchObject({ text: '-2', as_: 'balance', dial: machine.balance_dial })
  expect(screen.getByText('60 % negative, 40 % cleaning')).toBeInTheDocument()
})

it('a background typed before its peak is read again once the peak is known', async () => {
  serve(({ path, body }) => {
    if (path !== '/api/read') return { body: [] }
    if (body.as_ !== 'background') return { body: { value: 200, understood: '200 A' } }
    return body.peak_a === null
      ? {
          status: 422,
          body: {
            type: '/problems/unreadable',
            title: '',
            status: 422,
            detail: 'state the peak current first',
            errors: [],
          },
        }
      : { body: { value: 20, understood: '20 A' } }
  })
  const seen = vi.fn()
  show(
    <Harness start={TIG} seen={seen}>
      {(one, set) => <PulsePart one={one} path="passes.0" disabled={false} set={set} odd={false} tig={false} />}
    </Harness>,
  )
  await userEvent.type(screen.getByLabelText('Pulse background'), '10 %')
  expect(await screen.findByText('state the peak current first')).toBeInTheDocument()
  await userEvent.type(screen.getByLabelText('Pulse peak'), '200')
  await waitFor(() =>
    expect(seen).toHaveBeenLastCalledWith(expect.objectContaining({ pulse: { peak_a: 200, background_a: 20 } })),
  )
})

it('so it is while the answer about the missing peak is still on the way', async () => {
  const late: (() => void)[] = []
  vi.stubGlobal('fetch', async (request: Request) => {
    const body = JSON.parse(await request.text()) as Record<string, unknown>
    const answer = (status: number, value: object) =>
      new Response(JSON.stringify(value), { status, headers: { 'Content-Type': 'application/json' } })
    if (body.as_ !== 'background') return answer(200, { value: 200, understood: '200 A' })
    if (body.peak_a !== null) return answer(200, { value: 20, understood: '20 A' })
    await new Promise<void>((resolve) => {
      late.push(resolve)
    })
    return answer(422, {
      type: '/problems/unreadable',
      title: '',
      status: 422,
      detail: 'state the peak current first',
      errors: [],
    })
  })
  const seen = vi.fn()
  show(
    <Harness start={TIG} seen={seen}>
      {(one, set) => <PulsePart one={one} path="passes.0" disabled={false} set={set} odd={false} tig={false} />}
    </Harness>,
  )
  await userEvent.type(screen.getByLabelText('Pulse background'), '10 %')
  await waitFor(() => expect(late).not.toEqual([]))
  await userEvent.type(screen.getByLabelText('Pulse peak'), '200')
  await waitFor(() =>
    expect(seen).toHaveBeenLastCalledWith(expect.objectContaining({ pulse: { peak_a: 200, background_a: 20 } })),
  )
  for (const answer of late) answer()
  await new Promise((resolve) => setTimeout(resolve, 50))
  expect(screen.queryByText('state the peak current first')).not.toBeInTheDocument()
})
