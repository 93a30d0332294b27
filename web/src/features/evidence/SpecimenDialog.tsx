import { t } from '@lingui/core/macro'
import { Trans } from '@lingui/react/macro'
import { useMutation, useQueryClient } from '@tanstack/react-query'
import { useState, type FormEvent } from 'react'

import { Refusal, api, unwrap } from '../../api/client'
import type { Evidence, Specimen, Test } from '../../api/types'
import { Button } from '../../ui/Button'
import { Choice } from '../../ui/Choice'
import { Labelled } from '../../ui/Labelled'
import { Modal } from '../../ui/Modal'
import { TextField } from '../../ui/TextField'
import { commitAndSubmit, showWrong } from '../../ui/commit'
import { SpecimenForm, type Draft, type SpecimenPut } from './SpecimenForm'
import { EMPTY_COUNTS, KINDS, KIND_WORDS, OUTCOMES } from './fields'
import { NotSaved } from '../../ui/NotSaved'

type Props = { evidence: Evidence; specimen: Specimen | null; start: Draft; onClose: () => void; locked: boolean }

const FORM = 'specimen'

/** Only what was said: blanks and empty lists are left out, but for lists where empty means "none seen". */
function tidy(draft: Draft): Test {
  const kept = Object.entries(draft).filter(
    ([name, value]) =>
      value !== null &&
      value !== undefined &&
      (!Array.isArray(value) || value.length > 0 || EMPTY_COUNTS.includes(name)),
  )
  return Object.fromEntries(kept) as unknown as Test
}

