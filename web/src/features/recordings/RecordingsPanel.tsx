import { plural, t } from '@lingui/core/macro'
import { Trans } from '@lingui/react/macro'
import { useQuery, useQueryClient } from '@tanstack/react-query'
import { useRef, useState } from 'react'
import { Link, useNavigate } from 'react-router'

import { Button } from '../../ui/Button'
import { Choice } from '../../ui/Choice'
import { MarkIcon } from '../../ui/Verdict'
import { recordersQuery, recordingsQuery } from '../../queries/recordings'
import { sendFile } from './send'

const WORDS: Record<string, string> = {
  received: t`kept, not read yet`,
  streaming: t`streaming now`,
  asking: t`needs an answer`,
  ready: t`ready`,
  refused: t`could not be read`,
  'set-aside': t`set aside`,
}

/** The recordings of a coupon, and a way to send one. */
export function RecordingsPanel({ couponId, disabled }: { couponId: number; disabled: boolean }) {
  const queries = useQueryClient()
  const go = useNavigate()
  const found = useQuery(recordingsQuery(couponId))
  const recorders = useQuery(recordersQuery)
  const input = useRef<HTMLInputElement>(null)
  const [recorder, setRecorder] = useState<string | null>(null)
  const [share, setShare] = useState<number | null>(null)
  const [error, setError] = useState('')
  const send = async (file: File) => {
    setError('')
    setShare(0)
    try {
      const made = await sendFile(couponId, file, recorder === null ? null : Number(recorder), setShare)
      void queries.invalidateQueries({ queryKey: ['recordings', couponId] })
      void go(`/recordings/${String(made.id)}`)
    } catch (problem) {
      setError(problem instanceof Error ? problem.message : t`It could not be sent.`)
    } finally {
      setShare(null)
      if (input.current) input.current.value = ''
    }
  }
  const devices = (recorders.data ?? []).filter((one) => !one.retired)
  return (
    <section aria-label={t`Recordings`} className="panel p-3">
      <div className="flex flex-wrap items-center justify-between gap-3">
        <h2 className="text-[16px]">
          <Trans>Recordings</Trans>
        </h2>
        {!disabled && (
          <div className="flex items-center gap-2">
            {devices.length > 0 && (
              <div className="w-40">
                <Choice
                  label={t`Recorder`}
                  value={recorder}
                  none={t`any recorder`}
                  options={devices.map((one) => [String(one.id), one.name] as const)}
                  onChange={setRecorder}
                />
              </div>
            )}
            <input
              ref={input}
              type="file"
              className="hidden"
              aria-label={t`Recorder file`}
              onChange={(event) => {
                const file = event.target.files?.[0]
                if (file) void send(file)
              }}
            />
            <Button disabled={share !== null} onClick={() => input.current?.click()}>
              {share === null ? t`Send a file` : share < 1 ? t`Sending ${Math.round(share * 100)} %` : t`Reading …`}
            </Button>
          </div>
        )}
      </div>
      {error && (
        <p role="alert" className="mt-1 text-[13px] text-breach">
          {error}
        </p>
      )}
      <ul className="mt-1 text-[14px]">
        {(found.data ?? []).map((one) => (
          <li key={one.id} className="flex items-baseline gap-2 border-b border-hair py-1 last:border-0">
            <Link className="link min-w-0 truncate" to={`/recordings/${String(one.id)}`}>
              {one.name}
            </Link>
            <span className={one.status === 'streaming' ? 'font-semibold text-accent' : 'text-steel2'}>
              {WORDS[one.status] ?? one.status}
            </span>
            <span className="ml-auto whitespace-nowrap text-[13px] text-steel2">
              {one.faults > 0 && (
                <>
                  <MarkIcon mark="caution" /> <Trans>{one.faults} to look at · </Trans>
                </>
              )}
              {one.taken.length > 0
                ? t`taken as pass ${one.taken.join(', ')}`
                : one.status === 'ready'
                  ? plural(one.passes ?? 0, { one: '# pass found', other: '# passes found' })
                  : ''}
            </span>
          </li>
        ))}
        {found.data?.length === 0 && (
          <li className="py-1 text-steel2">
            <Trans>None yet. Send a recorder’s CSV, TSV or Parquet file, or let a recorder stream.</Trans>
          </li>
        )}
      </ul>
    </section>
  )
}
