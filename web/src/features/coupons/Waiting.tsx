import { t } from '@lingui/core/macro'
import { Trans } from '@lingui/react/macro'
import type { Coupon } from '../../api/types'
import { useUnits } from '../../session/units'
import { isInside } from '../../domain/mirror'
import type { Outbox, OutboxState, Writer } from '../../domain/outbox'
import type { WaitingPass } from '../../domain/waiting'
import { useSession } from '../../session/session'
import { MarkIcon } from '../../ui/Verdict'
import { mirroredHeat, nextPass } from './model'

type Props = {
  coupon: Coupon
  state: OutboxState<WaitingPass>
  queue: Outbox<WaitingPass>
  mayTakeBack: boolean
  onTakeBack: (clientId: string) => void
}

/** Passes that are saved here and not at the server yet, with the little that can be said meanwhile. */
export function WaitingPasses({ coupon, state, queue, mayTakeBack, onTakeBack }: Props) {
  const units = useUnits()
  const { person } = useSession()
  if (state.waiting.length === 0) return null
  const next = nextPass(coupon, state.waiting)
  return (
    <section aria-label={t`On the way`} role="status" className="panel border-caution! px-4 py-2 text-[15px]">
      {state.away && (
        <p className="mb-1">
          <Trans>{state.away} What is below is kept in this browser. It is sent again by itself.</Trans>
        </p>
      )}
      <ul className="grid gap-1">
        {state.waiting.map((one) => {
          const heat = mirroredHeat(one.record, coupon)
          const band = coupon.procedure.thermal?.heat_input_kj_mm ?? rangeOf(coupon, one.record.number)
          return (
            <li key={one.clientId} data-waiting={one.record.number}>
              <b>
                <Trans>Pass {one.record.number}</Trans>
              </b>{' '}
              {heat !== null && (
                <>
                  {units.value(heat, 'heat_input')} {units.unit('heat_input')}
                  {band && (
                    <>
                      {' '}
                      <MarkIcon mark={isInside(heat, band) ? 'holds' : 'breach'} />{' '}
                      {isInside(heat, band) ? t`in the band` : t`out of the band`}
                    </>
                  )}
                  {'; '}
                </>
              )}
              {one.refused ? (
                <span className="text-breach">
                  {one.refused.message}{' '}
                  {one.refused.conflict && (
                    <button type="button" className="link p-1" onClick={() => renumber(queue, one.clientId, next)}>
                      <Trans>Keep mine as pass {next}</Trans>
                    </button>
                  )}{' '}
                  {/* What is being typed now must not be lost for it. */}
                  <button
                    type="button"
                    className="link p-1 disabled:no-underline disabled:opacity-60"
                    disabled={!mayTakeBack}
                    title={mayTakeBack ? undefined : t`Save the pass that is being typed first`}
                    onClick={() => onTakeBack(one.clientId)}
                  >
                    <Trans>Take it back into the entry</Trans>
                  </button>
                </span>
              ) : (
                <span className="text-steel2">
                  {one.by?.id !== person.id ? (
                    <OfAnother by={one.by} mayTakeBack={mayTakeBack} onTakeBack={() => onTakeBack(one.clientId)} />
                  ) : state.away ? (
                    t`judged when connected`
                  ) : (
                    t`being sent …`
                  )}
                </span>
              )}
            </li>
          )
        })}
      </ul>
    </section>
  )
}

/** What somebody else saved here is sent under that name only; of what nobody is known to have saved, one says so. */
function OfAnother({
  by,
  mayTakeBack,
  onTakeBack,
}: {
  by: Writer | null
  mayTakeBack: boolean
  onTakeBack: () => void
}) {
  if (by)
    return (
      <Trans>
        saved here by {by.name}; it is sent when {by.name} signs in on this device
      </Trans>
    )
  return (
    <>
      <Trans>kept by an older version of the program, which did not note who saved it: </Trans>
      <button type="button" className="link p-1" disabled={!mayTakeBack} onClick={onTakeBack}>
        <Trans>Take it back into the entry</Trans>
      </button>
    </>
  )
}

function renumber(queue: Outbox<WaitingPass>, clientId: string, number: number) {
  queue.mend(clientId, (one) => ({ ...one, record: { ...one.record, number } }))
}

function rangeOf(coupon: Coupon, number: number) {
  const planned = coupon.evaluation.heat_input.find((one) => one.pass_number === number)
  return planned ? { min: planned.min_kj_mm, max: planned.max_kj_mm } : null
}
