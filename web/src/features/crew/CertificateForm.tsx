import { t } from '@lingui/core/macro'
import { Trans } from '@lingui/react/macro'
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import { useState } from 'react'

import { api, unwrap } from '../../api/client'
import { errorsOf } from '../../api/errors'
import type { CertificateIn, CrewMember, Scan, WelderTest } from '../../api/types'
import { designationQuery } from '../../queries/crew'
import { useSession } from '../../session/session'
import { Button } from '../../ui/Button'
import { Choice } from '../../ui/Choice'
import { Labelled } from '../../ui/Labelled'
import { Notice } from '../../ui/Notice'
import { PasswordField } from '../../ui/PasswordField'
import { TextField } from '../../ui/TextField'
import { useSettled } from '../../ui/useSettled'
import { RangeRows } from './RangeRows'
import { Scans } from './Scans'

const WAYS: Record<string, string> = {
  a: t`a) a new test when the period ends`,
  b: t`b) prolonged by the examiner on tested welds`,
  c: t`c) valid while employed under a verified quality system`,
}
const YES_NO: readonly (readonly [string, string])[] = [
  ['yes', t`yes`],
  ['no', t`no`],
]
const ENTRY = {
  number: '',
  designation: '',
  weldedOn: '',
  way: null as CertificateIn['way'],
  sameEmployer: null as string | null,
  system: '',
  records: null as string | null,
  wps: '',
  examiner: '',
  body: '',
  place: '',
  tests: '',
  training: '',
  notStated: '',
  password: '',
}

type Props = {
  member: CrewMember
  /** The coupon that was the test piece; without it the certificate is entered from paper. */
  test?: WelderTest & { couponId: number }
  onClose: () => void
}

/** What the coupon says; who examines is whoever signs as the examiner. */
function entryOf(test: WelderTest, person: { name: string; role: string }): Partial<typeof ENTRY> {
  return {
    designation: test.designation,
    weldedOn: test.welded_on ?? '',
    wps: test.wps,
    tests: test.tests.join('; '),
    examiner: person.role === 'examiner' ? person.name : '',
  }
}

const listed = (text: string) =>
  text
    .split(/[;\n]/)
    .map((one) => one.trim())
    .filter(Boolean)
const yesNo = (said: string | null) => (said === null ? null : said === 'yes')

