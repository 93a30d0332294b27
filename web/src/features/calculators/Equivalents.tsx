import { t } from '@lingui/core/macro'
import { Trans } from '@lingui/react/macro'
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
    <Card title={t`Carbon equivalents`}>
      <ChemistryGrid typed={typed} onType={setTyped} />
      {Object.keys(chemistryOf(typed).chemistry).length === 0 && (
        <p className="mt-2 text-[13px] text-steel2">
          <Trans>Type a composition, or paste a line of a certificate: C 0.16 Si 0.40 Mn 1.45</Trans>
        </p>
      )}
      <EquivalentsTable chemistry={chemistryOf(settled).chemistry} />
    </Card>
  )
}
