import { Menu, MenuButton, MenuItem, MenuItems } from '@headlessui/react'
import { keepPreviousData, useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import { useEffect, useMemo, useState } from 'react'
import { flushSync } from 'react-dom'
import { Link, useNavigate, useParams } from 'react-router'

import { Refusal, api, unwrap } from '../../api/client'
import type { Procedure, Revision } from '../../api/types'
import { CodeInForce } from '../../app/CodeInForce'
import { useJobOf } from '../../app/job'
import { useSession } from '../../app/session'
import { useUnits } from '../../app/units'
import type { SaveState } from '../../domain/draftKeeper'
import { passesOf } from '../../domain/procedure'
import { Button } from '../../ui/Button'
import { Modal } from '../../ui/Modal'
import { Notice } from '../../ui/Notice'
import { PageTitle } from '../../ui/PageTitle'
import { SectionDrawing } from '../../ui/SectionDrawing'
import { TextField } from '../../ui/TextField'
import { useSettled } from '../../ui/useSettled'
import { OldRecordDialog, ProofPanel, draftCoverageQuery } from '../qualification'
import { ChartsPanel } from './ChartsPanel'
import { Checks, goToField } from './Checks'
import { ConflictDialog } from './ConflictDialog'
import { CoolingPanel } from './CoolingPanel'
import { HeatExplorer } from './HeatExplorer'
import { HistoryDialog } from './HistoryDialog'
import { Intent } from './Intent'
import { Ladder } from './Ladder'
import { SetUp } from './SetUp'
import { evaluationQuery, revisionQuery } from './queries'
import { UsePanel } from './UsePanel'
import { useDraft } from './useDraft'

export function ProcedurePage() {
  const id = Number(useParams().id)
  const { system } = useUnits()
  const revision = useQuery({ ...revisionQuery(id, system), enabled: Number.isInteger(id) })
  if (revision.isPending) return <p className="p-5 text-steel">{revision.failureReason ? `${revision.failureReason.message} Trying again …` : 'Opening …'}</p>
  if (revision.isError) return <div className="p-5"><Notice mark="breach">{revision.error.message} <Link className="link" to="/procedures">All procedures</Link></Notice></div>
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
  const coverage = useQuery({ ...draftCoverageQuery(revision.job_id, asked), enabled: Boolean(asked.code), placeholderData: keepPreviousData })
  const heat = useMemo(() => new Map(judged.heat_input.map((one) => [one.pass_number, one.max_kj_mm])), [judged])
  const errors = useMemo(
    () => new Map(draft.errors.map((one) => [one.path, one.message])),
    [draft.errors],
  )
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
      <Head revision={revision} document={document} state={draft.state} savedAt={draft.savedAt} saveNow={() => void draft.saveNow()} />
      <div className="grid min-h-0 grid-cols-[288px_minmax(0,1fr)_244px] gap-4 max-[1150px]:grid-cols-[250px_minmax(0,1fr)_206px] max-[1150px]:gap-3 max-md:block max-md:overflow-y-auto">
        <div className="grid min-h-0 grid-rows-[auto_minmax(0,1fr)] gap-2 pb-3">
          <div className="panel grid max-h-[36vh] min-h-32 place-items-center overflow-hidden p-2">
            {judged.drawing ? (
              <SectionDrawing drawing={judged.drawing} heat={heat} lit={lit ?? current} onLight={setLit} onPick={setSelected} />
            ) : (
              <p className="p-3 text-center text-[13px] text-steel2">
                The joint is drawn once these are known: {judged.missing.filter((one) => /^(joint|base_metals.*thickness)/.test(one.path)).map((one) => one.message).join(', ') || 'joint and thickness'}.
              </p>
            )}
          </div>
          <div className="min-h-0 overflow-y-auto pr-1">
            <Intent document={document} fields={judged.joint_fields} onChange={change} disabled={disabled} errors={errors} />
          </div>
        </div>
        <div className="min-h-0 overflow-y-auto pb-4">
          <Banner draft={draft} revision={revision} />
          <Ladder document={document} evaluation={judged} onChange={change} selected={current} onSelect={setSelected} onLight={setLit} lit={lit} disabled={disabled} brackets={coverage.data?.brackets ?? []} />
          <Sums evaluation={judged} />
          {current !== null && (
            <Below document={document} selected={current} evaluation={judged} onChange={change} disabled={disabled} />
          )}
        </div>
        <div className="min-h-0 overflow-y-auto pb-4">
          {evaluation.isError && <Notice mark="breach" className="mb-2 text-[13px]">{evaluation.error.message}</Notice>}
          <ProofPanel revision={revision} draft={coverage.data} />
          <Checks evaluation={judged} onGo={go} />
        </div>
      </div>
      {draft.theirs && <ConflictDialog key={draft.theirs.version} clashes={draft.clashes} theirs={draft.theirs} onSettle={draft.settle} />}
    </div>
  )
}

