import { useState } from 'react'

import { chemistryOf } from '../../domain/chemistry'
import { ChemistryGrid } from '../../ui/ChemistryGrid'
import { useSettled } from '../../ui/useSettled'
import { Card } from './Card'
import { EquivalentsTable } from './EquivalentsTable'

/** Carbon equivalents and the like, from a composition in %. */
export function Equivalents() {
  const [typed, setTyped] = useState<Record<string, string>>({})
  const settled = useSettled(typed)
  return (
    <Card title="Carbon equivalents">
      <ChemistryGrid typed={typed} onType={setTyped} />
      {Object.keys(chemistryOf(typed).chemistry).length === 0 && (
        <p className="mt-2 text-[13px] text-steel2">Type a composition, or paste a line of a certificate: C 0.16 Si 0.40 Mn 1.45</p>
      )}
      <EquivalentsTable chemistry={chemistryOf(settled).chemistry} />
    </Card>
  )
}
