import { t } from '@lingui/core/macro'
import { Trans } from '@lingui/react/macro'
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import { useEffect, useRef } from 'react'

import { api, unwrap } from '../../api/client'
import { ladderQuery } from '../../queries/training'
import { useSession } from '../../session/session'
import { useUnits } from '../../session/units'
import { Button } from '../../ui/Button'
import { Notice } from '../../ui/Notice'
import { PageTitle } from '../../ui/PageTitle'
import { ExercisePanel } from './ExercisePanel'
import { LadderPanel } from './LadderPanel'
import { Learners } from './Learners'

type Wanted = { stage: string | null; kind: string | null }

/** Short exercises in the order of the trade. What lies open is found again; nothing is compared with others. */
export function TrainingPage() {
  const { may } = useSession()
  const { system } = useUnits()
  const queries = useQueryClient()
  const ladder = useQuery(ladderQuery)
  const take = useMutation({
    mutationFn: (wanted: Wanted) => unwrap(api.POST('/api/training/exercise', { body: { ...wanted, units: system } })),
    onSuccess: () => queries.invalidateQueries({ queryKey: ['training'] }),
  })
  const { mutate } = take
  const exercise = take.data
  const shown = useRef<Wanted>({ stage: null, kind: null })
  useEffect(() => {
    if (exercise) shown.current = { stage: exercise.stage, kind: exercise.kind }
  })
  // What lies open comes by itself, and again in the other units when they are switched.
  useEffect(() => mutate(shown.current), [mutate, system])
  return (
    <div className="px-5 py-4">
      <PageTitle words={t`Training`} className="mb-1" />
      <p className="mb-3 max-w-[90ch] text-[13px] text-steel2">
        <Trans>
          Short exercises in the order of the trade. They teach; they qualify nobody. Each answer is explained with its
          numbers and sources, and comes again when it is due.
        </Trans>
      </p>
      {(ladder.error ?? take.error) && <Notice mark="breach">{(ladder.error ?? take.error)?.message}</Notice>}
      <div className="grid grid-cols-[300px_minmax(0,1fr)] items-start gap-4 max-lg:grid-cols-1">
        {ladder.data && (
          <LadderPanel
            ladder={ladder.data}
            now={exercise ?? null}
            onChoose={(stage, kind) => mutate({ stage, kind })}
          />
        )}
        <div className="grid min-w-0 gap-4">
          {exercise && (
            <ExercisePanel
              key={`${exercise.skill_id}-${exercise.seed}-${system}`}
              exercise={exercise}
              onNext={() => mutate({ stage: null, kind: null })}
            />
          )}
          {exercise && (
            <p className="text-[13px]">
              <Button look="quiet" onClick={() => mutate({ stage: exercise.stage, kind: exercise.kind })}>
                <Trans>Another one of this kind</Trans>
              </Button>
            </p>
          )}
          {may('LEAD_TRAINING') && <Learners />}
        </div>
      </div>
    </div>
  )
}