const VIEWS = [
  ['set-up', 'Set-up'],
  ['heat', 'Heat input'],
  ['cooling', 'Preheat and cooling'],
  ['use', 'Metal and time'],
  ['charts', 'Charts and trials'],
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
      <div role="tablist" aria-label="Of the pass and the joint" className="flex gap-1 border-b border-line">
        {VIEWS.map(([key, words]) => (
          <button key={key} type="button" role="tab" aria-selected={view === key} onClick={() => setView(key)}
            className={`-mb-px rounded-t-sm border px-2.5 py-1 font-head text-[15px] ${view === key ? 'border-line border-b-panel bg-panel font-semibold' : 'border-transparent text-accent hover:bg-accent-soft'}`}>
            {words}
          </button>
        ))}
      </div>
      <div role="tabpanel" className={view === 'set-up' ? '' : 'panel border-t-0 p-3'}>
        {view === 'set-up' && <SetUp key={selected} document={document} selected={selected} onChange={onChange} disabled={disabled} />}
        {view === 'heat' && <HeatExplorer key={selected} document={document} selected={selected} evaluation={evaluation} onChange={onChange} disabled={disabled} />}
        {view === 'cooling' && <CoolingPanel evaluation={evaluation} />}
        {view === 'use' && <UsePanel evaluation={evaluation} />}
        {view === 'charts' && <ChartsPanel document={document} selected={selected} />}
      </div>
    </div>
  )
}

const STATE_WORDS: Record<SaveState, string> = {
  saved: 'saved',
  waiting: 'typing …',
  saving: 'saving …',
  'no-answer': 'not saved: no answer, trying again',
  'signed-out': 'not saved: signed out',
  refused: 'not saved',
  conflict: 'not saved: changed by someone else',
}

