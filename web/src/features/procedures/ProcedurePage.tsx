import { t } from '@lingui/core/macro'
import { Trans } from '@lingui/react/macro'
import { keepPreviousData, useQuery, useQueryClient } from '@tanstack/react-query'
import { useEffect, useMemo, useState } from 'react'
import { flushSync } from 'react-dom'
import { Link, useParams } from 'react-router'

import type { Revision } from '../../api/types'
import { CodeInForce } from '../../ui/CodeInForce'
import { useJobOf } from '../../session/job'
import { useSession } from '../../session/session'
import { useUnits } from '../../session/units'
import { passesOf } from '../../domain/procedure'
import { Notice } from '../../ui/Notice'
import { SectionDrawing } from '../../ui/SectionDrawing'
import { useSettled } from '../../ui/useSettled'
import { ProofPanel } from '../coverage'
import { draftCoverageQuery } from '../../queries/qualification'
import { Checks, goToField } from './Checks'
import { ConflictDialog } from './ConflictDialog'
import { Intent } from './Intent'
import { Ladder } from './Ladder'
import { evaluationQuery, revisionQuery } from '../../queries/procedures'
import { useDraft } from './useDraft'
import { Head } from './ProcedureHead'
import { Below } from './BelowTheLadder'
import { Banner } from './SaveBanner'

export function ProcedurePage() {
  const id = Number(useParams().id)
  const { system } = useUnits()
  const revision = useQuery({ ...revisionQuery(id, system), enabled: Number.isInteger(id) })
  if (revision.isPending)
    return (
      <p className="p-5 text-steel">
        {revision.failureReason ? t`${revision.failureReason.message} Trying again …` : t`Opening …`}
      </p>
    )
  if (revision.isError)
    return (
      <div className="p-5">
        <Notice mark="breach">
          {revision.error.message}{' '}
          <Link className="link" to="/procedures">
            <Trans>All procedures</Trans>
          </Link>
        </Notice>
      </div>
    )
  return <Editor key={`${String(revision.data.id)}-${String(revision.data.frozen)}`} revision={revision.data} />
}

function Editor({ revision }: { revision: Revision }) {
  const { system } = useUnits()
  const { may } = useSession()
  const queries = useQueryClient()
  const draft = useDraft(revision)
  const { document, change } = draft
  useJobOf(revision.job_id)
  const disabled = revision.frozen || !may('WRITE_PROCEDURE')
  const [selected, setSelected] = useState<number | null>(passesOf(document).at(0)?.number ?? null)
  const [lit, setLit] = useState<number | null>(null)
  const settled = useSettled(document, 80)
  const evaluation = useQuery({ ...evaluationQuery(settled, system), placeholderData: keepPreviousData })
  const judged = evaluation.data ?? revision.evaluation
  const asked = useSettled(document, 400)
  const coverage = useQuery({
    ...draftCoverageQuery(revision.job_id, asked),
    enabled: Boolean(asked.code),
    placeholderData: keepPreviousData,
  })
  const heat = useMemo(() => new Map(judged.heat_input.map((one) => [one.pass_number, one.max_kj_mm])), [judged])
  const errors = useMemo(() => new Map(draft.errors.map((one) => [one.path, one.message])), [draft.errors])
  const passCount = passesOf(document).length
  const current = selected !== null && selected <= passCount ? selected : passCount || null

  // What changed here shows in the lists when one goes back to them.
  useEffect(() => () => void queries.invalidateQueries({ queryKey: ['procedures'] }), [queries])
  const go = (path: string) => {
    // The field may only appear once its pass is selected.
    const pass = /^passes\.(\d+)/.exec(path)?.[1]
    if (pass !== undefined) flushSync(() => setSelected(Number(pass) + 1))
    goToField(path)
  }

  return (
    <div className="grid h-full grid-cols-[minmax(0,1fr)] grid-rows-[auto_minmax(0,1fr)] gap-3 px-4 pt-3">
      <CodeInForce code={document.code} />
      <Head
        revision={revision}
        document={document}
        state={draft.state}
        savedAt={draft.savedAt}
        saveNow={() => void draft.saveNow()}
      />
      <div className="grid min-h-0 grid-cols-[288px_minmax(0,1fr)_244px] gap-4 max-[1150px]:grid-cols-[250px_minmax(0,1fr)_206px] max-[1150px]:gap-3 max-md:block max-md:overflow-y-auto">
        <div className="grid min-h-0 grid-rows-[auto_minmax(0,1fr)] gap-2 pb-3">
          <div className="panel grid max-h-[36vh] min-h-32 place-items-center overflow-hidden p-2">
            {judged.drawing ? (
              <SectionDrawing
                drawing={judged.drawing}
                heat={heat}
                lit={lit ?? current}
                onLight={setLit}
                onPick={setSelected}
              />
            ) : (
              <p className="p-3 text-center text-[13px] text-steel2">
                <Trans>The joint is drawn once these are known: </Trans>
                {judged.missing
                  .filter((one) => /^(joint|base_metals.*thickness)/.test(one.path))
                  .map((one) => one.message)
                  .join(', ') || t`joint and thickness`}
                .
              </p>
            )}
          </div>
          <div className="min-h-0 overflow-y-auto pr-1">
            <Intent
              document={document}
              fields={judged.joint_fields}
              onChange={change}
              disabled={disabled}
              errors={errors}
            />
          </div>
        </div>
        <div className="min-h-0 overflow-y-auto pb-4">
          <Banner draft={draft} revision={revision} />
          <Ladder
            document={document}
            evaluation={judged}
            onChange={change}
            selected={current}
            onSelect={setSelected}
            onLight={setLit}
            lit={lit}
            disabled={disabled}
            brackets={coverage.data?.brackets ?? []}
          />
          <Sums evaluation={judged} />
          {current !== null && (
            <Below
              document={document}
              selected={current}
              evaluation={judged}
              onChange={change}
              disabled={disabled}
              brackets={coverage.data?.brackets ?? []}
              revisionId={revision.id}
            />
          )}
        </div>
        <div className="min-h-0 overflow-y-auto pb-4">
          {evaluation.isError && (
            <Notice mark="breach" className="mb-2 text-[13px]">
              {evaluation.error.message}
            </Notice>
          )}
          <ProofPanel revision={revision} draft={coverage.data} />
          <Checks evaluation={judged} onGo={go} />
        </div>
      </div>
      {draft.theirs && (
        <ConflictDialog
          key={draft.theirs.version}
          clashes={draft.clashes}
          theirs={draft.theirs}
          onSettle={draft.settle}
        />
      )}
    </div>
  )
}

function Sums({ evaluation }: { evaluation: Revision['evaluation'] }) {
  const units = useUnits()
  const section = evaluation.section
  if (!section) return null
  return (
    <p className="flex flex-wrap gap-x-5 pt-2 text-[13px] text-steel">
      <span>
        <Trans>
          Section to the surface <b className="text-ink">{units.value(section.area_mm2, 'area')}</b>{' '}
          {units.unit('area')}
        </Trans>
      </span>
      {section.reinforcement_mm2 > 0 && (
        <span>
          <Trans>
            with cap <b className="text-ink">{units.value(section.total_mm2, 'area')}</b> {units.unit('area')}
          </Trans>
        </span>
      )}
      <span className="text-steel2">
        <Trans>Beads drawn as they lay metal down</Trans>
        {section.assumptions.length > 0 && t`; assumed: ${section.assumptions.join('; ')}`}
        <Trans>. Brackets [ ]: heat input wanted, or what a signed record allows.</Trans>
      </span>
    </p>
  )
}
