import { t } from '@lingui/core/macro'
import { Trans } from '@lingui/react/macro'
import { useQuery } from '@tanstack/react-query'
import { Link, useNavigate, useParams } from 'react-router'

import type { WeldDetail } from '../../api/types'
import { weldQuery } from '../../queries/production'
import { useSession } from '../../session/session'
import { useUnits } from '../../session/units'
import { Button } from '../../ui/Button'
import { NamedWelders } from '../../ui/NamedWelders'
import { Notice } from '../../ui/Notice'
import { PageTitle } from '../../ui/PageTitle'
import { MarkIcon } from '../../ui/Verdict'
import { AsWelded } from './AsWelded'
import { ResultForm } from './ResultForm'
import { Results } from './Results'
import { STATE_MARK, STATE_WORDS } from './states'
import { Strike } from './Strike'
import { useWeldAction } from './useWeldAction'

/** One weld: how it was made, what was found on it, and what is to be done with it next. */
export function WeldPage() {
  const { weldId = '' } = useParams()
  const { system } = useUnits()
  const weld = useQuery(weldQuery(Number(weldId), system))
  const title = weld.data ? `${weld.data.mark} / ${String(weld.data.item)}` : t`Weld`
  return (
    <div className="mx-auto max-w-4xl px-4 py-3">
      <PageTitle words={title} more={t`Production`} />
      {weld.isError && <Notice mark="breach">{weld.error.message}</Notice>}
      {weld.data && <Shown weld={weld.data} />}
    </div>
  )
}

function Shown({ weld }: { weld: WeldDetail }) {
  const open = !['struck', 'repaired'].includes(weld.state)
  const { may } = useSession()
  return (
    <div className="mt-2 grid gap-3">
      <p className="flex flex-wrap items-baseline gap-x-4 gap-y-1">
        <span className="flex items-baseline gap-1.5 font-head text-[19px] font-semibold">
          <MarkIcon mark={STATE_MARK[weld.state]} silent />
          {STATE_WORDS[weld.state]}
        </span>
        <Link className="link" to={`/production/joint?mark=${encodeURIComponent(weld.mark)}`}>
          <Trans>All welds of this joint</Trans>
        </Link>
        {weld.repair_of !== null && (
          <Link className="link" to={`/production/welds/${String(weld.repair_of)}`}>
            <Trans>It repairs this weld</Trans>
          </Link>
        )}
        {weld.repaired_by !== null && (
          <Link className="link" to={`/production/welds/${String(weld.repaired_by)}`}>
            <Trans>Its repair</Trans>
          </Link>
        )}
      </p>
      {weld.fit !== 'covered' && weld.state !== 'struck' && (
        <Notice mark={weld.fit === 'open' ? 'caution' : 'breach'}>
          <b>
            {weld.fit === 'open' ? t`To be decided by the welding engineer.` : t`The WPS does not cover this joint.`}
          </b>{' '}
          {weld.against.join(' ')}
        </Notice>
      )}
      {weld.struck_reason && (
        <Notice>
          <Trans>
            Struck by {weld.struck_name}: {weld.struck_reason}
          </Trans>
        </Notice>
      )}
      {weld.state !== 'struck' && <NamedWelders found={weld.qualified.filter((one) => one.standing !== 'may')} />}
      <Facts weld={weld} />
      <AsWelded weld={weld} />
      <Results weld={weld} />
      {open && may('INSPECT_WELD') && <ResultForm key={weld.results.length} weld={weld} />}
      {open && <Actions weld={weld} />}
    </div>
  )
}

function Facts({ weld }: { weld: WeldDetail }) {
  const rows: [string, string][] = [
    [t({ message: 'Joint', context: 'of a weld list' }), weld.joint],
    [t`WPS`, weld.wps],
    [t`Welded on`, weld.welded_on],
    [t`Welders`, weld.welders.join(', ')],
    [t`Filler batches`, weld.batches.join(', ')],
    [t`Heat numbers of the metal`, weld.heats.join(', ')],
    [t`Remarks`, weld.remarks],
    [t`Entered by`, weld.entered_name],
    [t`Released by`, weld.released_name],
  ]
  return (
    <dl className="panel grid grid-cols-[180px_minmax(0,1fr)] gap-x-3 gap-y-1 px-3 py-2 max-sm:grid-cols-[110px_minmax(0,1fr)]">
      {rows
        .filter(([, said]) => said !== '')
        .map(([name, said]) => (
          <div key={name} className="contents">
            <dt className="text-steel2">{name}</dt>
            <dd className="min-w-0 break-words">{said}</dd>
          </div>
        ))}
    </dl>
  )
}

function Actions({ weld }: { weld: WeldDetail }) {
  const { may, person } = useSession()
  const navigate = useNavigate()
  const action = useWeldAction()
  const own = weld.entered_name === person.name
  return (
    <div className="flex flex-wrap items-start gap-3">
      {may('RELEASE_WELD') && weld.released_at === null && (
        <Button
          look={weld.state === 'accepted' ? 'main' : 'plain'}
          disabled={action.isPending || weld.state !== 'accepted'}
          onClick={() => action.mutate({ kind: 'release', id: weld.id })}
        >
          <Trans>Release this weld</Trans>
        </Button>
      )}
      {may('LOG_WELD') && weld.state === 'rejected' && (
        <Button
          onClick={() =>
            void navigate(`/production/joint?mark=${encodeURIComponent(weld.mark)}&repair=${String(weld.id)}`)
          }
        >
          <Trans>Log its repair</Trans>
        </Button>
      )}
      {may('LOG_WELD') && weld.released_at === null && (own || may('INSPECT_WELD')) && (
        <Strike
          words={t`Strike this entry`}
          pending={action.isPending}
          onStrike={(reason) => action.mutate({ kind: 'strike', id: weld.id, reason })}
        />
      )}
      {action.isError && (
        <Notice mark="breach" className="w-full">
          {action.said}
        </Notice>
      )}
    </div>
  )
}
