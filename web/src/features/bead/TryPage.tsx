import { t } from '@lingui/core/macro'
import { Trans } from '@lingui/react/macro'

import { PageTitle } from '../../ui/PageTitle'
import { STARTS } from './settings'
import { TrySettings } from './TrySettings'

/** Settings tried before the arc; nothing is stored. */
export function TryPage() {
  const start = STARTS['135']
  return (
    <div className="px-5 py-4">
      <PageTitle words={t`Try a setting`} className="mb-1" />
      <p className="mb-3 max-w-[80ch] text-[13px] text-steel2">
        <Trans>
          What settings make of a weld, by a model with its error beside each figure. It compares settings; it accepts
          nothing. Weld a trial piece before production.
        </Trans>
      </p>
      {start && <TrySettings start={start} />}
    </div>
  )
}
