import { screen, waitFor } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import { useState } from 'react'
import { afterEach, beforeEach, expect, it, vi } from 'vitest'

import type { Range } from '../api/types'
import { refusal, serve, show } from '../testing'
import { QuantityField } from './QuantityField'

beforeEach(() => localStorage.clear())
afterEach(() => vi.unstubAllGlobals())

function Travel({ start = { min: 200, max: 300 } as Range | null, onChange = (value: Range | null) => void value }) {
  const [value, setValue] = useState(start)
  return (
    <QuantityField
      mode="range"
      label="Travel"
      kind="travel"
      path="passes.0.travel_mm_min"
      value={value}
      onChange={(next) => {
        setValue(next)
        onChange(next)
      }}
    />
  )
}

it('shows what is stored in the unit chosen', () => {
  localStorage.setItem('units', 'us')
  show(<Travel />)
  expect(screen.getByLabelText('Travel')).toHaveValue('7.9–11.8')
  expect(screen.getByText('in/min')).toBeInTheDocument()
})

it('asks the core, takes the reading, and shows both units while one types', async () => {
  const asked = serve(() => ({ body: { min: 254, max: 254, understood: '10 ipm' } }))
  const changed = vi.fn()
  show(<Travel onChange={changed} />)
  const field = screen.getByLabelText('Travel')
  await userEvent.clear(field)
  await userEvent.type(field, '10 ipm')
  await waitFor(() => expect(changed).toHaveBeenLastCalledWith({ min: 254, max: 254 }))
  expect(asked.at(-1)?.body).toMatchObject({ text: '10 ipm', kind: 'travel', as_: 'range', system: 'si' })
  expect(field).toHaveValue('10 ipm')
  expect(screen.getByText('254 mm/min · 10 in/min')).toBeInTheDocument()
  await userEvent.tab()
  await waitFor(() => expect(field).toHaveValue('254'))
})

it('keeps what was typed when it is refused, says why, changes nothing, and Escape takes it back', async () => {
  serve(() => refusal('kg measures mass; a travel speed is asked for'))
  const changed = vi.fn()
  show(<Travel onChange={changed} />)
  const field = screen.getByLabelText('Travel')
  await userEvent.clear(field)
  changed.mockClear() // emptied on the way
  await userEvent.type(field, '25 kg')
  expect(await screen.findByRole('alert')).toHaveTextContent('kg measures mass')
  expect(field).toHaveAttribute('aria-invalid', 'true')
  await userEvent.tab()
  expect(field).toHaveValue('25 kg')
  expect(changed).not.toHaveBeenCalledWith(expect.objectContaining({ min: expect.anything() as unknown }))
  await userEvent.click(field)
  await userEvent.keyboard('{Escape}')
  expect(screen.queryByRole('alert')).toBeNull()
})

it('an emptied field is nothing, and nothing is asked', async () => {
  const asked = serve(() => ({ body: {} }))
  const changed = vi.fn()
  show(<Travel onChange={changed} />)
  await userEvent.clear(screen.getByLabelText('Travel'))
  await waitFor(() => expect(changed).toHaveBeenCalledWith(null))
  expect(asked).toHaveLength(0)
})

it('asks again while there is no answer', async () => {
  let away = true
  const asked = serve(() => (away ? null : { body: { min: 150, max: 160, understood: '' } }))
  const changed = vi.fn()
  show(<Travel onChange={changed} />)
  const field = screen.getByLabelText('Travel')
  await userEvent.clear(field)
  await userEvent.type(field, '150-160')
  await userEvent.tab()
  expect(await screen.findByRole('alert')).toHaveTextContent('does not answer')
  away = false
  await waitFor(() => expect(field).toHaveValue('150–160'), { timeout: 4000 })
  expect(asked.length).toBeGreaterThan(1)
  expect(changed).toHaveBeenLastCalledWith({ min: 150, max: 160 })
})

it('a late answer never changes a newer text', async () => {
  const replies: ((answer: Response) => void)[] = []
  vi.stubGlobal('fetch', () => new Promise((resolve) => replies.push(resolve)))
  const changed = vi.fn()
  show(<Travel onChange={changed} />)
  const field = screen.getByLabelText('Travel')
  await userEvent.clear(field)
  await userEvent.type(field, '1')
  await waitFor(() => expect(replies).toHaveLength(1))
  await userEvent.type(field, '5')
  await waitFor(() => expect(replies).toHaveLength(2))
  const answer = (value: number) =>
    new Response(JSON.stringify({ min: value, max: value, understood: '' }), {
      headers: { 'Content-Type': 'application/json' },
    })
  replies[1]?.(answer(15))
  await waitFor(() => expect(changed).toHaveBeenLastCalledWith({ min: 15, max: 15 }))
  replies[0]?.(answer(1))
  await new Promise((resolve) => setTimeout(resolve, 50))
  expect(changed).toHaveBeenLastCalledWith({ min: 15, max: 15 })
})
