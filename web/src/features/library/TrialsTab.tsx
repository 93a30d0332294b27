import { plural, t } from '@lingui/core/macro'
import { Trans } from '@lingui/react/macro'
import { queryOptions, useQuery } from '@tanstack/react-query'
import { useState } from 'react'

import { api, unwrap } from '../../api/client'
import type { Trial, TrialRow } from '../../api/types'
import { useSession } from '../../session/session'
import { useUnits } from '../../session/units'
import { Button } from '../../ui/Button'
import { Notice } from '../../ui/Notice'
import { Rows } from './Rows'
import { locale } from '../../session/language'
import { TrialDialog } from './TrialDialog'
import { VoidTrialDialog } from './VoidTrialDialog'

const trialsQuery = queryOptions({
  queryKey: ['trials'],
  queryFn: () => unwrap(api.GET('/api/trials')),
  staleTime: 5_000,
})

type Whole = TrialRow & { trial: Trial }
const isWhole = (one: TrialRow): one is Whole => one.trial !== null

/** Trials on scrap. Kept ones come first when the same is planned again. */
export function TrialsTab({ text }: { text: string }) {
  const { may } = useSession()
  const units = useUnits()
  const found = useQuery(trialsQuery)
  const [entering, setEntering] = useState(false)
  const [striking, setStriking] = useState<TrialRow | null>(null)
  const wanted = text.trim().toLowerCase().split(/\s+/).filter(Boolean)
  const damaged = (found.data ?? []).filter((one) => one.trial === null)
  const whole = (found.data ?? []).filter(isWhole)
  const rows = whole.filter((one) => {
    const { trial } = one
    const told = [
      trial.process,
      trial.position,
      trial.filler?.designation,
      trial.gas,
      trial.seen,
      trial.verdict,
      one.entered_by,
    ]
      .join(' ')
      .toLowerCase()
    return wanted.every((word) => told.includes(word))
  })
  const value = (number: number | null | undefined, kind: string) => (number == null ? '—' : units.value(number, kind))
  return (
    <>
      <div className="mb-2 flex items-center gap-4">
        <p role="status" className="text-[13px] text-steel2">
          {found.data ? plural(rows.length, { one: '# trial', other: '# trials' }) : ''}
        </p>
        {may('LOG_TRIAL') && (
          <Button className="ml-auto" onClick={() => setEntering(true)}>
            <Trans>Log a trial</Trans>
          </Button>
        )}
      </div>
      {found.isError && <Notice mark="breach">{found.error.message}</Notice>}
      {damaged.map((one) => (
        <Notice key={one.id} mark="breach" className="mb-2 text-[13px]">
          <Trans>
            A trial that {one.entered_by} entered on {new Date(one.entered_at).toLocaleDateString(locale())} is damaged.{' '}
            {one.damaged}
          </Trans>
        </Notice>
      ))}
      {found.data && rows.length === 0 && (
        <p className="panel p-6 text-steel">
          {found.data.length === 0
            ? t`No trial weld logged. Log what was set in a trial weld and what was seen: the next draft for the same wire, gas, position and thickness begins with it.`
            : t`No trial like that.`}
        </p>
      )}
      {rows.length > 0 && (
        <Rows
          label={t`Trials`}
          heads={[
            t`Process`,
            t`Tried on`,
            t`Filler`,
            t`Gas`,
            t`Position`,
            t`Thickness, ${units.unit('thickness')}`,
            'A',
            'V',
            t`Feed, ${units.unit('wire_feed')}`,
            t`Seen`,
            t`Verdict`,
          ]}
          lines={rows.map((one) => ({
            key: String(one.id),
            cells: [
              one.trial.process,
              one.trial.made_on ?? one.entered_at.slice(0, 10),
              `${one.trial.filler?.designation ?? '—'} ${one.trial.filler?.diameter_mm == null ? '' : units.value(one.trial.filler.diameter_mm, 'wire_diameter')}`,
              one.trial.gas ?? '—',
              one.trial.position,
              value(one.trial.thickness_mm, 'thickness'),
              value(one.trial.current_a, 'current'),
              value(one.trial.voltage_v, 'voltage'),
              value(one.trial.wire_feed_m_min, 'wire_feed'),
              one.trial.seen ?? '—',
              one.struck_because ? <s key="struck">{one.trial.verdict}</s> : one.trial.verdict,
            ],
            details: () => (
              <div className="text-[13px]">
                <p>
                  <Trans>
                    Entered by {one.entered_by}, {new Date(one.entered_at).toLocaleString(locale())}.
                  </Trans>
                  {one.trial.transfer ? t` Transfer ${one.trial.transfer.replaceAll('-', ' ')}.` : ''}
                  {one.trial.travel_mm_min == null
                    ? ''
                    : t` Travel ${units.value(one.trial.travel_mm_min, 'travel')} ${units.unit('travel')}.`}
                </p>
                {one.struck_because ? (
                  <p className="text-steel2">
                    <Trans>Struck: {one.struck_because}. It counts no more.</Trans>
                  </p>
                ) : (
                  may('LOG_TRIAL') && (
                    <button type="button" className="link" onClick={() => setStriking(one)}>
                      <Trans>Void it</Trans>
                    </button>
                  )
                )}
              </div>
            ),
          }))}
        />
      )}
      {entering && <TrialDialog onClose={() => setEntering(false)} />}
      {striking && <VoidTrialDialog row={striking} onClose={() => setStriking(null)} />}
    </>
  )
}
