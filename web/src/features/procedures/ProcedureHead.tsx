import { plural, t } from '@lingui/core/macro'
import { Trans } from '@lingui/react/macro'
import { Menu, MenuButton, MenuItems } from '@headlessui/react'
import { useState } from 'react'

import type { Procedure, Revision } from '../../api/types'
import { printedInTwo } from '../../ui/printedInTwo'
import { useSession } from '../../session/session'
import type { SaveState } from '../../domain/draftKeeper'
import { passesOf } from '../../domain/procedure'
import { Button } from '../../ui/Button'
import { PageTitle } from '../../ui/PageTitle'
import { OldRecordDialog } from '../evidence'
import { HistoryDialog } from './HistoryDialog'
import { inWords } from '../../domain/words'
import { locale } from '../../session/language'
import { StartDialog } from './StartDialog'
import { MenuAction, MenuFile, MenuLink } from '../../ui/MenuEntry'

const STATE_WORDS: Record<SaveState, string> = {
  saved: t`saved`,
  waiting: t`typing …`,
  saving: t`saving …`,
  'no-answer': t`not saved: no answer, trying again`,
  'signed-out': t`not saved: signed out`,
  refused: t`not saved`,
  conflict: t`not saved: changed by someone else`,
}

export function Head({
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
            <MenuFile href={`/api/revisions/${String(revision.id)}/print?paper=a4`}>
              <Trans>Print A4</Trans>
            </MenuFile>
            <MenuFile href={`/api/revisions/${String(revision.id)}/print?paper=letter`}>
              <Trans>Print Letter</Trans>
            </MenuFile>
            {printedInTwo().map(([second, words]) => (
              <MenuFile key={second} href={`/api/revisions/${String(revision.id)}/print?paper=a4&second=${second}`}>
                {words}
              </MenuFile>
            ))}
            <MenuFile href={`/api/revisions/${String(revision.id)}/export`} download>
              <Trans>Export JSON</Trans>
            </MenuFile>
            {may('LOG_TRIAL') && (
              <MenuLink to={`/procedures/${String(revision.id)}/scrap`}>
                <Trans>Trial weld</Trans>
              </MenuLink>
            )}
            <MenuLink to={`/crew/who-may?revision=${String(revision.id)}`}>
              <Trans>Who may weld it</Trans>
            </MenuLink>
            <MenuLink to={`/procedures/compare?left=${String(revision.id)}`}>
              <Trans>Compare with another</Trans>
            </MenuLink>
            {may('ENTER_OLD_RECORD') && passes > 0 && !unsaved && (
              <MenuAction onClick={() => setOld(true)}>
                <Trans>Enter an existing PQR or WPQR</Trans>
              </MenuAction>
            )}
            <MenuAction onClick={() => setHistory(true)}>
              <Trans>Show the history</Trans>
            </MenuAction>
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
          <MenuLink key={one.id} to={`/procedures/${String(one.id)}`}>
            <Trans>revision {one.letter}</Trans>, {inWords(one.stage)}
          </MenuLink>
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
