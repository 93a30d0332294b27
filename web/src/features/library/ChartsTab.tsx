import { plural, t } from '@lingui/core/macro'
import { Trans } from '@lingui/react/macro'
import { useQuery } from '@tanstack/react-query'
import { useState } from 'react'

import type { SettingsChart, LibraryRecord } from '../../api/types'
import { useSession } from '../../session/session'
import { useUnits } from '../../session/units'
import { ChartForm } from './ChartForm'
import { RecordDialog } from './RecordDialog'
import { Facts, Rows } from './Rows'
import { recordsQuery } from '../../queries/library'
import { TabHead } from './TabHead'

const EMPTY: SettingsChart = {
  format: 'grounded-bead/chart',
  version: 1,
  name: '',
  process: '136',
  rows: [{ diameter_mm: 1.2, positions: [] }],
}

/** Printed charts of settings; each draft shows those of its process and filler size beside the proposal. */
export function ChartsTab({ text }: { text: string }) {
  const { may } = useSession()
  const found = useQuery(recordsQuery('chart'))
  const [editing, setEditing] = useState<LibraryRecord | 'new' | null>(null)
  const all = found.data ?? []
  const wanted = text.trim().toLowerCase()
  const shown = all.filter((one) => {
    const chart = one.document as SettingsChart
    return `${one.name} ${chart.process} ${chart.designation ?? ''} ${chart.gas ?? ''} ${chart.source ?? ''}`
      .toLowerCase()
      .includes(wanted)
  })
  return (
    <>
      <TabHead
        count={found.data ? plural(shown.length, { one: '# chart', other: '# charts' }) : ''}
        note={<Trans>; a draft shows the lines for its process and filler size beside the proposal</Trans>}
        addWords={t`Add a chart`}
        onAdd={() => setEditing('new')}
        failed={found.error}
        nothing={
          found.data && shown.length === 0
            ? all.length === 0
              ? t`No chart in the library. Enter the one from a machine’s door or a leaflet once, and every draft is compared with it.`
              : t`No chart by that name.`
            : undefined
        }
      />
      <Rows
        label={t`Charts`}
        heads={[t`Chart`, t`Printed by`, t`Process`, t`Filler class`, t`Gas`, t`Polarity`, t`Lines`]}
        lines={shown.map((one) => {
          const chart = one.document as SettingsChart
          return {
            key: String(one.id),
            cells: [
              `${one.name}${chart.page ? t`, page ${chart.page}` : ''}`,
              chart.source ?? '—',
              chart.process,
              chart.designation ?? t`not on the chart`,
              chart.gas ?? t`not on the chart`,
              chart.polarity ?? t`not on the chart`,
              chart.rows.length,
            ],
            details: () => (
              <Details chart={chart} {...(may('KEEP_LIBRARY') ? { onCorrect: () => setEditing(one) } : {})} />
            ),
          }
        })}
      />
      {editing && (
        <RecordDialog<SettingsChart>
          kind="chart"
          words={t`chart`}
          record={editing === 'new' ? null : editing}
          empty={EMPTY}
          onClose={() => setEditing(null)}
          form={(document, put, errors) => <ChartForm document={document} put={put} errors={errors} />}
        />
      )}
    </>
  )
}

function Details({ chart, onCorrect }: { chart: SettingsChart; onCorrect?: () => void }) {
  const units = useUnits()
  return (
    <div className="grid grid-cols-4 gap-6">
      <div className="col-span-3">
        <Facts words={t`Lines`}>
          <ul className="tabular-nums">
            {chart.rows.map((row, index) => (
              <li key={index}>
                <b>
                  {units.value(row.diameter_mm, 'wire_diameter')} {units.unit('wire_diameter')}
                </b>
                , {row.positions.length > 0 ? row.positions.join(', ') : t`no position named`}
                {row.thickness_mm
                  ? t`, ${units.range(row.thickness_mm, 'thickness')} ${units.unit('thickness')} thick`
                  : ''}
                :{' '}
                {[
                  row.current_a && `${units.range(row.current_a, 'current')} A`,
                  row.voltage_v && `${units.range(row.voltage_v, 'voltage')} V`,
                  row.wire_feed_m_min && `${units.range(row.wire_feed_m_min, 'wire_feed')} ${units.unit('wire_feed')}`,
                ]
                  .filter(Boolean)
                  .join(' · ')}
              </li>
            ))}
          </ul>
        </Facts>
      </div>
      <Facts words={t`Facts`}>
        {onCorrect && (
          <button type="button" className="link mb-1 text-[13px]" onClick={onCorrect}>
            <Trans>Correct or remove</Trans>
          </button>
        )}
        <p>
          {[chart.printed_on && t`printed ${chart.printed_on}`, chart.notes].filter(Boolean).join('; ') ||
            t`no date, no notes`}
        </p>
      </Facts>
    </div>
  )
}