function Head({ revision, document, state, savedAt, saveNow }: { revision: Revision; document: Procedure; state: SaveState; savedAt: string; saveNow: () => void }) {
  const { may } = useSession()
  const [starting, setStarting] = useState(false)
  const [history, setHistory] = useState(false)
  const [old, setOld] = useState(false)
  const passes = passesOf(document).length
  const time = new Date(savedAt).toLocaleTimeString([], { hour: '2-digit', minute: '2-digit' })
  const unsaved = state !== 'saved'
  return (
    <div className="flex min-w-0 flex-wrap items-center gap-x-4 gap-y-1">
      <PageTitle words={`${revision.number} ${document.title ?? ''}`.trim()} className="max-w-[46ch] min-w-0 truncate" title={`${revision.number} ${document.title ?? ''}`} />
      <span className="text-[13px] text-steel2">
        <RevisionMenu revision={revision} /> · {revision.frozen ? 'frozen' : state === 'saved' ? `saved ${time}` : <span className={state === 'waiting' || state === 'saving' ? '' : 'font-semibold text-breach'}>{STATE_WORDS[state]}</span>}
        {(state === 'no-answer' || state === 'refused') && <> · <button type="button" className="link" onClick={saveNow}>Save now</button></>} · {passes} {passes === 1 ? 'pass' : 'passes'}
      </span>
      <div className="ml-auto flex flex-wrap items-center gap-2">
        <StageTrack stage={revision.stage} />
        <Menu>
          <MenuButton className="rounded-sm border border-line bg-panel px-3 py-1.5 font-head text-[15px] font-medium">More</MenuButton>
          <MenuItems anchor="bottom end" className="panel z-50 py-1 text-[14px] focus:outline-none">
            <Item href={`/api/revisions/${String(revision.id)}/print?paper=a4`}>Print A4</Item>
            <Item href={`/api/revisions/${String(revision.id)}/print?paper=letter`}>Print Letter</Item>
            <Item href={`/api/revisions/${String(revision.id)}/export`} download>Export JSON</Item>
            {may('LOG_TRIAL') && (
              <MenuItem>
                <Link className="block px-4 py-1.5 data-focus:bg-accent-soft" to={`/procedures/${String(revision.id)}/scrap`}>Trial weld</Link>
              </MenuItem>
            )}
            <MenuItem>
              <Link className="block px-4 py-1.5 data-focus:bg-accent-soft" to={`/procedures/compare?left=${String(revision.id)}`}>Compare with another</Link>
            </MenuItem>
            {may('ENTER_OLD_RECORD') && passes > 0 && !unsaved && (
              <MenuItem>
                <button type="button" className="block w-full px-4 py-1.5 text-left data-focus:bg-accent-soft" onClick={() => setOld(true)}>Enter an existing PQR or WPQR</button>
              </MenuItem>
            )}
            <MenuItem>
              <button type="button" className="block w-full px-4 py-1.5 text-left data-focus:bg-accent-soft" onClick={() => setHistory(true)}>Show the history</button>
            </MenuItem>
          </MenuItems>
        </Menu>
        {may('START_COUPON') && (
          <Button look="main" disabled={passes === 0 || unsaved} title={passes === 0 ? 'Add a pass first' : unsaved ? 'Wait until it is saved' : undefined} onClick={() => setStarting(true)}>
            Weld a coupon
          </Button>
        )}
      </div>
      <StartDialog revision={revision} open={starting} onClose={() => setStarting(false)} />
      <OldRecordDialog revisionId={revision.id} open={old} onClose={() => setOld(false)} />
      <HistoryDialog revisionId={revision.id} open={history} onClose={() => setHistory(false)} />
    </div>
  )
}

function Item({ href, children, download = false }: { href: string; children: string; download?: boolean }) {
  return (
    <MenuItem>
      <a className="block px-4 py-1.5 data-focus:bg-accent-soft" href={href} {...(download ? { download: '' } : { target: '_blank', rel: 'noreferrer' })}>
        {children}
      </a>
    </MenuItem>
  )
}

function RevisionMenu({ revision }: { revision: Revision }) {
  if (revision.siblings.length < 2) return <>revision {revision.letter}</>
  return (
    <Menu>
      <MenuButton className="link">revision {revision.letter}</MenuButton>
      <MenuItems anchor="bottom start" className="panel z-50 py-1 focus:outline-none">
        {revision.siblings.map((one) => (
          <MenuItem key={one.id}>
            <Link className="block px-4 py-1.5 data-focus:bg-accent-soft" to={`/procedures/${String(one.id)}`}>
              revision {one.letter}, {one.stage}
            </Link>
          </MenuItem>
        ))}
      </MenuItems>
    </Menu>
  )
}

function StageTrack({ stage }: { stage: string }) {
  const last = ['superseded', 'withdrawn'].includes(stage) ? stage : 'released'
  const stages = stage === 'prequalified' ? ['draft', 'prequalified', last] : ['draft', 'trial', 'tested', 'qualified', last]
  const at = stages.indexOf(stage)
  return (
    <ol aria-label="Stage" className="flex items-center gap-1.5 font-head text-[14px] text-steel2">
      {stages.map((one, index) => (
        <li key={one} className={`flex items-center gap-1.5 ${index === at ? 'font-semibold text-ink' : ''}`} aria-current={index === at ? 'step' : undefined}>
          {index > 0 && <i className="h-0.5 w-3 bg-line" />}
          <i className={`size-2.5 rounded-full border-2 ${index < at ? 'border-accent bg-accent' : index === at ? 'border-3 border-accent' : 'border-steel2'}`} />
          <span className={index === at ? '' : 'max-[1400px]:sr-only'}>{one}</span>
        </li>
      ))}
    </ol>
  )
}

