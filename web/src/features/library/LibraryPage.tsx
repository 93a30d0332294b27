import { t } from '@lingui/core/macro'
import { useState } from 'react'
import { useParams } from 'react-router'

import { NothingHere } from '../../ui/NothingHere'
import { PageTabs } from '../../ui/PageTabs'
import { PageTitle } from '../../ui/PageTitle'
import { TextField } from '../../ui/TextField'
import { useSettled } from '../../ui/useSettled'
import { ChartsTab } from './ChartsTab'
import { Damaged } from './Damaged'
import { FillersTab } from './FillersTab'
import { GasesTab } from './GasesTab'
import { MachinesTab } from './MachinesTab'
import { MetalsTab } from './MetalsTab'
import { RecordersTab } from './RecordersTab'
import { TrialsTab } from './TrialsTab'
import { TungstenTab } from './TungstenTab'

const TABS = [
  { tab: 'metals', words: t`Metals`, look: t`304, S690, duplex, 6061-T6 …`, show: MetalsTab },
  { tab: 'fillers', words: t`Fillers`, look: t`E71T-1M, .045 flux-core, silicon bronze …`, show: FillersTab },
  { tab: 'gases', words: t`Gases`, look: t`C25, Ar+2CO2, trimix, purge …`, show: GasesTab },
  { tab: 'tungsten', words: t`Tungsten`, look: t`lanthanated, EWTh-2, grey …`, show: TungstenTab },
  { tab: 'machines', words: t`Machines`, look: t`name of a machine …`, show: MachinesTab },
  { tab: 'charts', words: t`Charts`, look: t`E71T-1C, CO2, door chart …`, show: ChartsTab },
  { tab: 'recorders', words: t`Recorders`, look: t`name of a recorder …`, show: RecordersTab },
  { tab: 'trials', words: t`Trials`, look: t`135 PF kept …`, show: TrialsTab },
] as const

/** What lies ready: metals, fillers, gases, tungsten, machines. Searched as one types. */
export function LibraryPage() {
  const { tab = 'metals' } = useParams()
  const found = TABS.find((one) => one.tab === tab)
  return found ? <Tab key={found.tab} found={found} /> : <NothingHere />
}

function Tab({ found }: { found: (typeof TABS)[number] }) {
  const [text, setText] = useState<string | null>(null)
  const asked = useSettled(text ?? '')
  const Show = found.show
  return (
    <div className="px-5 py-4">
      <div className="mb-3 flex flex-wrap items-end gap-x-6 gap-y-2">
        <PageTitle words={t`Library`} more={found.words} />
        <PageTabs
          label={t`Library`}
          tabs={TABS.map((one) => [one.tab === 'metals' ? '/library' : `/library/${one.tab}`, one.words])}
        />
        <div className="w-80">
          <TextField
            label={t`Search the ${found.words.toLowerCase()}`}
            value={text}
            onChange={setText}
            placeholder={found.look}
          />
        </div>
      </div>
      {found.tab === 'metals' && <Damaged kind="metal" />}
      {found.tab === 'fillers' && <Damaged kind="product" />}
      {found.tab === 'charts' && <Damaged kind="chart" />}
      {found.tab === 'machines' && <Damaged kind="machine" />}
      <Show text={asked} onText={setText} />
    </div>
  )
}
