import { t } from '@lingui/core/macro'
import { Trans } from '@lingui/react/macro'
import { useMutation, useQueryClient } from '@tanstack/react-query'
import { useRef, useState } from 'react'
import { Refusal, api, unwrap } from '../../api/client'
import type { Trial } from '../../api/types'
import { useUsage } from '../../session/terms'
import { gasText } from '../../domain/procedure'
import { POSITIONS, TRANSFERS, processOptions } from '../../domain/words'
import { Button } from '../../ui/Button'
import { Choice } from '../../ui/Choice'
import { GasField } from '../../ui/GasField'
import { Labelled } from '../../ui/Labelled'
import { Modal } from '../../ui/Modal'
import { showWrong, useSaveWhenRead } from '../../ui/commit'
import { QuantityField } from '../../ui/QuantityField'
import { TextField } from '../../ui/TextField'

type Draft = Partial<Omit<Trial, 'filler' | 'verdict' | 'thickness_mm'>> & {
  thickness_mm?: number | null
  filler: NonNullable<Trial['filler']>
  verdict: Trial['verdict']
}

export function TrialDialog({ onClose }: { onClose: () => void }) {
  const queries = useQueryClient()
  const usage = useUsage(null)
  const [trial, setTrial] = useState<Draft>({ filler: {}, verdict: 'kept' })
  const put = (changes: Partial<Draft>) => setTrial((before) => ({ ...before, ...changes }))
  const enter = useMutation({
    mutationFn: (document: Trial) => unwrap(api.POST('/api/trials', { body: { trial: document } })),
    onSuccess: () => {
      void queries.invalidateQueries({ queryKey: ['trials'] })
      void queries.invalidateQueries({ queryKey: ['propose'] })
      onClose()
    },
  })
  const { process, position, thickness_mm } = trial
  const whole: Trial | null =
    process && position && thickness_mm != null ? { ...trial, process, position, thickness_mm } : null
  const refusal = enter.error instanceof Refusal ? enter.error : null
  const errors = new Map(
    (refusal?.body.errors ?? []).map((one) => [one.path.split('.').slice(-1)[0] ?? '', one.message]),
  )
  const form = useRef<HTMLFormElement>(null)
  const save = useSaveWhenRead(form, () => {
    if (form.current && !showWrong(form.current) && whole) enter.mutate(whole)
  })
  return (
    <Modal title={t`Log a trial`} open onClose={onClose} wide>
      <form
        ref={form}
        className="grid gap-3"
        onSubmit={(event) => {
          event.preventDefault()
          save()
        }}
      >
        <div className="grid grid-cols-4 gap-x-3 gap-y-2">
          <Labelled words={t`Process`} wide>
            <Choice<Trial['process']>
              label={t`Process`}
              value={process}
              options={processOptions(usage)}
              onChange={(next) => next && put({ process: next })}
            />
          </Labelled>
          <Labelled words={t`Filler`}>
            <TextField
              label={t`Filler`}
              value={trial.filler.designation}
              onChange={(designation) =>
                setTrial((before) => ({ ...before, filler: { ...before.filler, designation } }))
              }
              placeholder={t`ER70S-6`}
              error={errors.get('designation')}
            />
          </Labelled>
          <Labelled words={t`Diameter`}>
            <QuantityField
              label={t`Diameter`}
              kind="wire_diameter"
              value={trial.filler.diameter_mm}
              onChange={(diameter_mm) =>
                setTrial((before) => ({ ...before, filler: { ...before.filler, diameter_mm } }))
              }
            />
          </Labelled>
          <Labelled words={t`Gas`}>
            <GasField
              label={t`Gas`}
              value={null}
              onChange={(shares) => put({ gas: shares ? gasText(shares) : null })}
            />
          </Labelled>
          <Labelled words={t`Transfer`}>
            <Choice<NonNullable<Trial['transfer']>>
              label={t`Transfer`}
              value={trial.transfer}
              none={t`not stated`}
              options={TRANSFERS}
              onChange={(transfer) => put({ transfer })}
            />
          </Labelled>
          <Labelled words={t`Position`}>
            <Choice<Trial['position']>
              label={t`Position`}
              value={position}
              options={POSITIONS}
              onChange={(next) => next && put({ position: next })}
            />
          </Labelled>
          <Labelled words={t`Thickness`}>
            <QuantityField
              label={t`Thickness`}
              kind="thickness"
              metal="steel"
              value={thickness_mm}
              onChange={(next) => put({ thickness_mm: next })}
            />
          </Labelled>
          <Labelled words={t`Amps`}>
            <QuantityField
              label={t`Amps`}
              kind="current"
              value={trial.current_a}
              onChange={(current_a) => put({ current_a })}
              error={errors.get('current_a')}
            />
          </Labelled>
          <Labelled words={t`Volts`}>
            <QuantityField
              label={t`Volts`}
              kind="voltage"
              value={trial.voltage_v}
              onChange={(voltage_v) => put({ voltage_v })}
            />
          </Labelled>
          <Labelled words={t`Wire feed`}>
            <QuantityField
              label={t`Wire feed`}
              kind="wire_feed"
              value={trial.wire_feed_m_min}
              onChange={(wire_feed_m_min) => put({ wire_feed_m_min })}
            />
          </Labelled>
          <Labelled words={t`Travel`}>
            <QuantityField
              label={t`Travel`}
              kind="travel"
              value={trial.travel_mm_min}
              onChange={(travel_mm_min) => put({ travel_mm_min })}
            />
          </Labelled>
        </div>
        <div className="grid grid-cols-[minmax(0,1fr)_140px] gap-3">
          <Labelled words={t`What was seen`}>
            <TextField
              label={t`What was seen`}
              value={trial.seen}
              onChange={(seen) => put({ seen })}
              placeholder={t`even, toes wetted, no spatter`}
            />
          </Labelled>
          <Labelled words={t`Verdict`}>
            <Choice<Trial['verdict']>
              label={t`Verdict`}
              value={trial.verdict}
              options={[
                ['kept', t`kept`],
                ['rejected', t`rejected`],
              ]}
              onChange={(verdict) => verdict && put({ verdict })}
            />
          </Labelled>
        </div>
        {enter.isError && (
          <p role="alert" className="text-[13px] text-breach">
            {refusal
              ? refusal.body.errors.map((one) => one.message).join('; ') || refusal.message
              : enter.error.message}
          </p>
        )}
        <div className="flex items-center justify-end gap-2">
          {!whole && (
            <span className="mr-auto text-[13px] text-steel2">
              <Trans>Needed: process, position, thickness.</Trans>
            </span>
          )}
          <Button onClick={onClose}>
            <Trans>Not now</Trans>
          </Button>
          <Button look="main" type="submit" disabled={!whole || enter.isPending}>
            <Trans>Keep the trial</Trans>
          </Button>
        </div>
      </form>
    </Modal>
  )
}