/** Enter a certificate from paper, or sign the one of a test: what it qualifies is read while one types. */
export function CertificateForm({ member, test, onClose }: Props) {
  const queries = useQueryClient()
  const { may, person } = useSession()
  const [form, setForm] = useState(() => (test ? { ...ENTRY, ...entryOf(test, person) } : ENTRY))
  const [fromPaper, setFromPaper] = useState(!test && may('KEEP_CREW'))
  const [scans, setScans] = useState<Scan[]>([])
  const set = (changed: Partial<typeof form>) => setForm((now) => ({ ...now, ...changed }))
  const designation = useSettled(form.designation.trim(), 250)
  const read = useQuery({ ...designationQuery(designation), enabled: designation !== '' })
  const ways = read.data?.ways ?? []
  const sign = useMutation({
    mutationFn: () => {
      const body: CertificateIn = {
        number: form.number,
        designation: form.designation,
        welded_on: form.weldedOn,
        way: ways.length > 0 ? form.way : null,
        employed_under:
          form.way === 'c'
            ? {
                same_employer: yesNo(form.sameEmployer),
                system: form.system.trim() || null,
                records: yesNo(form.records),
              }
            : null,
        wps: form.wps,
        examiner: form.examiner,
        body: form.body,
        place: form.place,
        tests: listed(form.tests),
        training: form.training,
        from_paper: fromPaper,
        not_stated: fromPaper ? listed(form.notStated) : [],
        scans: scans.map((one) => one.id),
        password: form.password,
      }
      return test
        ? unwrap(api.POST('/api/coupons/{coupon_id}/certify', { params: { path: { coupon_id: test.couponId } }, body }))
        : unwrap(api.POST('/api/crew/{member_id}/certificates', { params: { path: { member_id: member.id } }, body }))
    },
    onSuccess: async () => {
      await queries.invalidateQueries({ queryKey: ['crew'] })
      onClose()
    },
  })
  const error = errorsOf(sign.error)
  const line = (
    name: 'number' | 'wps' | 'examiner' | 'body' | 'place' | 'tests' | 'training' | 'notStated',
    words: string,
    path?: string,
  ) => (
    <Labelled words={words}>
      <TextField
        label={words}
        value={form[name]}
        error={error(path ?? name)}
        onChange={(said) => set({ [name]: said ?? '' })}
      />
    </Labelled>
  )
  const designationError = error('designation') ?? (designation && read.isError ? read.error.message : undefined)
  return (
    <form
      className="panel grid gap-3 px-4 py-3"
      aria-label={t`Enter a certificate`}
      onSubmit={(event) => {
        event.preventDefault()
        sign.mutate()
      }}
    >
      <h2 className="font-head text-[18px] font-semibold">{t`Certificate of ${member.name}`}</h2>
      {test && (
        <p className="text-[13.5px] text-steel">
          <Trans>The test piece is coupon {test.coupon}. What is filled in comes from its log and its tests.</Trans>
        </p>
      )}
      {test && test.missing.length > 0 && <Notice mark="unknown">{test.missing.join(' ')}</Notice>}
      <Labelled words={t`Designation`}>
        <TextField
          label={t`Designation`}
          path="designation"
          value={form.designation}
          error={designationError}
          placeholder="ISO 9606-1 135 P BW FM1 S s10 PF ss nb"
          onChange={(said) => set({ designation: said ?? '' })}
        />
      </Labelled>
      {read.data && designation && (
        <details className="text-[13px]">
          <summary className="cursor-pointer">
            <Trans>
              Read by {read.data.short} as <b>{read.data.designation}</b>: see what it qualifies
            </Trans>
          </summary>
          <RangeRows items={read.data.items} variables={read.data.variables} />
        </details>
      )}
      <div className="grid grid-cols-3 gap-3 max-md:grid-cols-1">
        {line('number', t`Number of the certificate`)}
        <label>
          <span className="label">{t`Test piece welded on`}</span>
          <input
            type="date"
            required
            className={`field ${error('welded_on') ? 'border-breach!' : ''}`}
            value={form.weldedOn}
            onChange={(event) => set({ weldedOn: event.target.value })}
          />
          {error('welded_on') && (
            <span role="alert" className="text-[12px] text-breach">
              {error('welded_on')}
            </span>
          )}
        </label>
        {ways.length > 0 && (
          <Labelled words={t`Way of revalidation`}>
            <Choice
              label={t`Way of revalidation`}
              path="way"
              value={form.way ?? null}
              options={ways.map((one) => [one, WAYS[one] ?? one] as const)}
              onChange={(way: 'a' | 'b' | 'c' | null) => set({ way })}
            />
            {error('way') && (
              <span role="alert" className="text-[12px] text-breach">
                {error('way')}
              </span>
            )}
          </Labelled>
        )}
        {ways.length > 0 && form.way === 'c' && (
          <>
            <Labelled words={t`Works for the manufacturer of the test`}>
              <Choice
                label={t`Works for the manufacturer of the test`}
                none={t`not stated`}
                value={form.sameEmployer}
                options={YES_NO}
                onChange={(sameEmployer: string | null) => set({ sameEmployer })}
              />
            </Labelled>
            <Labelled words={t`Quality system that was verified`}>
              <TextField
                label={t`Quality system that was verified`}
                placeholder="ISO 3834-2"
                value={form.system}
                onChange={(said) => set({ system: said ?? '' })}
              />
            </Labelled>
            <Labelled words={t`Records of good welds are kept`}>
              <Choice
                label={t`Records of good welds are kept`}
                none={t`not stated`}
                value={form.records}
                options={YES_NO}
                onChange={(records: string | null) => set({ records })}
              />
            </Labelled>
          </>
        )}
        {line('wps', t`WPS`)}
        {line('examiner', t`Examiner`)}
        {line('body', t`Examining body`)}
        {line('place', t`Place`)}
        {line('tests', t`Tests accepted, divided by semicolons`)}
        {line('training', t`Further training before the test, after one that failed`)}
      </div>
      {may('KEEP_CREW') && !test && (
        <label className="flex items-center gap-2">
          <input type="checkbox" checked={fromPaper} onChange={() => setFromPaper(!fromPaper)} />
          <Trans>It is entered from paper</Trans>
        </label>
      )}
      {fromPaper && (
        <div className="grid grid-cols-2 gap-3 max-md:grid-cols-1">
          {line('notStated', t`What the paper does not state, divided by semicolons`, 'not_stated')}
          <Scans memberId={member.id} scans={scans} onChange={setScans} error={error('scans')} />
        </div>
      )}
      <PasswordField
        className="max-w-xs"
        value={form.password}
        error={error('password')}
        onChange={(password) => set({ password })}
      />
      {sign.isError && <Notice mark="breach">{sign.error.message}</Notice>}
      <p className="text-[12.5px] text-steel2">
        <Trans>What is signed is not rewritten. A wrong entry is revoked with its reason, and entered anew.</Trans>
      </p>
      <div className="flex justify-end gap-2">
        <Button onClick={onClose}>
          <Trans>Not now</Trans>
        </Button>
        <Button type="submit" look="main" disabled={sign.isPending || form.password === ''}>
          <Trans>Sign the certificate</Trans>
        </Button>
      </div>
    </form>
  )
}
