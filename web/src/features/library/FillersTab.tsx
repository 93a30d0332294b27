import { plural, t } from '@lingui/core/macro'
import { Trans } from '@lingui/react/macro'
import { keepPreviousData, useQuery } from '@tanstack/react-query'
import { useState } from 'react'

import type { FillerFound, Product, LibraryRecord } from '../../api/types'
import { useSession } from '../../session/session'
import { useUnits } from '../../session/units'
import { tensileText } from '../../ui/tensileText'
import { POSITION_WORDS } from '../../domain/words'
import { Sources } from '../../ui/Sources'
import { ProductForm } from './ProductForm'
import { RecordDialog } from './RecordDialog'
import { Facts, Rows } from './Rows'
import { Used } from './Used'
import { fillersQuery, listedUsedQuery, recordsQuery } from '../../queries/library'
import { TabHead } from './TabHead'

const EMPTY: Product = { format: 'grounded-bead/product', version: 1, name: '', designation: '', ranges: [] }

/** Fillers by class, decoded as one types, and those as bought with their makers' ranges. */
export function FillersTab({ text, onText }: { text: string; onText: (text: string) => void }) {
  const { may } = useSession()
  const units = useUnits()
  const found = useQuery({ ...fillersQuery(text), placeholderData: keepPreviousData })
  const records = useQuery(recordsQuery('product'))
  const [editing, setEditing] = useState<LibraryRecord | 'new' | null>(null)
  const fillers = found.data ?? []
  return (
    <>
      <TabHead
        count={found.data ? plural(fillers.length, { one: '# filler', other: '# fillers' }) : ''}
        note={<Trans>; any other designation is decoded as you type it</Trans>}
        addWords={t`Add a product`}
        onAdd={() => setEditing('new')}
        failed={found.error}
        nothing={
          found.data && fillers.length === 0 ? (
            <>
              <Trans>No filler by that name, and no class that is known here. Try a class such as </Trans>
              <button type="button" className="link" onClick={() => onText('E71T-1M')}>
                E71T-1M
              </button>
              <Trans>, or words such as “basic stick”.</Trans>
            </>
          ) : undefined
        }
      />
      <Rows
        label={t`Fillers`}
        heads={[
          t`Filler`,
          t`Standard`,
          t`Product`,
          t`Process`,
          t`Polarity`,
          t`Gas`,
          t`Positions`,
          t`Tensile, ${units.unit('strength')}`,
        ]}
        lines={fillers.map((one) => {
          const d = one.decoded
          const record = records.data?.find((other) => other.name === one.product?.name)
          return {
            key: `${one.product?.name ?? ''}|${d.designation}`,
            cells: [
              one.product ? one.product.name : d.designation,
              one.product ? t`${d.designation} · own` : d.system,
              d.product,
              d.processes.join(', '),
              d.polarities.join(', ') || '—',
              d.shielding === 'self' ? t`none` : d.gases.join(', ') || '—',
              POSITION_WORDS[d.positions] ?? '—',
              d.tensile_mpa == null ? '—' : tensileText(d, units),
            ],
            details: () => (
              <Details one={one} {...(record && may('KEEP_LIBRARY') ? { onCorrect: () => setEditing(record) } : {})} />
            ),
          }
        })}
      />
      {editing && (
        <RecordDialog<Product>
          kind="product"
          words={t`filler`}
          record={editing === 'new' ? null : editing}
          empty={EMPTY}
          onClose={() => setEditing(null)}
          form={(document, put, errors) => <ProductForm document={document} put={put} errors={errors} />}
        />
      )}
    </>
  )
}

function Details({ one, onCorrect }: { one: FillerFound; onCorrect?: () => void }) {
  const units = useUnits()
  const d = one.decoded
  const used = useQuery(listedUsedQuery('filler', d.designation))
  return (
    <div className="grid grid-cols-4 gap-6">
      <Facts words={t`Its parts`}>
        <ul>
          {d.meaning.map((token, index) => (
            <li key={index}>
              <b>{token.text}</b> {token.meaning}
            </li>
          ))}
        </ul>
        <Sources citations={d.sources.citations} />
      </Facts>
      <Facts words={t`Facts`}>
        <ul>
          {d.yield_mpa != null && (
            <li>
              <Trans>
                yield at least {units.value(d.yield_mpa, 'strength')} {units.unit('strength')}
              </Trans>
            </li>
          )}
          {d.impact_j != null && d.impact_c != null && (
            <li>
              <Trans>
                {d.impact_j} J at {units.value(d.impact_c, 'temperature')} {units.unit('temperature')}
              </Trans>
            </li>
          )}
          {d.hydrogen_ml_100g != null && (
            <li>
              <Trans>hydrogen at most {d.hydrogen_ml_100g} ml/100 g</Trans>
            </li>
          )}
          {d.runs === 'single' && (
            <li>
              <Trans>single runs only</Trans>
            </li>
          )}
          {d.thickness_max_mm != null && (
            <li>
              <Trans>
                up to {units.value(d.thickness_max_mm, 'thickness')} {units.unit('thickness')}
              </Trans>
            </li>
          )}
          {d.notes.map((note) => (
            <li key={note}>{note}</li>
          ))}
        </ul>
        {one.said && !one.product && <p className="mt-1 text-steel2">{one.said}</p>}
      </Facts>
      <Facts
        words={
          one.product
            ? t`Manufacturer’s ranges${one.product.sheet_date ? t`, sheet of ${one.product.sheet_date}` : ''}`
            : t`Manufacturer’s ranges`
        }
      >
        {!one.product && (
          <p className="text-steel2">
            <Trans>A class has none; a product may.</Trans>
          </p>
        )}
        <ul className="tabular-nums">
          {one.product?.ranges.map((range, index) => (
            <li key={index} className="mb-1">
              <b>
                {units.value(range.diameter_mm, 'wire_diameter')} {units.unit('wire_diameter')}
              </b>{' '}
              {range.positions.length > 0 ? range.positions.join(', ') : t`any position`}
              {range.polarity ? `, ${range.polarity}` : ''}:{' '}
              {[
                range.current_a && `${units.range(range.current_a, 'current')} A`,
                range.voltage_v && `${units.range(range.voltage_v, 'voltage')} V`,
                range.wire_feed_m_min &&
                  `${units.range(range.wire_feed_m_min, 'wire_feed')} ${units.unit('wire_feed')}`,
              ]
                .filter(Boolean)
                .join(' · ') || t`nothing stated`}
            </li>
          ))}
        </ul>
      </Facts>
      <Facts words={t`Used in`}>
        {onCorrect && (
          <button type="button" className="link mb-1 text-[13px]" onClick={onCorrect}>
            <Trans>Correct or remove</Trans>
          </button>
        )}
        <Used found={used} />
      </Facts>
    </div>
  )
}
