import { screen, waitFor } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import { useState } from 'react'
import { afterEach, expect, it, vi } from 'vitest'

import { refusal, serve, show } from '../../testing'
import { CupCard } from './CupCard'
import { EMPTY_ROW, RunOuts, dialOf, type Row } from './RunOuts'
import { WaveDrawing } from './WaveDrawing'

afterEach(() => vi.unstubAllGlobals())

it('only whole rows make a calibration', () => {
  expect(
    dialOf([EMPTY_ROW, { setting: 2, length_mm: 200, time_s: 6 }, { setting: 4, length_mm: null, time_s: 6 }]),
  ).toEqual({ points: [{ setting: 2, length_mm: 200, time_s: 6 }] })
})

function Dial({ start, feed }: { start: Row[]; feed?: number }) {
  const [rows, setRows] = useState(start)
  return (
    <RunOuts
      rows={rows}
      onChange={(change) => setRows((before) => change(before))}
      {...(feed === undefined ? {} : { feed })}
    />
  )
}
const row = (setting: number | null, length_mm: number | null): Row => ({ setting, length_mm, time_s: 6 })
const fit = { coefficients: [0, 1], points: [], scatter_m_min: 0.05, low: 2, high: 8 }

it('each answer stands in its own row, whatever half rows lie between', async () => {
  serve(() => ({
    body: {
      fit,
      points: [
        { setting: 2, feed_m_min: 2.1, fitted_m_min: 2 },
        { setting: 8, feed_m_min: 7.9, fitted_m_min: 8 },
      ],
      residuals_m_min: [0.1, -0.1],
      setting: null,
      feed_m_min: null,
    },
  }))
  show(<Dial start={[row(2, 210), row(5, null), row(8, 790)]} />)
  const cells = () =>
    screen
      .getAllByRole('row')
      .slice(1)
      .map((one) => one.querySelectorAll('td')[5]?.textContent)
  await waitFor(() => expect(cells()).toEqual(['0.1', '', '-0.1']))
  expect(screen.getByText(/Straight dial; the readings scatter by 0.05/)).toBeInTheDocument()
  await userEvent.click(screen.getByRole('button', { name: 'Remove run-out 2' }))
  await waitFor(() => expect(cells()).toEqual(['0.1', '-0.1']))
})

it('a feed is answered with the setting, and one beyond the dial with a sentence', async () => {
  serve(({ body }) =>
    body.feed_m_min === 20
      ? refusal('20 m/min lies outside what was measured')
      : { body: { fit, points: [], residuals_m_min: [], setting: body.feed_m_min, feed_m_min: null } },
  )
  const { again } = show(<Dial start={[row(2, 200), row(8, 800)]} feed={5} />)
  expect(await screen.findByText('5.0')).toBeInTheDocument()
  again(<Dial start={[row(2, 200), row(8, 800)]} feed={20} />)
  expect(await screen.findByText('20 m/min lies outside what was measured')).toBeInTheDocument()
})

it('with one setting it asks for more and asks the core nothing', async () => {
  const asked = serve(() => ({ body: {} }))
  show(<Dial start={[row(2, 200), EMPTY_ROW]} />)
  expect(screen.getByText(/at two settings or more/)).toBeInTheDocument()
  await new Promise((resolve) => setTimeout(resolve, 200))
  expect(asked).toEqual([])
})

it('a cup says its bore and flow; what is no cup says why', async () => {
  serve(({ body }) =>
    body.text === '99'
      ? refusal('no cup has the number 99')
      : {
          body: {
            number: 8,
            bore_mm: 12.7,
            hint: '',
            flow_l_min: body.lens ? { min: 6, max: 9 } : { min: 8, max: 11 },
            tungsten_mm: { min: 2.4, max: 3.2 },
            citation: null,
          },
        },
  )
  show(<CupCard />)
  await userEvent.type(screen.getByLabelText('Cup'), '8')
  expect(await screen.findByText(/8–11/)).toBeInTheDocument()
  await userEvent.click(screen.getByRole('checkbox', { name: 'gas lens' }))
  expect(await screen.findByText(/6–9/)).toBeInTheDocument()
  await userEvent.clear(screen.getByLabelText('Cup'))
  await userEvent.type(screen.getByLabelText('Cup'), '99')
  expect(await screen.findByText('no cup has the number 99')).toBeInTheDocument()
})

it('a wave is drawn to scale, with labels apart where their lines meet', () => {
  show(
    <WaveDrawing
      label="wave"
      xWords="one period"
      points={[
        [0, -100],
        [7, -100],
        [7, 100],
        [10, 100],
      ]}
      lines={[
        { y: 100, words: 'rms 100 A' },
        { y: 100, words: 'mean 100 A' },
      ]}
    />,
  )
  const labels = ['rms 100 A', 'mean 100 A'].map((words) => Number(screen.getByText(words).getAttribute('y')))
  expect(Math.abs((labels[0] ?? 0) - (labels[1] ?? 0))).toBeGreaterThanOrEqual(13)
  expect(screen.getByText('−100 A')).toBeInTheDocument()
  const path = screen.getByRole('img', { name: 'wave' }).querySelector('path')?.getAttribute('d') ?? ''
  const [first, second, , last] = [...path.matchAll(/[ML]([\d.]+) ([\d.]+)/g)].map((match) => [
    Number(match[1]),
    Number(match[2]),
  ])
  expect(((second?.[0] ?? 0) - (first?.[0] ?? 0)) / ((last?.[0] ?? 1) - (first?.[0] ?? 0))).toBeCloseTo(0.7, 2)
})
