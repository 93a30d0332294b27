import { t } from '@lingui/core/macro'
import { Trans } from '@lingui/react/macro'
import { keepPreviousData, queryOptions, useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import { useMemo, useState } from 'react'
import { useNavigate } from 'react-router'

import { Refusal, api, unwrap } from '../../api/client'
import type { Intent, Joint, Procedure, System } from '../../api/types'
import { useJob } from '../../session/job'
import { useSession } from '../../session/session'
import { useTerms, useUsage } from '../../session/terms'
import { useUnits } from '../../session/units'
import { gasText } from '../../domain/procedure'
import { JOINT_KINDS, OVERLAPS, POSITIONS, ROUTES, TRANSFERS, processOptions, weldOptions } from '../../domain/words'
import { Button } from '../../ui/Button'
import { Choice } from '../../ui/Choice'
import { GasField } from '../../ui/GasField'
import { Labelled } from '../../ui/Labelled'
import { Notice } from '../../ui/Notice'
import { PageTitle } from '../../ui/PageTitle'
import { QuantityField } from '../../ui/QuantityField'
import { TextField } from '../../ui/TextField'
import { useSettled } from '../../ui/useSettled'
import { recordsQuery } from '../../queries/library'
import { DraftPreview } from './DraftPreview'
import { FillerField } from './FillerField'
import { MetalField } from './MetalField'

/** Answers so far; an intent once the six questions are answered. */
type Answers = Partial<Omit<Intent, 'metals' | 'thickness_mm' | 'joint'>> & {
  metals: [string | null, string | null]
  thickness: [number | null, number | null]
  joint: Partial<Joint>
}

const FIRST: Answers = { metals: [null, null], thickness: [null, null], joint: {} }

const proposalQuery = (intent: Intent | null, units: System) =>
  queryOptions({
    queryKey: ['propose', units, intent],
    queryFn: ({ signal }) => {
      if (!intent) throw new Error('not asked without an intent')
      return unwrap(api.POST('/api/propose', { body: { intent, units }, signal }))
    },
    enabled: intent !== null,
    staleTime: 60_000,
    retry: false,
    placeholderData: keepPreviousData,
  })

/** What is still to be answered, in the order of the questions. */
function openQuestions(answers: Answers): string[] {
  return [
    answers.metals[0] ? '' : t`the metal`,
    answers.thickness[0] === null ? t`its thickness` : '',
    answers.joint.kind && answers.joint.weld ? '' : t`joint and weld`,
    answers.position ? '' : t`the position`,
    answers.process ? '' : t`the process`,
  ].filter(Boolean)
}

function intentOf(answers: Answers): Intent | null {
  const { metals, thickness, joint, position, process, ...more } = answers
  if (!metals[0] || thickness[0] === null || !joint.kind || !joint.weld || !position || !process) return null
  return {
    ...more,
    format: 'grounded-bead/intent',
    version: 1,
    metals: metals[1] ? [metals[0], metals[1]] : [metals[0]],
    thickness_mm: thickness[1] === null ? [thickness[0]] : [thickness[0], thickness[1]],
    joint: {
      ...joint,
      kind: joint.kind,
      weld: joint.weld,
      sides: joint.sides ?? 'one',
      backing: joint.backing ?? 'none',
      back_gouge: joint.back_gouge ?? false,
    },
    position,
    process,
    // A fillet is welded alike from its root on.
    fill_process: joint.weld === 'fillet' ? null : (more.fill_process ?? null),
    overlap: more.overlap ?? 'half',
    trials: [],
    charts: [],
  }
}

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

  return (
    <div className="grid h-full grid-rows-[auto_minmax(0,1fr)] gap-3 px-4 pt-3">
      <div className="flex items-center gap-3">
        <PageTitle words={t`Draft from six answers`} className="mr-auto" />
        {make.isError && (
          <span role="alert" className="text-[13px] text-breach">
            {make.error.message}
          </span>
        )}
        {may('WRITE_PROCEDURE') && (
          <Button
            look="main"
            disabled={!found || !job || make.isPending || stale}
            onClick={() => found && make.mutate(found.procedure)}
          >
            <Trans>Make it a procedure</Trans>
          </Button>
        )}
      </div>
      <div className="grid min-h-0 grid-cols-[300px_minmax(0,1fr)] gap-4 max-md:block max-md:overflow-y-auto">
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
          <Wishes answers={answers} change={change} errors={errors} />
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

type WishProps = {
  answers: Answers
  change: (next: (before: Answers) => Answers) => void
  errors: ReadonlyMap<string, string>
}

/** What may be wished beyond the six answers; all of it is proposed where it is left open. */
function Wishes({ answers, change, errors }: WishProps) {
  const machines = useQuery(recordsQuery('machine'))
  const names = (machines.data ?? []).map((one) => one.name)
  return (
    <details
      className="border-t border-line pt-2"
      open={errors.has('gas') || errors.has('filler.diameter_mm') || undefined}
    >
      <summary className="font-head text-[15px] font-semibold text-accent">
        <Trans>Constraints (optional)</Trans>
      </summary>
      <div className="mt-2 grid grid-cols-2 gap-x-1.5 gap-y-2">
        <Labelled words={t`Filler`} wide>
          <FillerField
            path="filler.designation"
            value={answers.filler?.designation}
            disabled={false}
            onType={(designation) => change((before) => ({ ...before, filler: { ...before.filler, designation } }))}
            onPick={(one) =>
              change((before) => ({
                ...before,
                filler: {
                  ...before.filler,
                  designation: one.decoded.designation,
                  ...(one.diameter_mm == null ? {} : { diameter_mm: one.diameter_mm, nominal: one.nominal }),
                  ...(one.product ? { make: one.product.name } : {}),
                },
                ...(one.product
                  ? { shelf: { machines: [], metals: [], ...before.shelf, products: [one.product] } }
                  : {}),
              }))
            }
          />
        </Labelled>
        {answers.fill_process && (
          <Labelled words={t`Filler after the root`} wide>
            <TextField
              label={t`Filler after the root`}
              path="fill_filler.designation"
              placeholder={t`as usual`}
              value={answers.fill_filler?.designation}
              error={errors.get('fill_filler.designation')}
              onChange={(designation) =>
                change((before) => ({ ...before, fill_filler: designation ? { designation } : null }))
              }
            />
          </Labelled>
        )}
        <Labelled words={t`Diameter`}>
          <QuantityField
            label={t`Filler diameter`}
            kind="wire_diameter"
            path="filler.diameter_mm"
            value={answers.filler?.diameter_mm}
            error={errors.get('filler.diameter_mm')}
            onChange={(diameter_mm) => change((before) => ({ ...before, filler: { ...before.filler, diameter_mm } }))}
          />
        </Labelled>
        <Labelled words={t`Gas`}>
          <GasField
            label={t`Gas`}
            path="gas"
            value={null}
            onChange={(shares) => change((before) => ({ ...before, gas: shares ? gasText(shares) : null }))}
          />
          {answers.gas && <p className="text-[12px] text-steel2">{answers.gas}</p>}
        </Labelled>
        <Labelled words={t`Transfer`}>
          <Choice<NonNullable<Answers['transfer']>>
            label={t`Transfer`}
            path="transfer"
            value={answers.transfer}
            none={t`as usual`}
            options={TRANSFERS}
            onChange={(transfer) => change((before) => ({ ...before, transfer }))}
          />
        </Labelled>
        <Labelled words={t`Overlap`}>
          <Choice<NonNullable<Answers['overlap']>>
            label={t`Overlap of beads`}
            path="overlap"
            value={answers.overlap ?? 'half'}
            options={OVERLAPS}
            onChange={(overlap) => overlap && change((before) => ({ ...before, overlap }))}
          />
        </Labelled>
        <Labelled words={t`Heat input`}>
          <QuantityField
            mode="range"
            label={t`Heat input wanted`}
            kind="heat_input"
            path="heat_input_kj_mm"
            value={answers.heat_input_kj_mm}
            onChange={(heat_input_kj_mm) => change((before) => ({ ...before, heat_input_kj_mm }))}
          />
        </Labelled>
        <Labelled words="t8/5">
          <QuantityField
            mode="range"
            label={t`Cooling time t8/5 wanted`}
            kind="time"
            path="t85_s"
            value={answers.t85_s}
            onChange={(t85_s) => change((before) => ({ ...before, t85_s }))}
          />
        </Labelled>
        <Labelled words={t`Passes`}>
          <PassCount
            value={answers.passes_wanted ?? null}
            onChange={(passes_wanted) => change((before) => ({ ...before, passes_wanted }))}
          />
        </Labelled>
        <Labelled words={t`Hydrogen`}>
          <QuantityField
            label={t`Hydrogen of the deposit`}
            kind="hydrogen"
            path="hydrogen_ml_100g"
            value={answers.hydrogen_ml_100g}
            onChange={(hydrogen_ml_100g) => change((before) => ({ ...before, hydrogen_ml_100g }))}
          />
        </Labelled>
        {names.length > 0 && (
          <Labelled words={t`Machine`} wide>
            <Choice
              label={t`Machine`}
              path="machine"
              value={answers.machine}
              none={t`any`}
              options={names.map((name) => [name, name] as const)}
              onChange={(machine) => {
                const record = machines.data?.find((one) => one.name === machine)?.document
                change((before) => ({
                  ...before,
                  machine,
                  shelf: {
                    products: [],
                    metals: [],
                    ...before.shelf,
                    machines: record && record.format === 'grounded-bead/machine' ? [record] : [],
                  },
                }))
              }}
            />
          </Labelled>
        )}
      </div>
    </details>
  )
}

function PassCount({ value, onChange }: { value: number | null; onChange: (value: number | null) => void }) {
  const [text, setText] = useState<string | null>(value === null ? null : String(value))
  const number = text === null ? null : Number(text)
  const wrong = number !== null && (!Number.isInteger(number) || number < 1 || number > 100)
  return (
    <TextField
      label={t`Number of passes`}
      path="passes_wanted"
      value={text}
      placeholder={t`as it comes`}
      error={wrong ? t`a whole number from 1 to 100` : undefined}
      onChange={(next) => {
        setText(next)
        const typed = next === null ? null : Number(next)
        if (typed === null || (Number.isInteger(typed) && typed >= 1 && typed <= 100)) onChange(typed)
      }}
    />
  )
}
