import { t } from '@lingui/core/macro'
import { Trans } from '@lingui/react/macro'
import { useQuery } from '@tanstack/react-query'
import { useState } from 'react'
import { Link, useSearchParams } from 'react-router'

import type { Around, CausesIn } from '../../api/types'
import { passesOf } from '../../domain/procedure'
import { qualifiedOf } from '../../domain/qualified'
import { causesQuery, passKnownQuery } from '../../queries/faults'
import { revisionQuery } from '../../queries/procedures'
import { draftCoverageQuery } from '../../queries/qualification'
import { useSession } from '../../session/session'
import { useUnits } from '../../session/units'
import { Notice } from '../../ui/Notice'
import { PageTitle } from '../../ui/PageTitle'
import { useSettled } from '../../ui/useSettled'
import { CauseCard } from './CauseCard'
import { CuredDialog } from './CuredDialog'
import { HereBefore } from './HereBefore'
import { Measured } from './Measured'
import { SymptomList } from './SymptomList'

const OPEN_FIRST = 3

/** From what is seen to its causes, ranked by what is known of the pass. The address holds what was asked. */
export function FaultsPage() {
  const [params, setParams] = useSearchParams()
  const number = (name: string) => (/^\d+$/.test(params.get(name) ?? '') ? Number(params.get(name)) : null)
  const [passId, revisionId, passNumber] = [number('pass'), number('revision'), number('at')]
  const { system } = useUnits()
  const known = useQuery({ ...passKnownQuery(passId ?? 0, system), enabled: passId !== null })
  const suggested = known.data?.suggested ?? []
  const symptom = params.get('symptom') ?? suggested[0]?.key ?? ''
  return (
    <div className="px-5 py-4">
      <PageTitle words={t`Find a fault`} className="mb-1" />
      <p className="mb-3 max-w-[90ch] text-[13px] text-steel2">
        <Trans>
          Causes of a fault, the likeliest first by common practice and by what is known of the pass. It ranks; it
          proves nothing. A crack stops the welding until the welding engineer has seen it.
        </Trans>
      </p>
      {known.isError && <Notice mark="breach">{known.error.message}</Notice>}
      {known.data && (
        <div className="panel mb-4 p-3 text-[13.5px]">
          <Link className="link font-semibold" to={`/coupons/${known.data.coupon_id}`}>
            {t`Coupon ${known.data.coupon_number}, pass ${known.data.pass_number}`}
          </Link>{' '}
          <span className="text-steel2">
            {known.data.process} · {known.data.procedure_number}
          </span>
          {known.data.findings.length === 0 && (
            <span className="ml-2 text-steel2">{t`Nothing on this pass is out of range.`}</span>
          )}
          {known.data.settings && (
            <Link className="link float-right" to={`/try?pass=${passId}`}>
              <Trans>Try its settings</Trans>
            </Link>
          )}
          <ul>
            {known.data.findings.map((one) => (
              <li key={one} className="text-breach">
                ▲ {one}
              </li>
            ))}
          </ul>
        </div>
      )}
      <div className="grid grid-cols-[330px_minmax(0,1fr)] items-start gap-4 max-lg:grid-cols-1">
        <SymptomList
          chosen={symptom}
          suggested={suggested}
          passId={passId}
          onChoose={(key) => {
            params.set('symptom', key)
            setParams(params, { replace: true })
          }}
        />
        <div className="min-w-0">
          {symptom === '' ? (
            <p className="panel mb-4 p-4 text-[14px] text-steel">
              <Trans>Choose what is seen, heard or found.</Trans>
            </p>
          ) : (
            <Causes key={symptom} symptom={symptom} passId={passId} revisionId={revisionId} passNumber={passNumber} />
          )}
          <HereBefore />
        </div>
      </div>
    </div>
  )
}

type CausesProps = { symptom: string; passId: number | null; revisionId: number | null; passNumber: number | null }

function Causes({ symptom, passId, revisionId, passNumber }: CausesProps) {
  const { may } = useSession()
  const { system } = useUnits()
  const [ticked, setTicked] = useState<Record<string, boolean>>({})
  const [around, setAround] = useState<Around>({})
  const [cured, setCured] = useState<{ row: string; remedy: number } | null>(null)
  const revision = useQuery({
    ...revisionQuery(revisionId ?? 0, system),
    enabled: passId === null && revisionId !== null,
  })
  const document = revision.data?.document
  const coverage = useQuery(draftCoverageQuery(revision.data?.job_id ?? 0, document?.code ? document : null))
  const index = document ? passesOf(document).findIndex((one) => one.number === passNumber) : -1
  const asked = useSettled<CausesIn>({
    symptom,
    pass_id: passId,
    procedure: document ?? null,
    index: Math.max(index, 0),
    qualified: index >= 0 ? qualifiedOf(coverage.data?.brackets ?? [], index) : {},
    around,
    ticked,
    units: system,
  })
  const waiting = passId === null && revisionId !== null && (revision.isLoading || coverage.isLoading)
  const found = useQuery({ ...causesQuery(asked), enabled: !waiting })
  const curedCause = found.data?.causes.find((one) => one.row === cured?.row)
  if (found.isError) return <Notice mark="breach">{found.error.message}</Notice>
  if (!found.data) return null
  return (
    <>
      <Measured around={around} onChange={setAround} />
      <section className="panel mb-4 p-3" aria-labelledby="causes">
        <h2 id="causes" className="text-[17px]">
          {found.data.symptom.title}
        </h2>
        <p className="text-[13px] text-steel2">
          {document && index >= 0 && t`Procedure ${document.number ?? ''}, pass ${passNumber ?? 0}. `}
          {found.data.caution}
        </p>
        <ol className="mt-1" aria-label={t`Causes, the likeliest first`}>
          {found.data.causes.map((one, place) => (
            <CauseCard
              key={one.row}
              cause={one}
              place={place + 1}
              first={place < OPEN_FIRST}
              onTick={(answer) => setTicked((before) => answered(before, one.row, answer))}
              onCured={may('LOG_TRIAL') ? (remedy) => setCured({ row: one.row, remedy }) : null}
            />
          ))}
        </ol>
        {found.data.causes.length === 0 && (
          <p className="mt-2 text-[13px] text-steel">
            <Trans>No cause is known for this process. Ask the welding engineer.</Trans>
          </p>
        )}
      </section>
      {curedCause && cured && (
        <CuredDialog
          cause={curedCause}
          remedy={cured.remedy}
          passId={passId}
          revisionId={revisionId}
          onClose={() => setCured(null)}
        />
      )}
    </>
  )
}

function answered(before: Readonly<Record<string, boolean>>, row: string, answer: boolean | null) {
  const rest = Object.entries(before).filter(([key]) => key !== row)
  return Object.fromEntries(answer === null ? rest : [...rest, [row, answer]])
}
