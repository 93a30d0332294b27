import { fireEvent, screen, waitFor } from '@testing-library/react'
import { useState } from 'react'
import { expect, test } from 'vitest'

import { serve, show } from '../../testing'
import { SpecimenForm, type Draft } from './SpecimenForm'

function Bend({ onDraft }: { onDraft: (draft: Draft) => void }) {
  const [draft, setDraft] = useState<Draft>({
    kind: 'face-bend',
    specimen: 'FB1',
    corner_cracks: [{ mm: 0 }, { mm: 0 }],
  } as Draft)
  onDraft(draft)
  return (
    <SpecimenForm
      draft={draft}
      errors={new Map()}
      disabled={false}
      put={(changes) =>
        setDraft((before) => ({ ...before, ...(typeof changes === 'function' ? changes(before) : changes) }))
      }
    />
  )
}

test('two corner cracks that are read at once are both recorded', async () => {
  const waiting: (() => void)[] = []
  serve(async ({ body }) => {
    await new Promise<void>((go) => waiting.push(go))
    return { body: { understood: true, value: Number(body.text), text: body.text } }
  })
  let last: Draft | null = null
  show(<Bend onDraft={(draft) => (last = draft)} />)
  for (const [label, value] of [
    ['Corner crack 1', '3'],
    ['Corner crack 2', '7'],
  ] as const) {
    fireEvent.change(screen.getByLabelText(label), { target: { value } })
    fireEvent.blur(screen.getByLabelText(label))
  }
  await waitFor(() => expect(waiting).toHaveLength(2))
  for (const go of waiting) go()
  await waitFor(() => expect(last).toMatchObject({ corner_cracks: [{ mm: 3 }, { mm: 7 }] }))
})
