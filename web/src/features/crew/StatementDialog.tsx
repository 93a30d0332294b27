import { plural, t } from '@lingui/core/macro'
import { Trans } from '@lingui/react/macro'
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import { useState } from 'react'

import { api, unwrap } from '../../api/client'
import { errorsOf } from '../../api/errors'
import type { CrewCertificate, CrewMember, Scan, StatementIn, WorkList } from '../../api/types'
import { workQuery } from '../../queries/crew'
import { useSession } from '../../session/session'
import { Button } from '../../ui/Button'
import { Choice } from '../../ui/Choice'
import { Labelled } from '../../ui/Labelled'
import { Modal } from '../../ui/Modal'
import { Notice } from '../../ui/Notice'
import { PasswordField } from '../../ui/PasswordField'
import { TextField } from '../../ui/TextField'
import { Scans } from './Scans'
import { WorkChoice } from './WorkChoice'

type Props = { kind: StatementIn['kind']; certificate: CrewCertificate; member: CrewMember; onClose: () => void }

const TITLES: Record<StatementIn['kind'], string> = {
  confirmation: t`Confirm the work`,
  prolongation: t`Prolong the certificate`,
  renewal: t`Renew the qualification by a test`,
  revocation: t`Revoke the certificate`,
}
const SIGNERS: readonly (readonly [string, string])[] = [
  ['responsible', t`person responsible for welding`],
  ['examiner', t`examiner`],
  ['examining-body', t`examining body`],
]
const LISTED_AT_FIRST = 5

/** Those within the range that are offered at first: tested ones lead, and a few are enough. */
const offered = (list: WorkList | undefined, kind: StatementIn['kind']) =>
  (list?.works ?? [])
    .filter(
      (one) => one.within === true && one.accepted !== false && (kind !== 'prolongation' || one.accepted === true),
    )
    .slice(0, LISTED_AT_FIRST)
    .map((one) => one.ref)

