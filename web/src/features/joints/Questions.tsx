import { t } from '@lingui/core/macro'
import { Trans } from '@lingui/react/macro'
import { useMutation, useQueryClient } from '@tanstack/react-query'
import { useState } from 'react'

import { api, unwrap } from '../../api/client'
import type { WeldList } from '../../api/types'
import { weldListQuery } from '../../queries/joints'
import { Button } from '../../ui/Button'
import { Notice } from '../../ui/Notice'
import { Answer } from './Answer'

/** What the list leaves to be answered once for all of its rows. */
export function Questions({ jobId, list }: { jobId: number; list: WeldList }) {
  const queries = useQueryClient()
  const [answers, setAnswers] = useState<Record<string, string>>({})
  const given = Object.entries(answers).filter(([, text]) => text.trim() !== '')
  const save = useMutation({
    mutationFn: () =>
      unwrap(
        api.PUT('/api/jobs/{job_id}/weld-list', {
          params: { path: { job_id: jobId } },
          body: {
            version: list.version,
            code: list.code,
            shop: list.shop,
            prices: list.prices,
            answers: { ...list.answers, ...Object.fromEntries(given) },
          },
        }),
      ),
    onSuccess: (next) => {
      setAnswers({})
      queries.setQueryData(weldListQuery(jobId).queryKey, next)
    },
  })
  return (
    <section aria-label={t`Questions`} className="panel mb-3 max-h-64 shrink-0 overflow-auto p-3">
      <div className="mb-1 flex items-baseline justify-between">
        <h2 className="font-head text-[17px] font-semibold">
          <Trans>Asked once for all rows</Trans>
        </h2>
        <Button look="main" disabled={given.length === 0 || save.isPending} onClick={() => save.mutate()}>
          <Trans>Answer</Trans>
        </Button>
      </div>
      {save.isError && <Notice mark="breach">{save.error.message}</Notice>}
      <ul>
        {list.questions.map((one) => (
          <Answer
            key={one.key}
            question={one}
            value={answers[one.key] ?? ''}
            onChange={(text) => setAnswers((all) => ({ ...all, [one.key]: text }))}
          />
        ))}
      </ul>
    </section>
  )
}
