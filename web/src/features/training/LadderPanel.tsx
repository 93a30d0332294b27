import { t } from '@lingui/core/macro'
import { Trans } from '@lingui/react/macro'

import type { Ladder } from '../../api/types'
import { fixed } from '../../session/language'

type Props = {
  ladder: Ladder
  now: { stage: string; kind: string } | null
  onChoose: (stage: string, kind: string) => void
}

/** The rungs in the order of the trade. */
export function LadderPanel({ ladder, now, onChoose }: Props) {
  return (
    <section className="panel p-3" aria-labelledby="ladder">
      <h2 id="ladder" className="text-[17px]">
        <Trans>Ladder</Trans>
      </h2>
      <p className="mb-2 text-[13px] text-steel2">
        {ladder.answered === 0
          ? t`Nothing answered yet.`
          : t`${fixed((100 * ladder.points) / ladder.answered, 0)} % of ${ladder.answered} answers right · ${ladder.due} due again`}
      </p>
      <ol>
        {ladder.rungs.map((rung) => (
          <li key={rung.stage} className="border-t border-hair py-1.5">
            <h3 className="font-head text-[14px] font-semibold">
              {rung.title} {rung.held && <span className="font-normal text-holds">● {t`mastered`}</span>}
            </h3>
            <ul>
              {rung.skills.map((one) => {
                const current = now?.stage === rung.stage && now.kind === one.kind
                return (
                  <li key={one.kind}>
                    <button
                      type="button"
                      aria-current={current}
                      className={`flex w-full items-center gap-2 min-h-6 rounded-sm px-2 py-0.5 text-left text-[13px] hover:bg-accent-soft ${current ? 'bg-accent-soft font-semibold' : ''}`}
                      onClick={() => onChoose(rung.stage, one.kind)}
                    >
                      <span className={one.held ? 'text-holds' : 'text-steel2'} aria-hidden="true">
                        {one.held ? '●' : '○'}
                      </span>
                      <span className="flex-1">{one.title}</span>
                      <span className="text-[12px] text-steel2 tabular-nums">
                        {one.is_due ? t`due` : ''}{' '}
                        {one.answered > 0 ? `${fixed(one.points, one.points % 1 === 0 ? 0 : 1)}/${one.answered}` : ''}
                      </span>
                    </button>
                  </li>
                )
              })}
            </ul>
          </li>
        ))}
      </ol>
    </section>
  )
}
