import { t } from '@lingui/core/macro'
import { Trans } from '@lingui/react/macro'
import { keepPreviousData, useQuery } from '@tanstack/react-query'
import { Link } from 'react-router'

import type { Procedure } from '../../api/types'
import { useUnits } from '../../session/units'
import { Notice } from '../../ui/Notice'
import { useSettled } from '../../ui/useSettled'
import { ChartBands } from './ChartBands'
import { chartsBesideQuery } from '../../queries/procedures'

/** The library's charts, own trial welds and the code's limits beside the pass as it is typed. */
export function ChartsPanel({ document, selected }: { document: Procedure; selected: number }) {
  const { system } = useUnits()
  const settled = useSettled(document, 300)
  const found = useQuery({ ...chartsBesideQuery(settled, system), placeholderData: keepPreviousData })
  if (found.isError)
    return (
      <Notice mark="breach" className="text-[13px]">
        {found.error.message}
      </Notice>
    )
  if (!found.data)
    return (
      <p className="text-[13px] text-steel2">
        <Trans>Comparing …</Trans>
      </p>
    )
  const groups = found.data.filter((one) => one.passes.includes(selected))
  if (groups.length === 0)
    return (
      <p className="text-[13px] text-steel2">
        <Trans>
          No chart or trial weld is for the process and filler size of pass {selected}. Charts are entered in the{' '}
          <Link className="link" to="/library/charts">
            Library
          </Link>
          .
        </Trans>
      </p>
    )
  return <ChartBands groups={groups} title={t`Charts, trials and limits beside this pass`} typed />
}
