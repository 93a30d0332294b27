import { t } from '@lingui/core/macro'
import { Trans } from '@lingui/react/macro'

import type { Around } from '../../api/types'
import { Labelled } from '../../ui/Labelled'
import { QuantityField } from '../../ui/QuantityField'

type Name = keyof Around
const FIELDS: readonly (readonly [Name, string, string])[] = [
  ['gas_flow_l_min', t`Gas flow at the nozzle`, 'flow'],
  ['gap_mm', t`Gap`, 'gap'],
  ['humidity_percent', t`Humidity`, 'percent'],
  ['return_drop_v', t`Voltage lost in the work return`, 'voltage'],
  ['wind_m_s', t`Wind`, 'wind'],
  ['purge_oxygen_ppm', t`Oxygen in the purge, ppm`, 'number'],
  ['short_circuits_hz', t`Short circuits a second`, 'frequency'],
  ['feed_slip_percent', t`Slip of the wire`, 'percent'],
]

/** What was measured at the booth besides the log; each value may move a cause up or down. */
export function Measured({
  around,
  onChange,
}: {
  around: Around
  onChange: (change: (before: Around) => Around) => void
}) {
  const put = (name: Name, value: number | null) => onChange((before) => ({ ...before, [name]: value }))
  return (
    <details className="panel mb-4 p-3">
      <summary className="cursor-pointer font-head text-[14px] font-semibold">
        <Trans>Measured besides</Trans>
      </summary>
      <div className="mt-2 grid grid-cols-4 gap-3 max-sm:grid-cols-2">
        {FIELDS.map(([name, words, kind]) => (
          <Labelled key={name} words={words}>
            <QuantityField label={words} kind={kind} value={around[name]} onChange={(value) => put(name, value)} />
          </Labelled>
        ))}
      </div>
    </details>
  )
}
