import { plural, t } from '@lingui/core/macro'
import { Trans } from '@lingui/react/macro'
import { useState } from 'react'

import type { WeldList } from '../../api/types'
import { Button } from '../../ui/Button'
import { Notice } from '../../ui/Notice'
import { Answer } from './Answer'
import { answerWords, askedWords } from './answers'
import { titlesOf } from './columns'
import { useSettings } from './useSettings'

/** What was answered for all rows: seen, and taken back where it was wrong. */
export function Answered({ jobId, list }: { jobId: number; list: WeldList }) {
  const save = useSettings(jobId, list)
  const answers = Object.entries(list.answers)
  const count = answers.length
  const titles = titlesOf(list.columns)
  if (count === 0) return null
  const without = (key: string) => Object.fromEntries(answers.filter(([one]) => one !== key))
  return (
    <details className="mb-2 shrink-0 text-[14px]">
      <summary className="min-h-6 cursor-pointer text-accent">
        {plural(count, { one: '# answer holds for all rows', other: '# answers hold for all rows' })}
      </summary>
      {save.isError && <Notice mark="breach">{save.error.message}</Notice>}
      <ul aria-label={t`Answers`} className="panel mt-1 max-h-48 overflow-auto px-3 py-1">
        {answers.map(([key, answer]) => (
          <li key={key} className="flex min-h-7 items-center gap-3">
            <span className="min-w-0 flex-1 truncate">
              {askedWords(key, titles)} <b>{answerWords(answer)}</b>
            </span>
            <Button
              look="quiet"
              aria-label={t`Take back: ${askedWords(key, titles)}`}
              disabled={save.isPending}
              onClick={() => save.mutate({ answers: without(key) })}
            >
              <Trans>take it back</Trans>
            </Button>
          </li>
        ))}
      </ul>
    </details>
  )
}

/** What the list leaves to be answered once for all of its rows. */
export function Questions({ jobId, list }: { jobId: number; list: WeldList }) {
  const [answers, setAnswers] = useState<Record<string, string>>({})
  const given = Object.entries(answers).filter(([, text]) => text.trim() !== '')
  const save = useSettings(jobId, list, () => setAnswers({}))
  return (
    <section aria-label={t`Questions`} className="panel mb-3 max-h-64 shrink-0 overflow-auto p-3">
      <div className="mb-1 flex items-baseline justify-between">
        <h2 className="font-head text-[17px] font-semibold">
          <Trans>Asked once for all rows</Trans>
        </h2>
        <Button
          look="main"
          disabled={given.length === 0 || save.isPending}
          onClick={() => save.mutate({ answers: { ...list.answers, ...Object.fromEntries(given) } })}
        >
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
