import { t } from '@lingui/core/macro'
import { Trans } from '@lingui/react/macro'
import { useQuery } from '@tanstack/react-query'

import { inWords } from '../../domain/words'
import { learnersQuery } from '../../queries/training'
import { fixed, locale } from '../../session/language'

/** How each person stands, by name: for whoever leads the training, and no ranking. */
export function Learners() {
  const people = useQuery(learnersQuery)
  if (!people.data?.length) return null
  return (
    <section className="panel p-3" aria-labelledby="learners">
      <h2 id="learners" className="mb-1 text-[17px]">
        <Trans>Who trains</Trans>
      </h2>
      <table className="w-full text-left text-[13px]">
        <thead className="label">
          <tr>
            {[t`Name`, t`Rung`, t`Mastered`, t`Answers`, t`Right`, t`Due again`, t`Last`].map((words) => (
              <th key={words} className="py-1 font-medium">
                {words}
              </th>
            ))}
          </tr>
        </thead>
        <tbody className="tabular-nums">
          {people.data.map((one) => (
            <tr key={one.name} className="border-t border-hair">
              <td className="py-1">
                {one.name}, {inWords(one.role)}
              </td>
              <td>{one.stage}</td>
              <td>{t`${one.held} of ${one.of}`}</td>
              <td>{one.answered}</td>
              <td>{fixed((100 * one.points) / one.answered, 0)} %</td>
              <td>{one.due}</td>
              <td>{one.last_at ? new Date(one.last_at).toLocaleDateString(locale()) : ''}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </section>
  )
}
