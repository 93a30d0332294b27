import { t } from '@lingui/core/macro'
import { useId } from 'react'

import type { ListQuestion } from '../../api/types'
import { Choice } from '../../ui/Choice'
import { answerWords } from './answers'

type Props = { question: ListQuestion; value: string; onChange: (value: string) => void }

/** A question that is answered once for all rows which ask it. */
export function Answer({ question, value, onChange }: Props) {
  const id = useId()
  const { rows, first_row } = question
  const asked = rows === 1 ? t`row ${first_row}` : t`${rows} rows, the first is row ${first_row}`
  const near = question.choices[0]
  const open = question.column === 'metal' || question.column === 'positions' || question.choices.length === 0
  return (
    <li className="grid grid-cols-[minmax(0,1fr)_220px] items-center gap-x-4 gap-y-1 border-b border-line py-1.5 last:border-b-0 max-sm:grid-cols-1">
      <span id={id}>
        {question.message} <span className="text-[13px] text-steel2">{asked}</span>
      </span>
      {open ? (
        <>
          <input
            className="field"
            aria-labelledby={id}
            list={`${id}-near`}
            value={value}
            placeholder={near ? t`such as ${near}` : ''}
            onChange={(event) => onChange(event.target.value)}
          />
          <datalist id={`${id}-near`}>
            {question.choices.map((one) => (
              <option key={one} value={one} />
            ))}
          </datalist>
        </>
      ) : (
        <Choice
          label={question.message}
          value={value || null}
          none={t`choose`}
          options={question.choices.map((one) => [one, answerWords(one)])}
          onChange={(next: string | null) => onChange(next ?? '')}
        />
      )}
    </li>
  )
}
