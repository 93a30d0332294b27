import { t } from '@lingui/core/macro'
import { Trans } from '@lingui/react/macro'
import { keepPreviousData, useQuery } from '@tanstack/react-query'

import { useUnits } from '../session/units'
import { tensileText } from './tensileText'
import { POSITION_WORDS } from '../domain/words'
import { useSettled } from './useSettled'
import { decodeQuery } from '../queries/calculators'

type Props = { designation: string; disabled: boolean; onTake: (designation: string) => void }

/** What the filler that is typed says of itself, or what may have been meant. */
export function FillerHint({ designation, disabled, onTake }: Props) {
  const units = useUnits()
  const asked = useSettled(designation)
  const found = useQuery({ ...decodeQuery(asked), placeholderData: keepPreviousData })
  const answer = found.data
  if (!answer || !asked.trim()) return null
  if (answer.valid) {
    const facts = [
      answer.product,
      answer.polarities.join(t` or `),
      answer.shielding === 'self' ? t`shields itself` : answer.gases.join(t` or `),
      POSITION_WORDS[answer.positions],
      answer.tensile_mpa != null && `${tensileText(answer, units)} ${units.unit('strength')}`,
    ]
    return <p className="mt-0.5 text-[12px] text-steel2">{facts.filter(Boolean).join(' · ')}</p>
  }
  if (answer.suggestions.length === 0 || disabled) return null
  return (
    <p className="mt-0.5 flex flex-wrap gap-x-2 text-[12px] text-steel2">
      <Trans>take</Trans>
      {answer.suggestions.map((one) => (
        <button key={one} type="button" className="link" onClick={() => onTake(one)}>
          {one}
        </button>
      ))}
    </p>
  )
}
