import { plural, t } from '@lingui/core/macro'
import { Trans } from '@lingui/react/macro'
import { Menu, MenuButton, MenuItem, MenuItems } from '@headlessui/react'
import { keepPreviousData, useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import { type ReactNode, useEffect, useMemo, useState } from 'react'
import { flushSync } from 'react-dom'
import { Link, useNavigate, useParams } from 'react-router'

import { Refusal, api, unwrap } from '../../api/client'
import type { Procedure, Revision } from '../../api/types'
import { printedInTwo } from '../../ui/printedInTwo'
import { CodeInForce } from '../../ui/CodeInForce'
import { useJobOf } from '../../session/job'
import { useSession } from '../../session/session'
import { useUnits } from '../../session/units'
import type { SaveState } from '../../domain/draftKeeper'
import { passesOf } from '../../domain/procedure'
import { Button } from '../../ui/Button'
import { Modal } from '../../ui/Modal'
import { Notice } from '../../ui/Notice'
import { PageTitle } from '../../ui/PageTitle'
import { SectionDrawing } from '../../ui/SectionDrawing'
import { TextField } from '../../ui/TextField'
import { useSettled } from '../../ui/useSettled'
import { ProofPanel } from '../coverage'
import { OldRecordDialog } from '../evidence'
import { draftCoverageQuery } from '../../queries/qualification'
import { ChartsPanel } from './ChartsPanel'
import { Checks, goToField } from './Checks'
import { ConflictDialog } from './ConflictDialog'
import { CoolingPanel } from './CoolingPanel'
import { HeatExplorer } from './HeatExplorer'
import { HistoryDialog } from './HistoryDialog'
import { Intent } from './Intent'
import { Ladder } from './Ladder'
import { SetUp } from './SetUp'
import { evaluationQuery, revisionQuery } from '../../queries/procedures'
import { UsePanel } from './UsePanel'
import { useDraft } from './useDraft'
import { inWords } from '../../domain/words'
import { locale } from '../../session/language'

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
            <Below document={document} selected={current} evaluation={judged} onChange={change} disabled={disabled} />
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

const VIEWS = [
  ['set-up', t`Set-up`],
  ['heat', t`Heat input`],
  ['cooling', t`Preheat and cooling`],
  ['use', t`Metal and time`],
  ['charts', t`Charts and trials`],
] as const

type BelowProps = {
  document: Procedure
  selected: number
  evaluation: Revision['evaluation']
  onChange: (change: (before: Procedure) => Procedure) => void
  disabled: boolean
}

/** Under the ladder: the selected pass's set-up, its heat, the joint's cooling, its metal and time. */
function Below({ document, selected, evaluation, onChange, disabled }: BelowProps) {
  const [view, setView] = useState<(typeof VIEWS)[number][0]>('set-up')
  return (
    <div className="mt-3">
      <div role="tablist" aria-label={t`Of the pass and the joint`} className="flex gap-1 border-b border-line">
        {VIEWS.map(([key, words]) => (
          <button
            key={key}
            type="button"
            role="tab"
            aria-selected={view === key}
            onClick={() => setView(key)}
            className={`-mb-px rounded-t-sm border px-2.5 py-1 font-head text-[15px] ${view === key ? 'border-line border-b-panel bg-panel font-semibold' : 'border-transparent text-accent hover:bg-accent-soft'}`}
          >
            {words}
          </button>
        ))}
      </div>
      <div role="tabpanel" className={view === 'set-up' ? '' : 'panel border-t-0 p-3'}>
        {view === 'set-up' && (
          <SetUp key={selected} document={document} selected={selected} onChange={onChange} disabled={disabled} />
        )}
        {view === 'heat' && (
          <HeatExplorer
            key={selected}
            document={document}
            selected={selected}
            evaluation={evaluation}
            onChange={onChange}
            disabled={disabled}
          />
        )}
        {view === 'cooling' && <CoolingPanel evaluation={evaluation} />}
        {view === 'use' && <UsePanel evaluation={evaluation} />}
        {view === 'charts' && <ChartsPanel document={document} selected={selected} />}
      </div>
    </div>
  )
}

const STATE_WORDS: Record<SaveState, string> = {
  saved: t`saved`,
  waiting: t`typing …`,
  saving: t`saving …`,
  'no-answer': t`not saved: no answer, trying again`,
  'signed-out': t`not saved: signed out`,
  refused: t`not saved`,
  conflict: t`not saved: changed by someone else`,
}

function Head({
  revision,
  document,
  state,
  savedAt,
  saveNow,
}: {
  revision: Revision
  document: Procedure
  state: SaveState
  savedAt: string
  saveNow: () => void
}) {
  const { may } = useSession()
  const [starting, setStarting] = useState(false)
  const [history, setHistory] = useState(false)
  const [old, setOld] = useState(false)
  const passes = passesOf(document).length
  const time = new Date(savedAt).toLocaleTimeString(locale(), { hour: '2-digit', minute: '2-digit' })
  const unsaved = state !== 'saved'
  return (
    <div className="flex min-w-0 flex-wrap items-center gap-x-4 gap-y-1">
      <PageTitle
        words={`${revision.number} ${document.title ?? ''}`.trim()}
        className="max-w-[46ch] min-w-0 truncate"
        title={`${revision.number} ${document.title ?? ''}`}
      />
      <span className="text-[13px] text-steel2">
        <RevisionMenu revision={revision} /> ·{' '}
        {revision.frozen ? (
          t`frozen`
        ) : state === 'saved' ? (
          t`saved ${time}`
        ) : (
          <span className={state === 'waiting' || state === 'saving' ? '' : 'font-semibold text-breach'}>
            {STATE_WORDS[state]}
          </span>
        )}
        {(state === 'no-answer' || state === 'refused') && (
          <>
            {' '}
            ·{' '}
            <button type="button" className="link" onClick={saveNow}>
              <Trans>Save now</Trans>
            </button>
          </>
        )}{' '}
        · {plural(passes, { one: '# pass', other: '# passes' })}
      </span>
      <div className="ml-auto flex flex-wrap items-center gap-2">
        <StageTrack stage={revision.stage} />
        <Menu>
          <MenuButton className="rounded-sm border border-line bg-panel px-3 py-1.5 font-head text-[15px] font-medium">
            <Trans>More</Trans>
          </MenuButton>
          <MenuItems anchor="bottom end" className="panel z-50 py-1 text-[14px] focus:outline-none">
            <Item href={`/api/revisions/${String(revision.id)}/print?paper=a4`}>
              <Trans>Print A4</Trans>
            </Item>
            <Item href={`/api/revisions/${String(revision.id)}/print?paper=letter`}>
              <Trans>Print Letter</Trans>
            </Item>
            {printedInTwo().map(([second, words]) => (
              <Item key={second} href={`/api/revisions/${String(revision.id)}/print?paper=a4&second=${second}`}>
                {words}
              </Item>
            ))}
            <Item href={`/api/revisions/${String(revision.id)}/export`} download>
              <Trans>Export JSON</Trans>
            </Item>
            {may('LOG_TRIAL') && (
              <MenuItem>
                <Link
                  className="block px-4 py-1.5 data-focus:bg-accent-soft"
                  to={`/procedures/${String(revision.id)}/scrap`}
                >
                  <Trans>Trial weld</Trans>
                </Link>
              </MenuItem>
            )}
            <MenuItem>
              <Link
                className="block px-4 py-1.5 data-focus:bg-accent-soft"
                to={`/procedures/compare?left=${String(revision.id)}`}
              >
                <Trans>Compare with another</Trans>
              </Link>
            </MenuItem>
            {may('ENTER_OLD_RECORD') && passes > 0 && !unsaved && (
              <MenuItem>
                <button
                  type="button"
                  className="block w-full px-4 py-1.5 text-left data-focus:bg-accent-soft"
                  onClick={() => setOld(true)}
                >
                  <Trans>Enter an existing PQR or WPQR</Trans>
                </button>
              </MenuItem>
            )}
            <MenuItem>
              <button
                type="button"
                className="block w-full px-4 py-1.5 text-left data-focus:bg-accent-soft"
                onClick={() => setHistory(true)}
              >
                <Trans>Show the history</Trans>
              </button>
            </MenuItem>
          </MenuItems>
        </Menu>
        {may('START_COUPON') && (
          <Button
            look="main"
            disabled={passes === 0 || unsaved}
            title={passes === 0 ? t`Add a pass first` : unsaved ? t`Wait until it is saved` : undefined}
            onClick={() => setStarting(true)}
          >
            <Trans>Weld a coupon</Trans>
          </Button>
        )}
      </div>
      <StartDialog revision={revision} open={starting} onClose={() => setStarting(false)} />
      <OldRecordDialog revisionId={revision.id} open={old} onClose={() => setOld(false)} />
      <HistoryDialog revisionId={revision.id} open={history} onClose={() => setHistory(false)} />
    </div>
  )
}

function Item({ href, children, download = false }: { href: string; children: ReactNode; download?: boolean }) {
  return (
    <MenuItem>
      <a
        className="block px-4 py-1.5 data-focus:bg-accent-soft"
        href={href}
        {...(download ? { download: '' } : { target: '_blank', rel: 'noreferrer' })}
      >
        {children}
      </a>
    </MenuItem>
  )
}

function RevisionMenu({ revision }: { revision: Revision }) {
  if (revision.siblings.length < 2)
    return (
      <>
        <Trans>revision {revision.letter}</Trans>
      </>
    )
  return (
    <Menu>
      <MenuButton className="link">
        <Trans>revision {revision.letter}</Trans>
      </MenuButton>
      <MenuItems anchor="bottom start" className="panel z-50 py-1 focus:outline-none">
        {revision.siblings.map((one) => (
          <MenuItem key={one.id}>
            <Link className="block px-4 py-1.5 data-focus:bg-accent-soft" to={`/procedures/${String(one.id)}`}>
              <Trans>revision {one.letter}</Trans>, {inWords(one.stage)}
            </Link>
          </MenuItem>
        ))}
      </MenuItems>
    </Menu>
  )
}

function StageTrack({ stage }: { stage: string }) {
  const last = ['superseded', 'withdrawn'].includes(stage) ? stage : 'released'
  const stages =
    stage === 'prequalified' ? ['draft', 'prequalified', last] : ['draft', 'trial', 'tested', 'qualified', last]
  const at = stages.indexOf(stage)
  return (
    <ol aria-label={t`Stage`} className="flex items-center gap-1.5 font-head text-[14px] text-steel2">
      {stages.map((one, index) => (
        <li
          key={one}
          className={`flex items-center gap-1.5 ${index === at ? 'font-semibold text-ink' : ''}`}
          aria-current={index === at ? 'step' : undefined}
        >
          {index > 0 && <i className="h-0.5 w-3 bg-line" />}
          <i
            className={`size-2.5 rounded-full border-2 ${index < at ? 'border-accent bg-accent' : index === at ? 'border-3 border-accent' : 'border-steel2'}`}
          />
          <span className={index === at ? '' : 'max-[1400px]:sr-only'}>{inWords(one)}</span>
        </li>
      ))}
    </ol>
  )
}

function Banner({ draft, revision }: { draft: ReturnType<typeof useDraft>; revision: Revision }) {
  const navigate = useNavigate()
  const { may } = useSession()
  const next = useMutation({
    mutationFn: () =>
      unwrap(api.POST('/api/revisions/{revision_id}/next', { params: { path: { revision_id: revision.id } } })),
    onSuccess: (made) => void navigate(`/procedures/${String(made.id)}`),
  })
  const later = revision.siblings.filter((one) => one.id > revision.id).at(-1)
  return (
    <>
      {revision.frozen && (
        <Notice mark="unknown" className="mb-3 border-line! text-[13px]">
          <Trans>Revision {revision.letter} is frozen:</Trans>{' '}
          {revision.coupons.length === 0 && t`it is ${inWords(revision.stage)}.`}
          {revision.coupons.map((one, index) => (
            <span key={one.id}>
              {index > 0 && ', '}
              <Link className="link" to={`/coupons/${String(one.id)}`}>
                {one.number}
              </Link>
            </span>
          ))}
          {revision.coupons.length > 0 &&
            ` ${plural(revision.coupons.length, { one: 'was started from it.', other: 'were started from it.' })}`}{' '}
          {later ? (
            <Link className="link" to={`/procedures/${String(later.id)}`}>
              <Trans>Open revision {later.letter}</Trans>
            </Link>
          ) : (
            may('WRITE_PROCEDURE') && (
              <button type="button" className="link" disabled={next.isPending} onClick={() => next.mutate()}>
                <Trans>Begin the next revision</Trans>
              </button>
            )
          )}
          {next.isError && (
            <span role="alert" className="text-breach">
              {' '}
              {next.error.message}
            </span>
          )}
        </Notice>
      )}
      {draft.mergedWith && (
        <Notice mark="holds">
          <Trans>Merged with what {draft.mergedWith} saved meanwhile: each of you changed other fields.</Trans>
        </Notice>
      )}
      {draft.restored && draft.state !== 'saved' && draft.state !== 'conflict' && (
        <Notice className="mb-3 text-[13px]">
          <Trans>Brought back what was typed here and not saved last time.</Trans>
        </Notice>
      )}
      {draft.state === 'refused' && (
        <Notice mark="breach" className="mb-3 text-[13px]">
          <Trans>Not saved. </Trans>
          {draft.errors.length > 0
            ? draft.errors.map((one) => `${one.path}: ${one.message}`).join('; ')
            : draft.message}
          <Trans> What you typed is kept on this page.</Trans>
        </Notice>
      )}
      {draft.state === 'no-answer' && (
        <Notice mark="breach" className="mb-3 text-[13px]">
          <Trans>{draft.message} It is sent again by itself.</Trans>
        </Notice>
      )}
    </>
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

function StartDialog({ revision, open, onClose }: { revision: Revision; open: boolean; onClose: () => void }) {
  const navigate = useNavigate()
  const queries = useQueryClient()
  const [welder, setWelder] = useState<string | null>(null)
  const start = useMutation({
    mutationFn: () =>
      unwrap(
        api.POST('/api/revisions/{revision_id}/coupons', {
          params: { path: { revision_id: revision.id } },
          body: { welder: welder ?? '' },
        }),
      ),
    onSuccess: (made) => {
      void queries.invalidateQueries()
      void navigate(`/coupons/${String(made.id)}`)
    },
  })
  return (
    <Modal title={t`Weld a coupon from revision ${revision.letter}`} open={open} onClose={onClose}>
      <form
        onSubmit={(event) => {
          event.preventDefault()
          start.mutate()
        }}
        className="grid gap-3"
      >
        {!revision.frozen && (
          <p className="text-steel">
            <Trans>
              The coupon takes a copy of this revision, and the revision is frozen from then on. Changes go into the
              next one.
            </Trans>
          </p>
        )}
        <div>
          <span className="label">
            <Trans>Welder</Trans>
          </span>
          <TextField label={t`Welder`} value={welder} onChange={setWelder} />
        </div>
        {start.isError && (
          <p role="alert" className="text-[13px] text-breach">
            {start.error instanceof Refusal ? start.error.message : t`It did not start.`}
          </p>
        )}
        <div className="flex justify-end gap-2">
          <Button onClick={onClose}>
            <Trans>Not now</Trans>
          </Button>
          <Button look="main" type="submit" disabled={start.isPending}>
            <Trans>Start the coupon</Trans>
          </Button>
        </div>
      </form>
    </Modal>
  )
}
