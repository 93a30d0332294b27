import { t } from '@lingui/core/macro'
import { Trans } from '@lingui/react/macro'
import { useState } from 'react'

import { pathWords } from '../../domain/fieldWords'
import type { Theirs } from '../../domain/draftKeeper'
import type { Clash } from '../../domain/merge'
import { Button } from '../../ui/Button'
import { Modal } from '../../ui/Modal'
import { locale } from '../../session/language'

type Props = { clashes: readonly Clash[]; theirs: Theirs; onSettle: (choice: 'theirs' | ReadonlySet<string>) => void }

/** Two people changed the same fields: each is chosen by itself, everything else is merged already. */
export function ConflictDialog({ clashes, theirs, onSettle }: Props) {
  const [chosen, setChosen] = useState<ReadonlySet<string>>(new Set())
  const time = new Date(theirs.saved_at).toLocaleTimeString(locale(), { hour: '2-digit', minute: '2-digit' })
  const take = (path: string, isTheirs: boolean) => {
    const next = new Set(chosen)
    if (isTheirs) next.add(path)
    else next.delete(path)
    setChosen(next)
  }
  return (
    <Modal title={t`Two people changed the same fields`} open onClose={() => undefined} wide>
      <p className="mb-3 text-steel">
        <Trans>
          {theirs.saved_by} saved this draft at {time}, after you opened it. What only one of you changed is merged.
          Choose for
        </Trans>{' '}
        {clashes.length === 1 ? t`this field` : t`these ${clashes.length} fields`}:
      </p>
      <div className="mb-4 max-h-80 overflow-auto border border-line">
        <table className="w-full text-[13px]">
          <thead className="label bg-paper text-left">
            <tr>
              <th className="px-2 py-1">
                <Trans>Field</Trans>
              </th>
              <th className="px-2 py-1">
                <Trans>Yours</Trans>
              </th>
              <th className="px-2 py-1">
                <Trans>As saved by {theirs.saved_by}</Trans>
              </th>
            </tr>
          </thead>
          <tbody>
            {clashes.map((one) => (
              <tr key={one.path} className="border-t border-hair">
                <td className="px-2 py-1 text-steel">{pathWords(one.path)}</td>
                {[false, true].map((isTheirs) => (
                  <td key={String(isTheirs)} className="px-2 py-1 [overflow-wrap:anywhere]">
                    <label className="flex min-h-8 cursor-pointer items-center gap-2">
                      <input
                        type="radio"
                        name={one.path}
                        className="size-4"
                        checked={chosen.has(one.path) === isTheirs}
                        onChange={() => take(one.path, isTheirs)}
                        aria-label={`${pathWords(one.path)}: ${isTheirs ? 'theirs' : 'mine'}`}
                      />
                      <span>{saidAt(one.path, isTheirs ? one.theirs : one.mine)}</span>
                    </label>
                  </td>
                ))}
              </tr>
            ))}
          </tbody>
        </table>
      </div>
      <div className="flex justify-end gap-2">
        <Button onClick={() => onSettle('theirs')}>
          <Trans>Take theirs, drop all of mine</Trans>
        </Button>
        <Button look="main" onClick={() => onSettle(chosen)}>
          <Trans>Save it like this</Trans>
        </Button>
      </div>
    </Modal>
  )
}

/** Of a whole row, and of one that a side does not have. */
function saidAt(path: string, value: unknown): string {
  return value == null && /\.\d+$/.test(path) ? t`not in the list` : said(value)
}

const UNSAID = new Set(['id', 'number', 'sources'])

function said(value: unknown): string {
  if (value === null || value === undefined) return '—'
  if (Array.isArray(value)) return t`${value.length} of them`
  if (typeof value === 'object')
    return Object.entries(value as Record<string, unknown>)
      .filter(([key, one]) => one != null && !UNSAID.has(key))
      .map(([key, one]) => `${pathWords(key)} ${said(one)}`)
      .join(', ')
  return typeof value === 'string' || typeof value === 'number' || typeof value === 'boolean' ? String(value) : '—'
}