/** Enter or change one specimen. What was typed stays until it is kept or dropped by a press. */
export function SpecimenDialog({ evidence, specimen, start, onClose, locked }: Props) {
  const queries = useQueryClient()
  const [draft, setDraft] = useState<Draft>(start)
  const [version, setVersion] = useState(specimen?.version ?? 0)
  const [asking, setAsking] = useState(false)
  const [unread, setUnread] = useState(false)
  const done = async () => {
    await Promise.all([
      queries.invalidateQueries({ queryKey: ['evidence'] }),
      queries.invalidateQueries({ queryKey: ['ranges'] }),
    ])
    onClose()
  }
  const save = useMutation({
    mutationFn: (as: number) => {
      const test = tidy(draft) as never
      return specimen
        ? unwrap(
            api.PUT('/api/specimens/{specimen_id}', {
              params: { path: { specimen_id: specimen.id } },
              body: { version: as, test },
            }),
          )
        : unwrap(
            api.POST('/api/coupons/{coupon_id}/specimens', {
              params: { path: { coupon_id: evidence.coupon_id } },
              body: { test },
            }),
          )
    },
    onSuccess: done,
  })
  const remove = useMutation({
    mutationFn: () =>
      unwrap(
        api.DELETE('/api/specimens/{specimen_id}', {
          params: { path: { specimen_id: specimen?.id ?? 0 }, query: { version } },
        }),
      ),
    onSuccess: done,
    onError: () => setAsking(false),
  })
  const refusal = save.error instanceof Refusal ? save.error : null
  const errors = new Map((refusal?.body.errors ?? []).map((one) => [one.path.replace(/^test\./, ''), one.message]))
  const theirs =
    refusal?.body.type === '/problems/stale'
      ? (refusal.body.current as { version: number; test: Draft } | null | undefined)
      : null
  const put: SpecimenPut = (changes) => {
    setUnread(false)
    if (save.isError && !theirs) save.reset()
    setDraft((before) => ({ ...before, ...(typeof changes === 'function' ? changes(before) : changes) }))
  }
  /** A field whose text was not understood keeps the specimen from being saved without it. */
  const submit = (event: FormEvent<HTMLFormElement>) => {
    event.preventDefault()
    const wrong = showWrong(event.currentTarget)
    setUnread(wrong)
    if (!wrong) save.mutate(version)
  }
  const failed = evidence.report.retests.map((one) => [one.specimen, `repeats ${one.specimen}`] as const)
  const discarded = (draft.discarded as { reason?: string } | null | undefined)?.reason ?? null
  return (
    <Modal
      title={specimen ? `${draft.specimen}, ${KIND_WORDS[draft.kind]}` : t`Enter a specimen`}
      open
      onClose={onClose}
      wide
    >
      <form id={FORM} onSubmit={submit} noValidate>
        <div className="mb-3 grid grid-cols-3 gap-x-4 gap-y-2 max-sm:grid-cols-2">
          <Labelled words={t`mark`}>
            <TextField
              label={t`Mark`}
              value={draft.specimen}
              onChange={(mark) => put({ specimen: mark ?? '' })}
              error={errors.get('specimen')}
              disabled={locked}
            />
          </Labelled>
          <Labelled words={t`kind`}>
            <Choice
              label={t`Kind of test`}
              value={draft.kind}
              options={KINDS}
              onChange={(kind) => kind && put({ kind })}
              disabled={locked || specimen !== null}
            />
          </Labelled>
          <Labelled words={t`date`}>
            <TextField
              label={t`Date`}
              placeholder="2026-03-31"
              value={draft.date as string | null | undefined}
              onChange={(date) => put({ date })}
              error={errors.get('date')}
              disabled={locked}
            />
          </Labelled>
        </div>
        <SpecimenForm draft={draft} put={put} errors={errors} disabled={locked} />
        <div className="mt-3 grid grid-cols-3 gap-x-4 gap-y-2 border-t border-line pt-3 max-sm:grid-cols-2">
          {failed.length > 0 && (
            <Labelled words={t`retest`}>
              <Choice
                label={t`Repeats`}
                value={draft.retest_of as string | null | undefined}
                options={failed}
                none={t`no retest`}
                onChange={(mark) => put({ retest_of: mark })}
                disabled={locked}
              />
            </Labelled>
          )}
          {evidence.certificate !== '' && (
            <Labelled words={t`on the certificate`}>
              <Choice
                label={t`Outcome on the certificate`}
                value={draft.certified as string | null | undefined}
                options={OUTCOMES}
                none={t`not stated`}
                onChange={(certified) => put({ certified })}
                disabled={locked}
              />
            </Labelled>
          )}
          <Labelled words={t`does not count, because`}>
            <TextField
              label={t`Discarded because`}
              placeholder={t`it counts`}
              value={discarded}
              onChange={(reason) => put({ discarded: reason ? { reason } : null })}
              disabled={locked}
            />
          </Labelled>
          <Labelled words={t`remarks`}>
            <TextField
              label={t`Remarks`}
              value={draft.remarks as string | null | undefined}
              onChange={(remarks) => put({ remarks })}
              error={errors.get('remarks')}
              disabled={locked}
            />
          </Labelled>
        </div>
      </form>
      <NotSaved
        unread={unread}
        refusal={
          refusal &&
          (!theirs && refusal.body.errors.length > 0
            ? refusal.body.errors
                .map((one) => `${one.path.replace(/^test\./, '').replaceAll('_', ' ')}: ${one.message}`)
                .join('; ')
            : refusal.message)
        }
        conflict={
          theirs
            ? {
                takeTheirs: () => {
                  setDraft(theirs.test)
                  setVersion(theirs.version)
                  save.reset()
                },
                saveMine: () => {
                  setVersion(theirs.version)
                  save.mutate(theirs.version)
                },
              }
            : undefined
        }
        notRemoved={remove.error?.message}
      />
      <div className="mt-4 flex items-center justify-end gap-2">
        {specimen && !asking && !locked && (
          <Button look="quiet" className="mr-auto" onClick={() => setAsking(true)}>
            <Trans>Remove</Trans>
          </Button>
        )}
        {specimen && asking && (
          <span className="mr-auto flex items-center gap-2 text-[13px]">
            <Trans>Entered by mistake?</Trans>
            <Button disabled={remove.isPending} onClick={() => remove.mutate()}>
              <Trans>Remove it</Trans>
            </Button>
            <Button onClick={() => setAsking(false)}>
              <Trans>Keep it</Trans>
            </Button>
          </span>
        )}
        <Button onClick={onClose}>{locked ? t`Close` : t`Not now`}</Button>
        {!locked && (
          <Button look="main" disabled={save.isPending} onClick={() => commitAndSubmit(FORM)}>
            {specimen ? t`Save` : t`Enter it`}
          </Button>
        )}
      </div>
    </Modal>
  )
}
