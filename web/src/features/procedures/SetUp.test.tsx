import { screen, waitFor, within } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import { useEffect, useState } from 'react'
import { MemoryRouter } from 'react-router'
import { afterEach, beforeEach, expect, it, vi } from 'vitest'

import type { Machine, Procedure } from '../../api/types'
import { EMPTY } from '../../domain/procedure'
import { serve, show } from '../../testing'
import { SetUp } from './SetUp'

const TIG_FIELDS = [
  'gas',
  'purge',
  'tungsten',
  'cup',
  'slopes',
  'start',
  'trigger',
  'pedal_max_a',
  'pulse',
  'gas_times',
]
const WIRE_FIELDS = [
  'gas',
  'purge',
  'transfer',
  'wire_feed_m_min',
  'extension_mm',
  'feeder',
  'feeder.inductance_percent',
  'trigger',
  'gas_times',
]
const MACHINE: Machine = {
  format: 'grounded-bead/machine',
  version: 1,
  name: 'Bay 1',
  supplies: [
    { name: '400 V', envelopes: [] },
    { name: '230 V', envelopes: [] },
  ],
  meters: [],
}

let fields: Record<string, string[]>
let machines: Machine[]
beforeEach(() => {
  fields = { '141': TIG_FIELDS, '135': WIRE_FIELDS, '111': ['run_out_mm'] }
  machines = [MACHINE]
  serve(({ path, query, body }) => {
    if (path === '/api/setup-fields') return { body: fields[query.get('process') ?? ''] ?? [] }
    if (path === '/api/tungstens')
      return {
        body: {
          types: [
            {
              iso: 'WLa20',
              aws: 'EWLa-2',
              also: ['2 % lanthanated'],
              addition: '',
              colour: 'blue',
              older: '',
              dcen: 'good',
              ac: 'good',
              thoriated: false,
            },
          ],
          oxide: [],
          pure: [],
          citation: {},
        },
      }
    if (path === '/api/tungsten-carries')
      return {
        body: query.get('polarity') === 'DCEN' && query.get('diameter_mm') === '2.4' ? [{ min: 150, max: 250 }] : [],
      }
    if (path === '/api/library')
      return {
        body: machines.map((document, id) => ({
          id,
          kind: 'machine',
          name: document.name,
          version: 1,
          document,
          saved_by: '',
          saved_at: '',
          used_in: 0,
          overdue_meters: [],
        })),
      }
    if (path === '/api/fillers') return { body: [] }
    if (path === '/api/read')
      return { body: { value: body.as_ === 'cup' ? 8 : Number(body.text), understood: 'bore 12.7 mm' } }
    return { body: [] }
  })
})
afterEach(() => vi.unstubAllGlobals())

let last: Procedure
function Page({ start }: { start: Procedure }) {
  const [document, setDocument] = useState(start)
  useEffect(() => {
    last = document
  }, [document])
  return (
    <MemoryRouter>
      <SetUp document={document} selected={1} onChange={setDocument} disabled={false} />
    </MemoryRouter>
  )
}
const procedure = (process: '111' | '135' | '141', more: object = {}, passes = 1): Procedure => ({
  ...EMPTY,
  passes: Array.from({ length: passes }, (_, index) => ({
    number: index + 1,
    side: 1,
    role: 'fill' as const,
    process,
    ...more,
  })),
})

it.each([
  ['141', ['Tungsten diameter', 'Cup number', 'Post-flow', 'Purge gas'], ['Drive rolls', 'Wire feed', 'AC balance']],
  ['135', ['Drive rolls', 'Inductance', 'Wire feed', 'Transfer'], ['Tungsten diameter', 'Cup number']],
  ['111', ['Filler designation', 'Polarity'], ['Shielding gas', 'Gas flow', 'Drive rolls', 'Cup number']],
] as const)('process %s shows its fields and no others', async (process, there, gone) => {
  show(<Page start={procedure(process)} />)
  for (const label of there) expect(await screen.findByLabelText(label)).toBeInTheDocument()
  for (const label of gone) expect(screen.queryByLabelText(label)).not.toBeInTheDocument()
})

it('what a process does not have shows while it is stated, and is taken out with one press', async () => {
  show(<Page start={procedure('135', { tungsten: { diameter_mm: 2.4 } })} />)
  const odd = await screen.findByRole('group', { name: /Tungsten and cup/ })
  expect(odd).toHaveTextContent('not for this process')
  await userEvent.click(within(odd).getByRole('button', { name: 'Take it out' }))
  await waitFor(() => expect(screen.queryByLabelText('Tungsten diameter')).not.toBeInTheDocument())
  expect(last.passes[0]?.tungsten).toBeNull()
})

it('a cup is kept as its number, in every pass that shares the set-up', async () => {
  show(<Page start={procedure('141', {}, 3)} />)
  await userEvent.type(await screen.findByLabelText('Cup number'), '12 mm')
  await waitFor(() => expect(last.passes.map((one) => one.cup)).toEqual(Array(3).fill({ lens: false, number: 8 })))
  await userEvent.click(screen.getByRole('checkbox', { name: /together/ }))
  await userEvent.click(screen.getByRole('checkbox', { name: 'fitted' }))
  expect(last.passes.map((one) => one.cup?.lens)).toEqual([true, false, false])
})

it('what a tungsten carries stands beside its diameter', async () => {
  show(<Page start={procedure('141', { polarity: 'DCEN', tungsten: { type: 'WLa20', diameter_mm: 2.4 } })} />)
  expect(await screen.findByText('carries 150–250 A')).toBeInTheDocument()
})

it('a machine goes along with its record; a changed record is offered, and the supply stays as chosen', async () => {
  const stale = { ...MACHINE, notes: 'old', connected: '230 V' }
  show(
    <Page
      start={{ ...procedure('135', { machine: 'Bay 1' }), shelf: { metals: [], products: [], machines: [stale] } }}
    />,
  )
  expect(await screen.findByText(/Its record has changed in the library/)).toBeInTheDocument()
  await userEvent.click(screen.getByRole('button', { name: 'Take it over' }))
  expect(last.shelf?.machines).toEqual([{ ...MACHINE, connected: '230 V' }])
  expect(screen.queryByText(/Its record has changed/)).not.toBeInTheDocument()
  await userEvent.click(screen.getByRole('button', { name: "Machine's supply" }))
  await userEvent.click(await screen.findByRole('option', { name: 'on 400 V' }))
  expect(last.shelf?.machines[0]?.connected).toBe('400 V')
})

it('without any machine on record it says where to add one', async () => {
  machines = []
  show(<Page start={procedure('135')} />)
  expect(await screen.findByRole('link', { name: 'Add one in the library' })).toHaveAttribute(
    'href',
    '/library/machines',
  )
})
