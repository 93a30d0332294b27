import { t } from '@lingui/core/macro'
import { Trans } from '@lingui/react/macro'
import { useQuery } from '@tanstack/react-query'

import type { JointType } from '../../api/types'
import { whyQuery } from '../../queries/joints'
import { MarkIcon } from '../../ui/Verdict'
import { VERDICT_MARK } from './verdicts'

/** What each record says to a joint type: what blocks, and by how much. */
export function WhyRow({ jobId, one, columns }: { jobId: number; one: JointType; columns: number }) {
  const why = useQuery(whyQuery(jobId, one.key))
  return (
    <tr className="border-b border-line bg-rail">
      <td colSpan={columns} className="px-3 py-2">
        {why.isError && <p className="text-breach">{why.error.message}</p>}
        <ul aria-label={t`Records`} className="grid gap-1.5 text-[13.5px]">
          {why.data?.map((said) => (
            <li key={said.record} className="grid grid-cols-[110px_minmax(0,1fr)] gap-2">
              <span className="flex items-baseline gap-1.5 font-head font-semibold">
                <MarkIcon mark={VERDICT_MARK[said.verdict]} size={10} silent />
                {said.record}
              </span>
              <span>{said.reasons.length > 0 ? said.reasons.join(' ') : t`covers it`}</span>
            </li>
          ))}
        </ul>
        {why.data?.length === 0 && (
          <p>
            <Trans>This job has no signed record yet: nothing is covered.</Trans>
          </p>
        )}
        <p className="mt-2 text-[12.5px] text-steel2">{one.marks.join(', ')}</p>
      </td>
    </tr>
  )
}
