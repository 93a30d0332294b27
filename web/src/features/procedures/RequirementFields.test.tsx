import { fireEvent, screen } from '@testing-library/react'
import { useState } from 'react'
import { expect, test } from 'vitest'

import type { Procedure } from '../../api/types'
import { show } from '../../testing'
import { RequirementFields } from './RequirementFields'

function Sheet({ seen }: { seen: Procedure[] }) {
  const [document, setDocument] = useState({ base_metals: [], positions: [], passes: [] } as unknown as Procedure)
  return (
    <RequirementFields
      document={document}
      disabled={false}
      errors={new Map()}
      onChange={(change) => {
        const next = change(document)
        seen.push(next)
        setDocument(next)
      }}
    />
  )
}

test('a requirement is asked for, switched off, or left to the code', () => {
  const seen: Procedure[] = []
  const now = () => seen.at(-1)?.requirements
  show(<Sheet seen={seen} />)
  fireEvent.click(screen.getByLabelText('Hardness'))
  fireEvent.click(screen.getByRole('option', { name: 'required' }))
  expect(now()?.hardness).toBe(true)
  fireEvent.click(screen.getByLabelText('Impact toughness'))
  fireEvent.click(screen.getByRole('option', { name: 'not required' }))
  expect(now()).toMatchObject({ hardness: true, impact: false })
  fireEvent.click(screen.getByLabelText('Impact toughness'))
  fireEvent.click(screen.getByRole('option', { name: 'required' }))
  expect(now()?.impact, 'asked for, its numbers still the code’s').toBe(true)
  expect(screen.getByLabelText('Impact temperature')).toBeInTheDocument()
})

test('a day that is typed half stays in its field and never reaches the document', () => {
  const seen: Procedure[] = []
  const limited = {
    base_metals: [],
    positions: [],
    passes: [],
    requirements: { hardness_limit: { max_hv10: 350 } },
  } as unknown as Procedure
  show(
    <RequirementFields
      document={limited}
      disabled={false}
      errors={new Map()}
      onChange={(change) => seen.push(change(limited))}
    />,
  )
  const day = screen.getByLabelText('Hardness limit agreed on')
  fireEvent.change(day, { target: { value: '2026-13-40' } })
  expect(day).toHaveValue('2026-13-40')
  expect(screen.getByRole('alert')).toHaveTextContent('Write it as 2026-03-31.')
  expect(seen).toHaveLength(0)
  fireEvent.change(day, { target: { value: '2026-02-03' } })
  expect(seen.at(-1)?.requirements?.hardness_limit).toMatchObject({ max_hv10: 350, agreed_on: '2026-02-03' })
})
