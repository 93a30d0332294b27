import { t } from '@lingui/core/macro'
import { Trans } from '@lingui/react/macro'
import { useMutation, useQueryClient } from '@tanstack/react-query'
import { useState } from 'react'

import { api, unwrap } from '../../api/client'
import { errorsOf } from '../../api/errors'
import type { WeldDetail } from '../../api/types'
import { newId } from '../../domain/ids'
import { useSession } from '../../session/session'
import { Button } from '../../ui/Button'
import { Choice } from '../../ui/Choice'
import { Labelled } from '../../ui/Labelled'
import { Notice } from '../../ui/Notice'
import { TextField } from '../../ui/TextField'
import { METHODS, METHOD_WORDS, today, type Method } from './states'

/** The entry of a result: the method, accepted or not, and what was found. */
export function ResultForm({ weld }: { weld: WeldDetail }) {
  const { person } = useSession()
  const queries = useQueryClient()
  const [form, setForm] = useState({
    method: 'VT' as Method,
    inspector: person.name,
    inspectedOn: today(),
    report: '',
    found: '',
  })
  const [clientId] = useState(() => newId())
  const set = (changed: Partial<typeof form>) => setForm((now) => ({ ...now, ...changed }))
  const save = useMutation({
    mutationFn: (accepted: boolean) =>
      unwrap(
        api.POST('/api/welds/{weld_id}/results', {
          params: { path: { weld_id: weld.id } },
          body: {
            client_id: clientId,
            method: form.method,
            accepted,
            inspector: form.inspector,
            inspected_on: form.inspectedOn,
            report: form.report,
            found: form.found,
          },
        }),
      ),
    onSuccess: () => queries.invalidateQueries({ queryKey: ['welds'] }),
  })
  const error = errorsOf(save.error)
  return (
    <form
      className="panel grid gap-3 px-3 py-3"
      aria-label={t`Enter a result`}
      onSubmit={(event) => event.preventDefault()}
    >
      <h2 className="font-head text-[17px] font-semibold">
        <Trans>Enter a result</Trans>
      </h2>
      <div className="grid grid-cols-4 gap-3 max-sm:grid-cols-2">
        <Labelled words={t`Method of testing`}>
          <Choice
            label={t`Method of testing`}
            value={form.method}
            options={METHODS.map((one) => [one, METHOD_WORDS[one]])}
            onChange={(next: Method | null) => next && set({ method: next })}
          />
        </Labelled>
        <Labelled words={t`Inspector`}>
          <TextField
            label={t`Inspector`}
            value={form.inspector}
            error={error('inspector')}
            onChange={(inspector) => set({ inspector: inspector ?? '' })}
          />
        </Labelled>
        <label>
          <span className="label">{t`Inspected on`}</span>
          <input
            type="date"
            required
            className={`field ${error('inspected_on') ? 'border-breach!' : ''}`}
            value={form.inspectedOn}
            onChange={(event) => set({ inspectedOn: event.target.value })}
          />
          {error('inspected_on') && (
            <span role="alert" className="text-[12px] text-breach">
              {error('inspected_on')}
            </span>
          )}
        </label>
        <Labelled words={t`Report`}>
          <TextField label={t`Report`} value={form.report} onChange={(report) => set({ report: report ?? '' })} />
        </Labelled>
      </div>
      <Labelled words={t`What was found, and where`}>
        <TextField
          label={t`What was found, and where`}
          value={form.found}
          rows={2}
          error={error('found')}
          onChange={(found) => set({ found: found ?? '' })}
        />
      </Labelled>
      {save.isError && <Notice mark="breach">{save.error.message}</Notice>}
      <div className="flex gap-3">
        <Button disabled={save.isPending} onClick={() => save.mutate(true)}>
          <Trans>Accepted</Trans>
        </Button>
        <Button disabled={save.isPending} onClick={() => save.mutate(false)}>
          <Trans>Rejected</Trans>
        </Button>
      </div>
    </form>
  )
}
