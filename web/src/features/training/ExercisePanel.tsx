import { plural, t } from '@lingui/core/macro'
import { Trans } from '@lingui/react/macro'
import { useMutation, useQueryClient } from '@tanstack/react-query'
import { useState } from 'react'

import { api, unwrap } from '../../api/client'
import type { TrainingExercise, TrainingFeedback } from '../../api/types'
import { locale } from '../../session/language'
import { useUnits } from '../../session/units'
import { Button } from '../../ui/Button'
import { Notice } from '../../ui/Notice'
import { QuantityField } from '../../ui/QuantityField'
import { commitAndSubmit, showWrong } from '../../ui/commit'
import { MarkIcon } from '../../ui/Verdict'
import { BeadDrawing, TracePanel, halfOf } from '../bead'

type Props = { exercise: TrainingExercise; onNext: () => void }

const FORM = 'exercise-answer'

/** One exercise: what is given, the answer, and then why. */
export function ExercisePanel({ exercise, onNext }: Props) {
  const queries = useQueryClient()
  const { system } = useUnits()
  const [keys, setKeys] = useState<readonly string[]>([])
  const [number, setNumber] = useState<number | null>(null)
  const send = useMutation({
    mutationFn: () =>
      unwrap(
        api.POST('/api/training/answer', {
          body: { skill_id: exercise.skill_id, seed: exercise.seed, keys: [...keys], number, units: system },
        }),
      ),
    onSuccess: () => queries.invalidateQueries({ queryKey: ['training'] }),
  })
  const told = send.data
  const complete = exercise.number_kind ? number !== null : keys.length === exercise.choose
  const choose = (key: string) => {
    if (exercise.choose === 1) setKeys([key])
    else setKeys(keys.includes(key) ? keys.filter((one) => one !== key) : [...keys, key])
  }
  return (
    <section className="panel p-4" aria-labelledby="exercise">
      <p className="label">{exercise.title}</p>
      <h2 id="exercise" className="mb-2 text-[18px]">
        {exercise.question}
      </h2>
      {exercise.given.length > 0 && (
        <dl className="mb-3 grid grid-cols-[max-content_1fr] gap-x-4 gap-y-0.5 text-[14px]">
          {exercise.given.map((one) => (
            <div key={one.name} className="contents">
              <dt className="text-steel2">{one.name}</dt>
              <dd>{one.words}</dd>
            </div>
          ))}
        </dl>
      )}
      {exercise.picture && (
        <BeadDrawing picture={exercise.picture} tint={undefined} half={halfOf(exercise.picture)} grid />
      )}
      {exercise.trace && <TracePanel trace={exercise.trace} />}
      <form
        id={FORM}
        onSubmit={(event) => {
          event.preventDefault()
          // An answer that is kept for good is never the one before what was typed last.
          if (event.currentTarget.querySelector('[aria-busy="true"]')) commitAndSubmit(FORM)
          else if (complete && !told && !showWrong(event.currentTarget)) send.mutate()
        }}
      >
        {exercise.number_kind ? (
          <div className="w-60">
            <QuantityField
              label={t`Answer`}
              kind={exercise.number_kind}
              value={number}
              onChange={setNumber}
              disabled={told !== undefined}
            />
          </div>
        ) : (
          <fieldset disabled={told !== undefined}>
            <legend className="label mb-1">
              {exercise.choose === 1 ? t`Choose one` : t`Choose ${exercise.choose}`}
            </legend>
            <ul className="grid gap-1">
              {exercise.options.map((one) => (
                <Choice
                  key={one.key}
                  option={one}
                  many={exercise.choose > 1}
                  chosen={keys.includes(one.key)}
                  told={told}
                  onChoose={() => choose(one.key)}
                />
              ))}
            </ul>
          </fieldset>
        )}
        {!told && (
          <Button type="submit" look="main" className="mt-3" disabled={!complete || send.isPending}>
            <Trans>Answer</Trans>
          </Button>
        )}
      </form>
      {send.isError && (
        <Notice mark="breach" className="mt-3">
          {send.error.message}
        </Notice>
      )}
      {told && <Told told={told} onNext={onNext} />}
      {exercise.caution && <p className="mt-4 max-w-[80ch] text-[13px] text-caution">{exercise.caution}</p>}
    </section>
  )
}

type ChoiceProps = {
  option: TrainingExercise['options'][number]
  many: boolean
  chosen: boolean
  told: TrainingFeedback | undefined
  onChoose: () => void
}

function Choice({ option, many, chosen, told, onChoose }: ChoiceProps) {
  const right = told?.keys.includes(option.key)
  const look = told ? (right ? 'border-holds bg-accent-soft' : chosen ? 'border-breach' : 'border-line') : 'border-line'
  return (
    <li>
      <label className={`flex items-center gap-2 rounded-sm border px-3 py-1.5 text-[15px] ${look}`}>
        <input type={many ? 'checkbox' : 'radio'} name="answer" checked={chosen} onChange={onChoose} />
        <span className="flex-1">{option.words}</span>
        {right && (
          <span className="text-[13px] text-holds">
            <MarkIcon mark="holds" /> <Trans>right</Trans>
          </span>
        )}
      </label>
    </li>
  )
}

function Told({ told, onNext }: { told: TrainingFeedback; onNext: () => void }) {
  const minutes = told.due_in_min
  const again =
    minutes < 120
      ? plural(minutes, {
          one: 'This kind comes again in # minute.',
          other: 'This kind comes again in # minutes.',
        })
      : t`This kind comes again on ${new Date(told.due).toLocaleDateString(locale())}.`
  return (
    <div className="mt-3 border-t border-hair pt-3 text-[14px]" role="status">
      <p className="font-semibold">
        <MarkIcon mark={told.right ? 'holds' : 'breach'} />{' '}
        {told.right ? t`Right.` : told.score > 0 ? t`Right in part.` : t`Not right.`} {t`Answer: ${told.solution}`}
      </p>
      <ul className="mt-1 max-w-[80ch]">
        {told.because.map((one) => (
          <li key={one}>{one}</li>
        ))}
      </ul>
      <p className="mt-1 text-[12px] text-steel2">{told.sources.join('; ')}</p>
      <p className="mt-1 text-[13px] text-steel2">{again}</p>
      <Button look="main" className="mt-3" autoFocus onClick={onNext}>
        <Trans>Next exercise</Trans>
      </Button>
    </div>
  )
}
