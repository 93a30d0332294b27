import { t } from '@lingui/core/macro'
import { useState } from 'react'

import { Labelled } from '../../ui/Labelled'
import { QuantityField } from '../../ui/QuantityField'
import { Card } from './Card'
import { EMPTY_ROW, RunOuts, type Row } from './RunOuts'

/** Wire feed by run-out, and the dial that it calibrates. */
export function DialCard() {
  const [rows, setRows] = useState<Row[]>([EMPTY_ROW, EMPTY_ROW])
  const [feed, setFeed] = useState<number | null>(null)
  return (
    <Card title={t`Wire run-out and dial`}>
      <RunOuts rows={rows} onChange={setRows} feed={feed} />
      <div className="mt-2 w-44">
        <Labelled words={t`Which setting gives`}>
          <QuantityField label={t`Feed to find on the dial`} kind="wire_feed" value={feed} onChange={setFeed} />
        </Labelled>
      </div>
    </Card>
  )
}
