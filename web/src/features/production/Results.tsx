import { t } from '@lingui/core/macro'
import { Trans } from '@lingui/react/macro'

import type { WeldDetail } from '../../api/types'
import { useSession } from '../../session/session'
import { Notice } from '../../ui/Notice'
import { MarkIcon } from '../../ui/Verdict'
import { METHOD_WORDS } from './states'
import { Strike } from './Strike'
import { useWeldAction } from './useWeldAction'

/** What was found on a weld; struck results stay with their reason. */
export function Results({ weld }: { weld: WeldDetail }) {
  const { may } = useSession()
  const action = useWeldAction()
  if (weld.results.length === 0)
    return (
      <p className="panel px-3 py-2 text-steel">
        <Trans>Nothing was inspected on it yet.</Trans>
      </p>
    )
  return (
    <section className="panel px-3 py-2" aria-label={t`Results`}>
      <ul className="grid gap-2">
        {weld.results.map((one) => (
          <li key={one.id} className="text-[14px]">
            <div className={`flex flex-wrap items-baseline gap-x-3 ${one.struck_reason ? 'line-through' : ''}`}>
              <span className="flex items-baseline gap-1.5 font-head font-semibold">
                <MarkIcon mark={one.struck_reason ? 'outside' : one.accepted ? 'holds' : 'breach'} size={10} silent />
                {METHOD_WORDS[one.method]} {one.accepted ? t`accepted` : t`rejected`}
              </span>
              <span>{one.inspected_on}</span>
              <span>{one.inspector}</span>
              {one.report && <span>{one.report}</span>}
            </div>
            {one.found && <p className="text-steel">{one.found}</p>}
            {one.struck_reason && (
              <p className="text-[13px] text-steel2">
                <Trans>
                  Struck by {one.struck_name}: {one.struck_reason}
                </Trans>
              </p>
            )}
            {!one.struck_reason && may('INSPECT_WELD') && weld.repaired_by === null && weld.state !== 'released' && (
              <Strike
                words={t`Strike this result`}
                pending={action.isPending}
                onStrike={(reason) => action.mutate({ kind: 'strike-result', id: one.id, reason })}
              />
            )}
          </li>
        ))}
      </ul>
      {action.isError && <Notice mark="breach">{action.said}</Notice>}
    </section>
  )
}
