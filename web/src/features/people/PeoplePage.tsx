import { plural, t } from '@lingui/core/macro'
import { Trans } from '@lingui/react/macro'
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import { useState } from 'react'

import { api, unwrap } from '../../api/client'
import type { Account, Invitation } from '../../api/types'
import { inWords } from '../../domain/words'
import { peopleQuery } from '../../queries/people'
import { useJob } from '../../session/job'
import { useSession } from '../../session/session'
import { Button } from '../../ui/Button'
import { Notice } from '../../ui/Notice'
import { PageTitle } from '../../ui/PageTitle'
import { MarkIcon } from '../../ui/Verdict'
import { FactorRemoval } from './FactorRemoval'
import { InvitationDialog } from './InvitationDialog'
import { PersonDialog } from './PersonDialog'
import { ResetDialog } from './ResetDialog'

/** Who may sign in, and as what; only an administrator sees and changes it. */
export function PeoplePage() {
  const { may } = useSession()
  const people = useQuery({ ...peopleQuery, enabled: may('KEEP_PEOPLE') })
  const [open, setOpen] = useState<{ change?: Account; reset?: Account; factor?: Account; invite?: boolean }>({})
  const [invitation, setInvitation] = useState<Invitation | null>(null)
  const close = () => setOpen({})
  return (
    <div className="px-5 py-4">
      <div className="mb-3 flex flex-wrap items-center gap-x-4 gap-y-2">
        <PageTitle words={t`People and access`} />
        {may('KEEP_PEOPLE') && (
          <Button look="main" className="ml-auto" onClick={() => setOpen({ invite: true })}>
            <Trans>Invite a person</Trans>
          </Button>
        )}
      </div>
      {!may('KEEP_PEOPLE') && (
        <Notice mark="unknown">
          <Trans>An administrator manages people and access.</Trans>
        </Notice>
      )}
      {people.isError && <Notice mark="breach">{people.error.message}</Notice>}
      {people.data && (
        <Table
          people={people.data}
          onChange={(change) => setOpen({ change })}
          onReset={(reset) => setOpen({ reset })}
          onFactor={(factor) => setOpen({ factor })}
        />
      )}
      <p className="mt-3 max-w-2xl text-[13px] text-steel2">
        <Trans>
          Nobody is removed: what a person signed keeps its name. Whoever leaves is disabled, and is signed out at once.
        </Trans>
      </p>
      {(open.invite || open.change) && <PersonDialog account={open.change} onClose={close} onInvited={setInvitation} />}
      {open.reset && <ResetDialog account={open.reset} onClose={close} onReset={setInvitation} />}
      {open.factor && <FactorRemoval account={open.factor} onClose={close} />}
      {invitation && <InvitationDialog invitation={invitation} onClose={() => setInvitation(null)} />}
    </div>
  )
}

type TableProps = {
  people: readonly Account[]
  onChange: (one: Account) => void
  onReset: (one: Account) => void
  onFactor: (one: Account) => void
}

function Table({ people, onChange, onReset, onFactor }: TableProps) {
  const active = people.filter((one) => one.active).length
  return (
    <>
      <p className="mb-2 font-head text-[16px]" role="status">
        {plural(active, { one: '# person may sign in', other: '# people may sign in' })}
      </p>
      <div className="panel overflow-x-auto">
        <table className="w-full text-[14px]">
          <thead>
            <tr className="border-b border-line text-left font-head">
              <th scope="col" className="px-3 py-1.5">{t`Name`}</th>
              <th scope="col" className="w-44 px-2 py-1.5">{t`Role`}</th>
              <th scope="col" className="px-2 py-1.5">{t`Access`}</th>
              <th scope="col" className="w-36 px-2 py-1.5">{t`Last signed in`}</th>
              <th scope="col" className="w-64 px-2 py-1.5">
                <span className="sr-only">{t`Actions`}</span>
              </th>
            </tr>
          </thead>
          <tbody>
            {people.map((one) => (
              <Row
                key={one.id}
                one={one}
                onChange={() => onChange(one)}
                onReset={() => onReset(one)}
                onFactor={() => onFactor(one)}
              />
            ))}
          </tbody>
        </table>
      </div>
    </>
  )
}

type RowProps = { one: Account; onChange: () => void; onReset: () => void; onFactor: () => void }

function Row({ one, onChange, onReset, onFactor }: RowProps) {
  const { person } = useSession()
  const { jobs = [] } = useJob()
  const seen = jobs.flatMap((job) => (one.only_jobs?.includes(job.id) ? [job.number] : [])).join(', ')
  const queries = useQueryClient()
  const unlock = useMutation({
    mutationFn: () => unwrap(api.POST('/api/people/{person_id}/unlock', { params: { path: { person_id: one.id } } })),
    onSuccess: () => queries.invalidateQueries({ queryKey: ['people'] }),
  })
  return (
    <tr className={`border-b border-line align-top ${one.active ? '' : 'text-steel2'}`}>
      <th scope="row" className="px-3 py-1.5 text-left break-words">
        {one.name}
        <div className="text-[12.5px] font-normal text-steel2">{one.username}</div>
      </th>
      <td className="px-2 py-1.5">
        {inWords(one.role)}
        {one.only_jobs && <div className="text-[12.5px] text-steel2">{t`sees only ${seen}`}</div>}
      </td>
      <td className="px-2 py-1.5">
        <Access one={one} />
        {one.second_factor && (
          <div className="text-[12.5px] text-steel2">
            <Trans>with a second factor</Trans>
          </div>
        )}
        {unlock.isError && <Notice mark="breach">{unlock.error.message}</Notice>}
      </td>
      <td className="px-2 py-1.5">{one.last_login ? one.last_login.slice(0, 10) : t`never`}</td>
      <td className="px-2 py-1">
        <div className="flex flex-wrap justify-end gap-2">
          {one.locked && (
            <Button
              aria-label={t`Let ${one.name} try again`}
              disabled={unlock.isPending}
              onClick={() => unlock.mutate()}
            >
              <Trans>Unlock</Trans>
            </Button>
          )}
          {one.second_factor && one.id !== person.id && (
            <Button aria-label={t`Remove the second factor of ${one.name}`} onClick={onFactor}>
              <Trans>Remove factor</Trans>
            </Button>
          )}
          {one.active && one.id !== person.id && (
            <Button aria-label={t`New password link for ${one.name}`} onClick={onReset}>
              <Trans>New link</Trans>
            </Button>
          )}
          <Button aria-label={t`Change ${one.name}`} onClick={onChange}>
            <Trans>Change</Trans>
          </Button>
        </div>
      </td>
    </tr>
  )
}

function Access({ one }: { one: Account }) {
  const [mark, words] = !one.active
    ? (['unknown', t`disabled`] as const)
    : one.locked
      ? (['caution', t`locked after too many failed sign-ins`] as const)
      : one.invited
        ? (['unknown', t`invited, no password set yet`] as const)
        : one.password_own
          ? (['holds', t`signs in with an own password`] as const)
          : (['caution', t`password set by somebody else: signs nothing until it is changed`] as const)
  return (
    <span className="flex items-baseline gap-1.5">
      <MarkIcon mark={mark} size={10} silent />
      {words}
    </span>
  )
}
