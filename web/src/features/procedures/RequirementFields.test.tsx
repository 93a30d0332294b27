import { fireEvent, screen } from '@testing-library/react'
import { useState } from 'react'
import { expect, test } from 'vitest'

import type { Procedure } from '../../api/types'
import { show } from '../../testing'
import { RequirementFields } from './RequirementFields'

let latest: Procedure['requirements']

function Sheet() {
  const [document, setDocument] = useState({ base_metals: [], positions: [], passes: [] } as unknown as Procedure)
  latest = document.requirements
  return <RequirementFields document={document} onChange={setDocument} disabled={false} errors={new Map()} />
}

test('a day that is typed half stays in its field and never reaches the document', () => {
  show(<Sheet />)
  fireEvent.click(screen.getByLabelText('Hardness'))
  fireEvent.click(screen.getByRole('option', { name: 'required' }))
  expect(latest?.hardness).toBe(true)
  fireEvent.click(screen.getByLabelText('Impact toughness'))
  fireEvent.click(screen.getByRole('option', { name: 'not required' }))
  expect(latest).toMatchObject({ hardness: true, impact: false })
  fireEvent.click(screen.getByLabelText('Impact toughness'))
  fireEvent.click(screen.getByRole('option', { name: 'required' }))
  expect(latest?.impact, 'asked for, its numbers still the code’s').toBe(true)
  expect(screen.getByLabelText('Impact temperature')).toBeInTheDocument()
})
