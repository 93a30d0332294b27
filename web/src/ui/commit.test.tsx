import { screen, waitFor } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import { useRef, useState } from 'react'
import { afterEach, expect, it, vi } from 'vitest'

import { refusal, serve, show } from '../testing'
import { QuantityField } from './QuantityField'
import { commitAndSubmit, showWrong, useSaveWhenRead } from './commit'

afterEach(() => vi.unstubAllGlobals())

function Form({ onSave }: { onSave: (value: number | null) => void }) {
  const [value, setValue] = useState<number | null>(null)
  return (
    <form
      id="f"
      onSubmit={(event) => {
        event.preventDefault()
        if (!showWrong(event.currentTarget)) onSave(value)
      }}
    >
      <QuantityField label="Length" kind="length" value={value} onChange={setValue} />
      <button type="button" onClick={() => commitAndSubmit('f')}>
        Save
      </button>
    </form>
  )
}

it('what is typed and clicked away from at once is read before it is saved', async () => {
  serve(() => ({ body: { value: 300, understood: '300 mm' } }))
  const saved = vi.fn()
  show(<Form onSave={saved} />)
  await userEvent.type(screen.getByLabelText('Length'), '300')
  expect(screen.getByLabelText('Length')).toHaveAttribute('aria-busy', 'true')
  await userEvent.click(screen.getByRole('button', { name: 'Save' }))
  await waitFor(() => expect(saved).toHaveBeenCalledWith(300))
  expect(saved).toHaveBeenCalledTimes(1)
})

it('what has no answer after a minute is not saved without it', async () => {
  vi.useFakeTimers({ shouldAdvanceTime: true })
  serve(() => new Promise<null>(() => undefined))
  const saved = vi.fn()
  show(<Form onSave={saved} />)
  const typing = userEvent.setup({ advanceTimers: (ms) => vi.advanceTimersByTime(ms) })
  await typing.type(screen.getByLabelText('Length'), '300')
  await typing.click(screen.getByRole('button', { name: 'Save' }))
  await vi.advanceTimersByTimeAsync(61_000)
  expect(saved).not.toHaveBeenCalled()
  vi.useRealTimers()
})

it('what cannot be read gets the cursor, and nothing is saved', async () => {
  serve(() => refusal('lots is no length'))
  const saved = vi.fn()
  show(<Form onSave={saved} />)
  await userEvent.type(screen.getByLabelText('Length'), 'lots')
  await userEvent.click(screen.getByRole('button', { name: 'Save' }))
  await waitFor(() => expect(screen.getByLabelText('Length')).toHaveFocus())
  expect(saved).not.toHaveBeenCalled()
})

function Dialog({ onSave }: { onSave: (value: number | null) => void }) {
  const [value, setValue] = useState<number | null>(null)
  const frame = useRef<HTMLDivElement>(null)
  const save = useSaveWhenRead(frame, () => onSave(value))
  return (
    <div ref={frame}>
      <QuantityField label="Length" kind="length" value={value} onChange={setValue} />
      <button type="button" onClick={save}>
        Add
      </button>
    </div>
  )
}

it('a dialog saves what was typed last, and once', async () => {
  serve(() => ({ body: { value: 300, understood: '300 mm' } }))
  const saved = vi.fn()
  show(<Dialog onSave={saved} />)
  await userEvent.type(screen.getByLabelText('Length'), '300')
  await userEvent.click(screen.getByRole('button', { name: 'Add' }))
  await waitFor(() => expect(saved).toHaveBeenCalledWith(300))
  expect(saved).toHaveBeenCalledTimes(1)
})
