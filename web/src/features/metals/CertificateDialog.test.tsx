import { screen, waitFor } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import { afterEach, expect, it, vi } from 'vitest'

import type { BaseMetal } from '../../api/types'
import { serve, show } from '../../testing'
import { CertificateDialog } from './CertificateDialog'

afterEach(() => vi.unstubAllGlobals())

function open(metal: BaseMetal = {}, disabled = false) {
  serve(() => ({ body: { items: [], hint: '' } }))
  const take = vi.fn()
  show(<CertificateDialog open title="Certificate" metal={metal} disabled={disabled} onClose={vi.fn()} onTake={take} />)
  return take
}

it('a line of a certificate is pasted whole, commas and all', async () => {
  const take = open()
  await userEvent.click(await screen.findByLabelText('C in %'))
  await userEvent.paste('C 0,16 Si 0,40 Mn 1,45 P 0,012')
  await userEvent.type(screen.getByLabelText('Heat number'), 'H77')
  await userEvent.click(screen.getByRole('button', { name: 'Take it' }))
  await waitFor(() =>
    expect(take).toHaveBeenCalledWith({
      heat: 'H77',
      chemistry: { C: 0.16, Si: 0.4, Mn: 1.45, P: 0.012 },
      certificate: null,
    }),
  )
})

it('more than 100 %, a word for a number, a day written otherwise: each says so and nothing is taken', async () => {
  const take = open({ chemistry: { Cr: 90 } })
  await userEvent.type(await screen.findByLabelText('Ni in %'), '40')
  expect(screen.getByText(/sum to 130.0 %, more than 100 %/)).toBeInTheDocument()
  await userEvent.clear(screen.getByLabelText('Ni in %'))
  await userEvent.type(screen.getByLabelText('Ni in %'), 'some')
  expect(screen.getByText(/Ni: a number in % is needed/)).toBeInTheDocument()
  await userEvent.clear(screen.getByLabelText('Ni in %'))
  await userEvent.type(screen.getByLabelText('Issued on'), '31.3.2026')
  expect(screen.getByText('Write it as 2026-03-31.')).toBeInTheDocument()
  expect(screen.getByRole('button', { name: 'Take it' })).toBeDisabled()
  expect(take).not.toHaveBeenCalled()
})

it('what was there shows again, and an emptied certificate is none', async () => {
  const take = open({ heat: 'H1', chemistry: { C: 0.2 }, certificate: { number: '3.1-7' } })
  expect(await screen.findByLabelText('C in %')).toHaveValue('0.2')
  await userEvent.clear(screen.getByLabelText('Certificate number'))
  await userEvent.click(screen.getByRole('button', { name: 'Clear' }))
  await userEvent.click(screen.getByRole('button', { name: 'Take it' }))
  await waitFor(() => expect(take).toHaveBeenCalledWith({ heat: 'H1', chemistry: null, certificate: null }))
})

it('who may not change it can look', async () => {
  open({ heat: 'H1' }, true)
  expect(await screen.findByLabelText('Heat number')).toBeDisabled()
  await waitFor(() => expect(screen.queryByRole('button', { name: 'Take it' })).not.toBeInTheDocument())
})
