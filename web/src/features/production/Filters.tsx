import { t } from '@lingui/core/macro'
import { Trans } from '@lingui/react/macro'
import { useQuery } from '@tanstack/react-query'

import type { WeldsAsked } from '../../api/types'
import { listWpsQuery } from '../../queries/joints'
import { useUnits } from '../../session/units'
import { Button } from '../../ui/Button'
import { Choice } from '../../ui/Choice'
import { Labelled } from '../../ui/Labelled'
import { METHODS, METHOD_WORDS, STATE_WORDS, type Method } from './states'

type Props = { jobId: number; asked: WeldsAsked; onAsk: (next: WeldsAsked) => void }

/** What the log is searched by; fields narrow together. */
export function Filters({ jobId, asked, onAsk }: Props) {
  const { system } = useUnits()
  const wps = useQuery(listWpsQuery(jobId, system))
  const set = (changed: WeldsAsked) => onAsk({ ...asked, before: null, ...changed })
  const text = (name: 'mark' | 'welder' | 'batch' | 'heat', words: string) => (
    <label className="w-32">
      <span className="label">{words}</span>
      <input
        className="field"
        autoComplete="off"
        value={asked[name] ?? ''}
        onChange={(event) => set({ [name]: event.target.value })}
      />
    </label>
  )
  const day = (name: 'since' | 'until', words: string) => (
    <label className="w-36">
      <span className="label">{words}</span>
      <input
        type="date"
        className="field"
        value={asked[name] ?? ''}
        onChange={(event) => set({ [name]: event.target.value || null })}
      />
    </label>
  )
  const result = asked.method ? `${asked.method} ${asked.accepted === false ? 'bad' : 'ok'}` : null
  const any = Object.entries(asked).some(([name, value]) => name !== 'before' && value !== null && value !== '')
  return (
    <div role="search" aria-label={t`Welds`} className="panel mb-3 flex flex-wrap items-end gap-2 px-3 py-2">
      {text('mark', t`Mark`)}
      {text('welder', t`Welder`)}
      {text('batch', t`Filler batch`)}
      {text('heat', t`Heat number`)}
      <div className="w-36">
        <Labelled words={t`WPS`}>
          <Choice
            label={t`WPS`}
            value={asked.wps ? String(asked.wps) : null}
            none={t`any WPS`}
            options={(wps.data?.procedures ?? []).map((one) => [String(one.revision_id), one.name])}
            onChange={(next: string | null) => set({ wps: next === null ? null : Number(next) })}
          />
        </Labelled>
      </div>
      <div className="w-40">
        <Labelled words={t`State`}>
          <Choice
            label={t`State`}
            value={asked.state || null}
            none={t`any state`}
            options={Object.entries(STATE_WORDS)}
            onChange={(next: WeldsAsked['state'] | null) => set({ state: next ?? '' })}
          />
        </Labelled>
      </div>
      <div className="w-40">
        <Labelled words={t`Result`}>
          <Choice
            label={t`Result`}
            value={result}
            none={t`any result`}
            options={METHODS.flatMap((one) => [
              [`${one} bad`, t`${one} rejected`],
              [`${one} ok`, t`${one} accepted`],
            ])}
            onChange={(next: string | null) => {
              const [method = '', how] = (next ?? '').split(' ')
              set({ method: method as Method | '', accepted: next === null ? null : how === 'ok' })
            }}
          />
        </Labelled>
      </div>
      {day('since', t`Welded since`)}
      {day('until', t`Welded until`)}
      {any && (
        <Button look="quiet" onClick={() => onAsk({})}>
          <Trans>Clear</Trans>
        </Button>
      )}
      <span className="sr-only">{METHODS.map((one) => `${one}: ${METHOD_WORDS[one]}`).join('; ')}</span>
    </div>
  )
}