function Banner({ draft, revision }: { draft: ReturnType<typeof useDraft>; revision: Revision }) {
  const navigate = useNavigate()
  const { may } = useSession()
  const next = useMutation({
    mutationFn: () => unwrap(api.POST('/api/revisions/{revision_id}/next', { params: { path: { revision_id: revision.id } } })),
    onSuccess: (made) => void navigate(`/procedures/${String(made.id)}`),
  })
  const later = revision.siblings.filter((one) => one.id > revision.id).at(-1)
  return (
    <>
      {revision.frozen && (
        <Notice mark="unknown" className="mb-3 border-line! text-[13px]">
          Revision {revision.letter} is frozen: {revision.coupons.length === 0 && `it is ${revision.stage}.`}{revision.coupons.map((one, index) => (
            <span key={one.id}>{index > 0 && ', '}<Link className="link" to={`/coupons/${String(one.id)}`}>{one.number}</Link></span>
          ))}{revision.coupons.length > 0 && ` ${revision.coupons.length === 1 ? 'was' : 'were'} started from it.`}{' '}
          {later ? <Link className="link" to={`/procedures/${String(later.id)}`}>Open revision {later.letter}</Link>
            : may('WRITE_PROCEDURE') && <button type="button" className="link" disabled={next.isPending} onClick={() => next.mutate()}>Begin the next revision</button>}
          {next.isError && <span role="alert" className="text-breach"> {next.error.message}</span>}
        </Notice>
      )}
      {draft.mergedWith && <Notice mark="holds">Merged with what {draft.mergedWith} saved meanwhile: each of you changed other fields.</Notice>}
      {draft.restored && draft.state !== 'saved' && draft.state !== 'conflict' && (
        <Notice className="mb-3 text-[13px]">Brought back what was typed here and not saved last time.</Notice>
      )}
      {draft.state === 'refused' && (
        <Notice mark="breach" className="mb-3 text-[13px]">
          Not saved. {draft.errors.length > 0 ? draft.errors.map((one) => `${one.path}: ${one.message}`).join('; ') : draft.message} What you typed is kept on this page.
        </Notice>
      )}
      {draft.state === 'no-answer' && (
        <Notice mark="breach" className="mb-3 text-[13px]">{draft.message} It is sent again by itself.</Notice>
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
      <span>Section to the surface <b className="text-ink">{units.value(section.area_mm2, 'area')}</b> {units.unit('area')}</span>
      {section.reinforcement_mm2 > 0 && <span>with cap <b className="text-ink">{units.value(section.total_mm2, 'area')}</b> {units.unit('area')}</span>}
      <span className="text-steel2">Beads drawn as they lay metal down{section.assumptions.length > 0 && `; assumed: ${section.assumptions.join('; ')}`}. Brackets [ ]: heat input wanted, or what a signed record allows.</span>
    </p>
  )
}

function StartDialog({ revision, open, onClose }: { revision: Revision; open: boolean; onClose: () => void }) {
  const navigate = useNavigate()
  const queries = useQueryClient()
  const [welder, setWelder] = useState<string | null>(null)
  const start = useMutation({
    mutationFn: () => unwrap(api.POST('/api/revisions/{revision_id}/coupons', { params: { path: { revision_id: revision.id } }, body: { welder: welder ?? '' } })),
    onSuccess: (made) => {
      void queries.invalidateQueries()
      void navigate(`/coupons/${String(made.id)}`)
    },
  })
  return (
    <Modal title={`Weld a coupon from revision ${revision.letter}`} open={open} onClose={onClose}>
      <form onSubmit={(event) => { event.preventDefault(); start.mutate() }} className="grid gap-3">
        {!revision.frozen && <p className="text-steel">The coupon takes a copy of this revision, and the revision is frozen from then on. Changes go into the next one.</p>}
        <div>
          <span className="label">Welder</span>
          <TextField label="Welder" value={welder} onChange={setWelder} />
        </div>
        {start.isError && <p role="alert" className="text-[13px] text-breach">{start.error instanceof Refusal ? start.error.message : 'It did not start.'}</p>}
        <div className="flex justify-end gap-2">
          <Button onClick={onClose}>Not now</Button>
          <Button look="main" type="submit" disabled={start.isPending}>Start the coupon</Button>
        </div>
      </form>
    </Modal>
  )
}
