import { plural, t } from '@lingui/core/macro'
import { Trans } from '@lingui/react/macro'
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import { useState } from 'react'

import { Refusal, api, unwrap } from '../../api/client'
import { errorsOf } from '../../api/errors'
import type { JointToLog, Weld, WeldIn } from '../../api/types'
import { newId } from '../../domain/ids'
import { weldersQuery } from '../../queries/crew'
import { outboxOfWelds, writer } from '../../session/sending'
import { useSession } from '../../session/session'
import { Button } from '../../ui/Button'
import { Choice } from '../../ui/Choice'
import { Labelled } from '../../ui/Labelled'
import { NamedWelders } from '../../ui/NamedWelders'
import { Notice } from '../../ui/Notice'
import { TextField } from '../../ui/TextField'
import { useSettled } from '../../ui/useSettled'
import { namesOf } from './names'
import { NamesField } from './NamesField'
import { PassValues } from './PassValues'
import { passesOf, type PassCells } from './passCells'
import { today } from './states'

type Props = { jobId: number; joint: JointToLog; repaired: Weld | null }

/** The entry of a weld. On a refusal everything typed stays; sent twice it is one weld. */
export function WeldForm({ jobId, joint, repaired }: Props) {
  const { person } = useSession()
  const queries = useQueryClient()
  const [form, setForm] = useState({
    item: repaired ? repaired.item : (joint.left[0] ?? 1),
    revisionId: joint.assigned ?? joint.wps[0]?.revision_id ?? 0,
    // Offered and not filled in: what is there already is not looked at again.
    welders: person.role === 'welder' ? person.name : '',
    batches: '',
    heats: '',
    weldedOn: today(),
    remarks: '',
  })
  const [cells, setCells] = useState<PassCells[]>([])
  const [clientId, setClientId] = useState(() => newId())
  const set = (changed: Partial<typeof form>) => setForm((now) => ({ ...now, ...changed }))
  const outbox = outboxOfWelds(jobId, queries)
  const save = useMutation({
    mutationFn: async () => {
      const body: WeldIn = {
        client_id: clientId,
        mark: joint.mark,
        item: form.item,
        revision_id: form.revisionId,
        welders: namesOf(form.welders),
        batches: namesOf(form.batches),
        heats: namesOf(form.heats),
        welded_on: form.weldedOn,
        passes: passesOf(cells),
        remarks: form.remarks,
        repair_of: repaired?.id ?? null,
        person_id: person.id,
      }
      try {
        await unwrap(api.POST('/api/jobs/{job_id}/welds', { params: { path: { job_id: jobId } }, body }))
      } catch (error) {
        if (!(error instanceof Refusal && error.passing)) throw error
        // Without an answer the entry waits on this device, under the same id: it is never entered twice.
        const savedAt = new Date().toISOString()
        outbox.add({ clientId, by: writer(queries), savedAt, refused: null, entry: body })
      }
    },
    onSuccess: () => {
      setClientId(newId())
      void queries.invalidateQueries({ queryKey: ['welds'] })
    },
  })
  const names = useSettled(namesOf(form.welders), 250)
  const welders = useQuery({
    ...weldersQuery(jobId, joint.mark, form.revisionId, form.weldedOn, names),
    enabled: names.length > 0 && form.revisionId > 0 && form.weldedOn !== '',
  })
  const problems = save.error instanceof Refusal ? save.error.body.errors : []
  const error = errorsOf(save.error)
  const { mark } = joint
  const item = String(form.item)
  return (
    <form
      className="panel grid gap-3 px-3 py-3"
      aria-label={t`Log a weld`}
      onSubmit={(event) => {
        event.preventDefault()
        save.mutate()
      }}
    >
      <h2 className="font-head text-[17px] font-semibold">
        {repaired ? t`Repair of ${mark} / ${item}` : t`Log weld ${item} of ${mark}`}
      </h2>
      <div className="grid grid-cols-2 gap-3">
        {!repaired && joint.left.length > 1 && (
          <Labelled words={t`Weld`}>
            <Choice
              label={t`Weld`}
              value={item}
              options={joint.left.map((one) => [String(one), t`${one} of ${joint.count}`])}
              onChange={(next: string | null) => next && set({ item: Number(next) })}
            />
          </Labelled>
        )}
        <label>
          <span className="label">{t`Welded on`}</span>
          <input
            type="date"
            required
            className={`field ${error('welded_on') ? 'border-breach!' : ''}`}
            value={form.weldedOn}
            onChange={(event) => set({ weldedOn: event.target.value })}
          />
          {error('welded_on') && (
            <span role="alert" className="text-[12px] text-breach">
              {error('welded_on')}
            </span>
          )}
        </label>
      </div>
      <Labelled words={t`WPS`}>
        <Choice
          label={t`WPS`}
          path="revision_id"
          value={form.revisionId ? String(form.revisionId) : null}
          options={joint.wps.map((one) => [
            String(one.revision_id),
            one.released ? one.name : t`${one.name}, no longer released`,
          ])}
          onChange={(next: string | null) => next && set({ revisionId: Number(next) })}
        />
        {error('revision_id') && (
          <span role="alert" className="text-[12px] text-breach">
            {error('revision_id')}
          </span>
        )}
      </Labelled>
      <NamesField
        label={t`Welders`}
        path="welders"
        value={form.welders}
        offered={joint.welders}
        error={error('welders')}
        onChange={(welders) => set({ welders })}
      />
      {welders.data && (
        <NamedWelders
          found={welders.data}
          note={t`What was welded is logged all the same; it is not released while somebody named was not qualified.`}
        />
      )}
      <NamesField
        label={t`Filler batches`}
        path="batches"
        value={form.batches}
        offered={joint.batches}
        error={error('batches')}
        onChange={(batches) => set({ batches })}
      />
      <NamesField
        label={t`Heat numbers of the metal`}
        path="heats"
        value={form.heats}
        offered={joint.heats}
        error={error('heats')}
        onChange={(heats) => set({ heats })}
      />
      <PassValues cells={cells} onChange={setCells} errors={problems} />
      <Labelled words={t`Remarks`}>
        <TextField
          label={t`Remarks`}
          value={form.remarks}
          rows={2}
          onChange={(remarks) => set({ remarks: remarks ?? '' })}
        />
      </Labelled>
      {save.isError && <Notice mark="breach">{save.error.message}</Notice>}
      <Button type="submit" look="main" className="min-h-11" disabled={save.isPending}>
        {save.isPending ? t`Saving …` : repaired ? t`Log the repair` : t`Log this weld`}
      </Button>
      {joint.left.length > 1 && !repaired && (
        <p className="text-[13px] text-steel2">
          {plural(joint.left.length, {
            one: '# weld of this joint is left.',
            other: '# welds of this joint are left.',
          })}
        </p>
      )}
      <p className="text-[12.5px] text-steel2">
        <Trans>An entry is not rewritten: a wrong one is struck with a reason, and the weld logged anew.</Trans>
      </p>
    </form>
  )
}
