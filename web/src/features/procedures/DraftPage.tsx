import { t } from '@lingui/core/macro'
import { Trans } from '@lingui/react/macro'
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import { useMemo, useRef, useState } from 'react'
import { useNavigate } from 'react-router'

import { Refusal, api, unwrap } from '../../api/client'
import type { Joint, Procedure } from '../../api/types'
import { useJob } from '../../session/job'
import { useSession } from '../../session/session'
import { useTerms, useUsage } from '../../session/terms'
import { useUnits } from '../../session/units'
import { JOINT_KINDS, POSITIONS, ROUTES, processOptions, weldOptions } from '../../domain/words'
import { Button } from '../../ui/Button'
import { Choice } from '../../ui/Choice'
import { Notice } from '../../ui/Notice'
import { PageTitle } from '../../ui/PageTitle'
import { QuantityField } from '../../ui/QuantityField'
import { useSaveWhenRead } from '../../ui/commit'
import { useSettled } from '../../ui/useSettled'
import { DraftPreview } from './DraftPreview'
import { MetalField } from './MetalField'
import { Answers, FIRST, proposalQuery, openQuestions, intentOf } from './answers'
import { Constraints } from './Constraints'

/** Six questions, and a whole draft beside them. */
export function DraftPage() {
  const [answers, setAnswers] = useState<Answers>(FIRST)
  const { codes, may } = useSession()
  const { job } = useJob()
  const { system } = useUnits()
  const navigate = useNavigate()
  const queries = useQueryClient()
  const change = (next: (before: Answers) => Answers) => setAnswers(next)
  const settled = useSettled(answers, 150)
  const intent = useMemo(() => intentOf(settled), [settled])
  const proposal = useQuery(proposalQuery(intent, system))
  const refusal = proposal.error instanceof Refusal ? proposal.error : null
  const errors = new Map((refusal?.body.errors ?? []).map((one) => [one.path, one.message]))
  const open = openQuestions(answers)
  const code = codes.find((one) => one.id === answers.code?.id)
  const usage = useUsage(answers.code?.id)
  const term = useTerms(answers.code?.id)
  const make = useMutation({
    mutationFn: (document: Procedure) =>
      unwrap(
        api.POST('/api/jobs/{job_id}/procedures', {
          params: { path: { job_id: job?.id ?? 0 } },
          body: { document: { ...document, number: null } },
        }),
      ),
    onSuccess: (made) => {
      void queries.invalidateQueries({ queryKey: ['procedures'] })
      void navigate(`/procedures/${String(made.id)}`)
    },
  })
  const found = intent && !proposal.isError ? proposal.data : undefined
  // A draft is made of the answers as they stand, never of those before the last key.
  const stale = settled !== answers || proposal.isFetching
  const frame = useRef<HTMLDivElement>(null)
  const makeIt = useSaveWhenRead(frame, () => {
    if (found && job) make.mutate(found.procedure)
  })

  return (
    <div ref={frame} className="grid h-full grid-rows-[auto_minmax(0,1fr)] gap-3 px-4 pt-3">
      <div className="flex items-center gap-3">
        <PageTitle words={t`Draft from six answers`} className="mr-auto" />
        {make.isError && (
          <span role="alert" className="text-[13px] text-breach">
            {make.error.message}
          </span>
        )}
        {may('WRITE_PROCEDURE') && (
          <Button look="main" disabled={!found || !job || make.isPending || stale} onClick={makeIt}>
            <Trans>Make it a procedure</Trans>
          </Button>
        )}
      </div>
      <div
        aria-busy={stale || undefined}
        className="grid min-h-0 grid-cols-[300px_minmax(0,1fr)] gap-4 max-md:block max-md:overflow-y-auto"
      >
        <div className="min-h-0 overflow-y-auto pr-1 pb-4 text-[13px]">
          <Question n={1} words={t`Which metals?`}>
            {([0, 1] as const).map((index) => (
              <MetalField
                key={index}
                label={t`Metal ${index + 1}`}
                path={`metals.${String(index)}`}
                disabled={false}
                placeholder={index === 0 ? 'S355J2+N, A36, 304L …' : t`the same`}
                thicknessMm={answers.thickness[index]}
                value={answers.metals[index]}
                error={errors.get(`metals.${String(index)}`) ?? (index === 0 ? errors.get('metals') : undefined)}
                onType={(name) =>
                  change((before) => ({
                    ...before,
                    metals: index === 0 ? [name, before.metals[1]] : [before.metals[0], name],
                  }))
                }
                onPick={(metal) =>
                  change((before) => ({
                    ...before,
                    metals: index === 0 ? [metal.name, before.metals[1]] : [before.metals[0], metal.name],
                    ...(metal.own
                      ? {
                          shelf: {
                            machines: [],
                            products: [],
                            ...before.shelf,
                            metals: [
                              ...(before.shelf?.metals ?? []).filter((one) => one.name !== metal.own?.name),
                              metal.own,
                            ],
                          },
                        }
                      : {}),
                  }))
                }
              />
            ))}
          </Question>
          <Question n={2} words={t`How thick?`}>
            <div className="grid grid-cols-2 gap-1.5">
              {([0, 1] as const).map((index) => (
                <QuantityField
                  key={index}
                  label={t`Thickness of metal ${index + 1}`}
                  kind="thickness"
                  path={`thickness_mm.${String(index)}`}
                  metal="steel"
                  placeholder={index === 0 ? t`3/8, 12 mm` : t`the same`}
                  value={answers.thickness[index]}
                  error={errors.get(`thickness_mm.${String(index)}`)}
                  onChange={(value, read) =>
                    change((before) => ({
                      ...before,
                      thickness: index === 0 ? [value, before.thickness[1]] : [before.thickness[0], value],
                      ...(read?.outside_diameter_mm ? { outside_diameter_mm: read.outside_diameter_mm } : {}),
                    }))
                  }
                />
              ))}
            </div>
            <QuantityField
              label={t`Outside diameter of pipe`}
              kind="diameter"
              path="outside_diameter_mm"
              placeholder={t`outside diameter, if pipe`}
              value={answers.outside_diameter_mm}
              onChange={(outside_diameter_mm) => change((before) => ({ ...before, outside_diameter_mm }))}
            />
          </Question>
          <Question n={3} words={t`Which joint and weld?`}>
            <div className="grid grid-cols-2 gap-1.5">
              <Choice<Joint['kind']>
                label={t`Joint`}
                path="joint.kind"
                value={answers.joint.kind}
                none={t`joint`}
                options={JOINT_KINDS}
                onChange={(kind) => change((before) => ({ ...before, joint: kind ? { ...before.joint, kind } : {} }))}
              />
              <Choice<Joint['weld']>
                label={t`Weld`}
                path="joint.weld"
                value={answers.joint.weld}
                none={t`weld`}
                options={weldOptions<Joint['weld']>(term)}
                onChange={(weld) => change((before) => ({ ...before, joint: weld ? { ...before.joint, weld } : {} }))}
              />
            </div>
            <Told error={errors.get('joint.weld') ?? errors.get('joint')} />
            {answers.joint.weld === 'fillet' && (
              <QuantityField
                label={t`Leg`}
                kind="gap"
                path="joint.leg1_mm"
                placeholder={t`leg, if it is given`}
                value={answers.joint.leg1_mm}
                error={errors.get('joint.leg1_mm')}
                onChange={(leg1_mm) => change((before) => ({ ...before, joint: { ...before.joint, leg1_mm } }))}
              />
            )}
            {answers.joint.weld === 'pjp-groove' && (
              <QuantityField
                label={t`Throat`}
                kind="gap"
                path="joint.throat_mm"
                placeholder={t`throat, if it is given`}
                value={answers.joint.throat_mm}
                onChange={(throat_mm) => change((before) => ({ ...before, joint: { ...before.joint, throat_mm } }))}
              />
            )}
          </Question>
          <Question n={4} words={t`Which position?`}>
            <div className="grid grid-cols-2 gap-1.5">
              <Choice<NonNullable<Answers['position']>>
                label={t`Position`}
                path="position"
                value={answers.position}
                options={POSITIONS}
                onChange={(position) => position && change((before) => ({ ...before, position }))}
              />
              <Choice<'up' | 'down'>
                label={t`Progression`}
                path="progression"
                value={answers.progression}
                none={t`up, where vertical`}
                options={[
                  ['up', t`uphill`],
                  ['down', t`downhill`],
                ]}
                onChange={(progression) => change((before) => ({ ...before, progression }))}
              />
            </div>
            <Told error={errors.get('position')} />
          </Question>
          <Question n={5} words={t`Which process?`}>
            <Choice<NonNullable<Answers['process']>>
              label={t`Process`}
              path="process"
              value={answers.process}
              options={processOptions(usage)}
              onChange={(process) => process && change((before) => ({ ...before, process }))}
            />
            <Told error={errors.get('process')} />
            {answers.joint.weld && answers.joint.weld !== 'fillet' && (
              <div className="grid grid-cols-[auto_minmax(0,1fr)] items-center gap-x-2">
                <span aria-hidden className="text-[13px] text-steel">
                  <Trans>after the root</Trans>
                </span>
                <Choice<NonNullable<Answers['fill_process']>>
                  label={t`Process after the root`}
                  path="fill_process"
                  value={answers.fill_process}
                  none={t`the same`}
                  options={processOptions(usage)}
                  onChange={(fill_process) =>
                    change((before) => ({ ...before, fill_process, ...(fill_process ? {} : { fill_filler: null }) }))
                  }
                />
                <span className="col-span-2">
                  <Told error={errors.get('fill_process')} />
                </span>
              </div>
            )}
          </Question>
          <Question n={6} words={t`Under which code?`}>
            <Choice
              label={t`Code`}
              path="code.id"
              value={answers.code?.id}
              none={t`no code`}
              options={codes.map((one) => [one.id, one.short] as const)}
              onChange={(id) =>
                change((before) => {
                  const chosen = codes.find((one) => one.id === id)
                  return {
                    ...before,
                    code: chosen
                      ? { id: chosen.id, level: chosen.levels.at(-1) ?? null, units: chosen.unit_column, route: 'test' }
                      : null,
                  }
                })
              }
            />
            {code?.prequalified && answers.code && (
              <Choice<'test' | 'prequalified'>
                label={t`Route`}
                path="code.route"
                value={answers.code.route}
                options={ROUTES}
                onChange={(route) =>
                  change((before) => ({
                    ...before,
                    code: before.code && route ? { ...before.code, route } : (before.code ?? null),
                  }))
                }
              />
            )}
          </Question>
          <Constraints answers={answers} change={change} errors={errors} />
        </div>
        <div className="min-h-0 overflow-y-auto pb-4">
          {open.length > 0 ? (
            <p className="panel p-6 text-steel">
              <Trans>Still to answer: {open.join(', ')}. The draft appears here as soon as they are known.</Trans>
            </p>
          ) : refusal ? (
            <Notice mark="breach">
              {refusal.body.errors.length > 0
                ? refusal.body.errors.map((one) => one.message).join('; ')
                : refusal.message}
              <Trans>. What you answered is kept.</Trans>
            </Notice>
          ) : proposal.isError ? (
            <Notice mark="breach">{proposal.error.message}</Notice>
          ) : found ? (
            <DraftPreview proposal={found} stale={stale} />
          ) : (
            <p className="p-4 text-steel2">
              <Trans>Planning …</Trans>
            </p>
          )}
        </div>
      </div>
    </div>
  )
}

function Question({ n, words, children }: { n: number; words: string; children: React.ReactNode }) {
  return (
    <fieldset className="mb-3 grid gap-1.5 border-t border-line pt-2">
      <legend className="pr-2 font-head text-[15px] font-semibold">
        <span className="mr-1.5 text-accent">{n}</span>
        {words}
      </legend>
      {children}
    </fieldset>
  )
}

function Told({ error }: { error: string | undefined }) {
  return error ? (
    <p role="alert" className="text-[12px] text-breach">
      {error}
    </p>
  ) : null
}
