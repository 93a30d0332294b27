import { plural, t } from '@lingui/core/macro'
import { Trans } from '@lingui/react/macro'
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import { useState } from 'react'

import { Refusal, api, unwrap } from '../../api/client'
import type { BookEntry, BookNumber } from '../../api/types'
import { useSession } from '../../session/session'
import { Button } from '../../ui/Button'
import { Labelled } from '../../ui/Labelled'
import { Modal } from '../../ui/Modal'
import { Notice } from '../../ui/Notice'
import { TextField } from '../../ui/TextField'
import { MarkIcon } from '../../ui/Verdict'
import { useSettled } from '../../ui/useSettled'
import { STATUS, valueText } from './BookPage'
import { inWords } from '../../domain/words'
import { locale } from '../../session/language'

type Said = 'confirm' | 'correct' | 'revert'
const SAID: Record<string, string> = { confirm: t`confirmed`, correct: t`corrected to`, revert: t`put back` }

/** A number as it was entered, of the kind that stands there; undefined where the text is none. */
function valueOf(text: string, like: unknown): unknown {
  if (Array.isArray(like)) {
    const items = text
      .split(',')
      .map((one) => one.trim())
      .filter(Boolean)
    return typeof like[0] === 'number'
      ? items.every((one) => Number.isFinite(Number(one)))
        ? items.map(Number)
        : undefined
      : items
  }
  if (typeof like === 'number') {
    const value = Number(text.replace(',', '.'))
    return text.trim() !== '' && Number.isFinite(value) ? value : undefined
  }
  if (typeof like === 'boolean') return { yes: true, no: false }[text.trim().toLowerCase()]
  return text.trim() === '' ? undefined : text.trim()
}

/** One number of the book: what was said of it, and saying something, with the effect shown first. */
export function NumberDialog({
  number,
  entries,
  standing,
  onClose,
}: {
  number: BookNumber
  entries: BookEntry[]
  standing: BookEntry | undefined
  onClose: () => void
}) {
  const { may } = useSession()
  const queries = useQueryClient()
  const [text, setText] = useState<string | null>(valueText(number.value))
  const [reason, setReason] = useState<string | null>(null)
  const typed = useSettled(text ?? '', 250)
  const value = valueOf(typed, number.entered)
  const changed = value !== undefined && JSON.stringify(value) !== JSON.stringify(number.value)
  const nested =
    number.entered !== null &&
    typeof number.entered === 'object' &&
    (!Array.isArray(number.entered) || typeof number.entered[0] === 'object')
  const effect = useQuery({
    queryKey: ['book', 'preview', number.id, value],
    queryFn: () =>
      unwrap(api.POST('/api/book/preview', { body: { number_id: number.id, said: 'correct', value: value as never } })),
    enabled: changed,
    retry: false,
    staleTime: 0,
  })
  const say = useMutation({
    mutationFn: (said: Said) =>
      unwrap(
        api.POST('/api/book', {
          body: {
            number_id: number.id,
            said,
            value: (said === 'correct' ? valueOf(text ?? '', number.entered) : null) as never,
            reason: reason ?? '',
          },
        }),
      ),
    onSuccess: async () => {
      await queries.invalidateQueries()
      onClose()
    },
  })
  const refusal = say.error instanceof Refusal ? say.error.body : null
  const errorAt = (path: string) => refusal?.errors.find((one) => one.path === path)?.message
  const [row, column] = [number.id.split('/').slice(1, -1).join('/'), number.column]
  return (
    <Modal title={`${row}: ${column.replaceAll('_', ' ')}`} open onClose={onClose}>
      <p className="text-[13px] text-steel2 break-all">{number.id}</p>
      <p className="my-2">
        <Trans>
          Stands as <b>{valueText(number.value)}</b>
        </Trans>
        {number.status === 'corrected' && (
          <>
            <Trans>, entered as {valueText(number.entered)}</Trans>
          </>
        )}
        {number.status === 'confirmed' && (
          <>
            <Trans>, confirmed</Trans>
          </>
        )}
        {number.status !== 'confirmed' && number.status !== 'corrected' && (
          <>
            <Trans>, {STATUS[number.status]}, not confirmed</Trans>
          </>
        )}
        .
      </p>
      {entries.length > 0 && (
        <ul className="mb-3 grid gap-1 text-[13px]">
          {entries.map((one) => (
            <li key={one.id}>
              {one.by} {SAID[one.said]} {one.said === 'correct' && <b>{valueText(one.value)}</b>}: “{one.reason}”{' '}
              <small className="text-steel2">{new Date(one.at).toLocaleDateString(locale())}</small>
            </li>
          ))}
        </ul>
      )}
      {may('CORRECT_BOOK') ? (
        <div className="grid gap-2">
          {!nested && (
            <Labelled words={t`as printed in your copy`}>
              <TextField
                label={t`Value as printed`}
                value={text}
                onChange={setText}
                error={typed !== '' && value === undefined ? t`Wrong type of value` : errorAt('value')}
              />
            </Labelled>
          )}
          <Labelled words={t`what was compared`}>
            <TextField
              label={t`Reason`}
              placeholder={t`own copy, page or clause`}
              value={reason}
              onChange={setReason}
              error={errorAt('reason')}
            />
          </Labelled>
          {changed && effect.data && (
            <Notice
              mark={effect.data.some((one) => one.covered_before && !one.covered_after) ? 'breach' : 'caution'}
              className="text-[13px]"
            >
              {effect.data.length === 0 ? (
                t`No procedure in production changes.`
              ) : (
                <>
                  <b>
                    {plural(effect.data.length, {
                      one: '# procedure in production changes:',
                      other: '# procedures in production change:',
                    })}
                  </b>
                  <ul className="mt-1 grid gap-1">
                    {effect.data.map((one) => (
                      <li key={one.revision_id}>
                        <MarkIcon mark={one.covered_after ? 'holds' : 'breach'} silent /> {one.number} {one.letter},{' '}
                        {inWords(one.stage)}: {one.changes.join('; ') || t`reads differently`}.{' '}
                        {one.covered_after ? t`Still covered.` : t`No longer covered.`}
                      </li>
                    ))}
                  </ul>
                </>
              )}
            </Notice>
          )}
          {say.isError && !errorAt('reason') && !errorAt('value') && (
            <p role="alert" className="text-[13px] text-breach">
              {say.error.message}
            </p>
          )}
          <div className="mt-1 flex flex-wrap justify-end gap-2">
            {standing && standing.said !== 'revert' && (
              <Button look="quiet" className="mr-auto" disabled={say.isPending} onClick={() => say.mutate('revert')}>
                <Trans>Restore original</Trans>
              </Button>
            )}
            <Button disabled={say.isPending || changed} onClick={() => say.mutate('confirm')}>
              <Trans>Confirm it</Trans>
            </Button>
            <Button look="main" disabled={say.isPending || !changed} onClick={() => say.mutate('correct')}>
              <Trans>Correct it</Trans>
            </Button>
          </div>
        </div>
      ) : (
        <p className="text-[13px] text-steel2">
          <Trans>Engineers confirm and correct numbers.</Trans>
        </p>
      )}
    </Modal>
  )
}
