import { t } from '@lingui/core/macro'
import { useState } from 'react'
import type { Bracket, Procedure, Revision } from '../../api/types'
import { ChartsPanel } from './ChartsPanel'
import { CoolingPanel } from './CoolingPanel'
import { HeatExplorer } from './HeatExplorer'
import { SetUp } from './SetUp'
import { TryPass } from './TryPass'
import { UsePanel } from './UsePanel'

const VIEWS = [
  ['set-up', t`Set-up`],
  ['heat', t`Heat input`],
  ['cooling', t`Preheat and cooling`],
  ['use', t`Metal and time`],
  ['charts', t`Charts and trials`],
  ['try', t`Try it`],
] as const

type BelowProps = {
  document: Procedure
  selected: number
  evaluation: Revision['evaluation']
  onChange: (change: (before: Procedure) => Procedure) => void
  disabled: boolean
  brackets?: readonly Bracket[]
  revisionId: number
}

/** Under the ladder: the selected pass's set-up, its heat, the joint's cooling, its metal and time. */
export function Below({ document, selected, evaluation, onChange, disabled, brackets = [], revisionId }: BelowProps) {
  const [view, setView] = useState<(typeof VIEWS)[number][0]>('set-up')
  return (
    <div className="mt-3">
      <div
        role="tablist"
        aria-label={t`Of the pass and the joint`}
        className="flex gap-0.5 border-b border-line max-sm:flex-wrap"
      >
        {VIEWS.map(([key, words]) => (
          <button
            key={key}
            type="button"
            role="tab"
            aria-selected={view === key}
            onClick={() => setView(key)}
            className={`-mb-px rounded-t-sm border px-2 py-1 font-head text-[14px] whitespace-nowrap ${view === key ? 'border-line border-b-panel bg-panel font-semibold' : 'border-transparent text-accent hover:bg-accent-soft'}`}
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
        {view === 'try' && (
          <TryPass key={selected} document={document} selected={selected} brackets={brackets} revisionId={revisionId} />
        )}
      </div>
    </div>
  )
}
