import { t } from '@lingui/core/macro'
import { Trans } from '@lingui/react/macro'

/** How many of the planned passes are logged. */
export function Progress({ done, of, flagged }: { done: number; of: number; flagged: number }) {
  return (
    <div className="mt-2">
      <div
        className="h-1.5 rounded-full bg-line"
        role="progressbar"
        aria-valuenow={done}
        aria-valuemin={0}
        aria-valuemax={of}
        aria-label={t`Passes logged`}
      >
        <div
          className="h-full rounded-full bg-accent"
          style={{ width: `${String(of ? Math.min(done / of, 1) * 100 : 0)}%` }}
        />
      </div>
      <p className="mt-1 text-[12.5px] text-steel">
        <Trans>
          {done} of {of} passes logged
        </Trans>
        {flagged > 0 && (
          <b className="text-breach">
            <Trans>, {flagged} out of range</Trans>
          </b>
        )}
      </p>
    </div>
  )
}