/** Sign about a certificate: the welds that speak for it are listed from the logs, and a person signs. */
export function StatementDialog({ kind, certificate, member, onClose }: Props) {
  const { may, person } = useSession()
  const queries = useQueryClient()
  const rests = kind === 'confirmation' || kind === 'prolongation'
  const work = useQuery({ ...workQuery(certificate.id), enabled: rests })
  const [chosen, setChosen] = useState<string[] | null>(null)
  const [meets, setMeets] = useState<string[]>([])
  // Whoever is no examiner enters a prolongation from paper alone.
  const [paper, setPaper] = useState(kind === 'prolongation' && person.role !== 'examiner')
  const [form, setForm] = useState({
    on: '',
    signer: kind === 'prolongation' ? 'examiner' : 'responsible',
    signedBy: '',
    reason: '',
    password: '',
  })
  const [scans, setScans] = useState<Scan[]>([])
  const [test, setTest] = useState<string | null>(certificate.renewing[0] ? String(certificate.renewing[0].id) : null)
  const set = (changed: Partial<typeof form>) => setForm((now) => ({ ...now, ...changed }))
  const works = chosen ?? offered(work.data, kind)
  const sign = useMutation({
    mutationFn: () => {
      const body: StatementIn = {
        kind,
        renewed_by: kind === 'renewal' && test !== null ? Number(test) : null,
        works: rests && !paper ? works : [],
        meets: kind === 'prolongation' ? meets : [],
        reason: form.reason,
        on: paper ? form.on : null,
        signer: paper ? (form.signer as NonNullable<StatementIn['signer']>) : null,
        signed_by: paper ? form.signedBy : '',
        scans: paper ? scans.map((one) => one.id) : [],
        password: form.password,
      }
      return unwrap(
        api.POST('/api/certificates/{certificate_id}/statements', {
          params: { path: { certificate_id: certificate.id } },
          body,
        }),
      )
    },
    onSuccess: async () => {
      await queries.invalidateQueries({ queryKey: ['crew'] })
      onClose()
    },
  })
  const error = errorsOf(sign.error)
  const onPaper = paper && rests
  return (
    <Modal title={TITLES[kind]} open onClose={onClose} wide>
      <form
        className="grid gap-3"
        onSubmit={(event) => {
          event.preventDefault()
          sign.mutate()
        }}
      >
        <p className="text-steel">{said(kind, member.name, certificate.designation)}</p>
        {rests && may('KEEP_CREW') && (
          <label className="flex items-center gap-2">
            <input type="checkbox" checked={paper} onChange={() => setPaper(!paper)} />
            <Trans>It was signed on paper, and is entered from there</Trans>
          </label>
        )}
        {onPaper && (
          <div className="grid grid-cols-3 gap-3 max-md:grid-cols-1">
            <label>
              <span className="label">{t`Signed on`}</span>
              <input
                type="date"
                required
                className={`field ${error('on') ? 'border-breach!' : ''}`}
                value={form.on}
                onChange={(event) => set({ on: event.target.value })}
              />
            </label>
            <Labelled words={t`Whose signature it is`}>
              <TextField
                label={t`Whose signature it is`}
                value={form.signedBy}
                error={error('signed_by')}
                onChange={(signedBy) => set({ signedBy: signedBy ?? '' })}
              />
            </Labelled>
            <Labelled words={t`As`}>
              <Choice
                label={t`As`}
                value={form.signer}
                options={SIGNERS}
                onChange={(signer: string | null) => signer && set({ signer })}
              />
            </Labelled>
            <Scans memberId={member.id} scans={scans} onChange={setScans} error={error('scans')} />
          </div>
        )}
        {rests && !onPaper && (
          <>
            {work.isError && <Notice mark="breach">{work.error.message}</Notice>}
            {work.data && (
              <WorkChoice
                list={work.data}
                chosen={works}
                onChosen={setChosen}
                meets={kind === 'prolongation' ? meets : null}
                onMeets={setMeets}
              />
            )}
          </>
        )}
        {kind === 'renewal' && (
          <Labelled words={t`Test that renews it`}>
            <Choice
              label={t`Test that renews it`}
              value={test}
              options={certificate.renewing.map(
                (one) => [String(one.id), `${one.number}, ${one.designation}`] as const,
              )}
              onChange={setTest}
            />
            {error('renewed_by') && (
              <Notice mark="breach" className="text-[13px]">
                {error('renewed_by')}
              </Notice>
            )}
          </Labelled>
        )}
        <Labelled words={kind === 'revocation' ? t`Why it is revoked` : t`Remarks`}>
          <TextField
            label={kind === 'revocation' ? t`Why it is revoked` : t`Remarks`}
            rows={2}
            value={form.reason}
            error={error('reason')}
            onChange={(reason) => set({ reason: reason ?? '' })}
          />
        </Labelled>
        <PasswordField
          className="max-w-xs"
          value={form.password}
          error={error('password')}
          onChange={(password) => set({ password })}
        />
        {sign.isError && (
          <Notice mark="breach" className="text-[13px]">
            {sign.error.message}
          </Notice>
        )}
        <div className="flex items-center justify-end gap-2">
          {rests && !onPaper && (
            <span className="mr-auto text-[13px] text-steel2">
              {plural(works.length, { 0: 'no weld chosen', one: 'rests on # weld', other: 'rests on # welds' })}
            </span>
          )}
          <Button onClick={onClose}>
            <Trans>Not now</Trans>
          </Button>
          <Button type="submit" look="main" disabled={sign.isPending || form.password === ''}>
            {kind === 'revocation' ? t`Sign the revocation` : t`Sign`}
          </Button>
        </div>
      </form>
    </Modal>
  )
}

function said(kind: StatementIn['kind'], name: string, designation: string): string {
  if (kind === 'confirmation') return t`You sign that ${name} has welded within the range of ${designation}.`
  if (kind === 'prolongation')
    return t`You sign that ${designation} of ${name} holds for another period, on the tested welds that are chosen.`
  if (kind === 'renewal')
    return t`You sign that ${designation} of ${name}, which had lapsed, is renewed by a later test.`
  return t`You sign that ${designation} of ${name} ends today, because there is reason to doubt it.`
}
