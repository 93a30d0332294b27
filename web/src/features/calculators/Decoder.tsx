import { t } from '@lingui/core/macro'
import { Trans } from '@lingui/react/macro'
import { keepPreviousData, useQuery } from '@tanstack/react-query'
import { useState } from 'react'

import type { Decoded } from '../../api/types'
import { useUnits } from '../../session/units'
import { POSITION_WORDS } from '../../domain/words'
import { Sources } from '../../ui/Sources'
import { TextField } from '../../ui/TextField'
import { MarkIcon } from '../../ui/Verdict'
import { useSettled } from '../../ui/useSettled'
import { Card, Fact, Spellings } from './Card'
import { decodeQuery } from '../../queries/calculators'

const EXAMPLES = ['E71T-1M-JH8', 'E7018-1 H4R', 'ER308LSi', 'T 46 4 P M21 1 H5', 'E 42 4 B 32 H5']

/** What a filler designation says. */
export function Decoder() {
  const [text, setText] = useState<string | null>(null)
  const asked = useSettled(text ?? '')
  const found = useQuery({ ...decodeQuery(asked), placeholderData: keepPreviousData })
  const answer = asked.trim() ? found.data : undefined
  return (
    <Card title={t`Filler designation`}>
      <TextField label={t`Filler designation`} value={text} onChange={setText} placeholder="E71T-1M" />
      {!answer && <Spellings words={t`for example`} options={EXAMPLES} onTake={setText} />}
      {found.isError && (
        <p role="alert" className="mt-1 text-[13px] text-breach">
          {found.error.message}
        </p>
      )}
      {answer && !answer.valid && (
        <div role="status" className="mt-2 text-[13px]">
          <p className="flex items-start gap-1.5">
            <span className="mt-1">
              <MarkIcon mark="unknown" />
            </span>
            {answer.reason}
          </p>
          <Spellings words={t`take`} options={answer.suggestions} onTake={setText} />
        </div>
      )}
      {answer?.valid && <Meaning one={answer} />}
    </Card>
  )
}

function Meaning({ one }: { one: Decoded }) {
  const units = useUnits()
  const impact =
    one.impact_j == null || one.impact_c == null
      ? t`none in the class, or not known here`
      : t`${one.impact_j} J at ${units.value(one.impact_c, 'temperature')} ${units.unit('temperature')}`
  const shielding = { gas: t`gas`, self: t`shields itself`, either: t`agreed`, none: t`its covering` }[one.shielding]
  return (
    <div className="mt-2">
      <p className="flex flex-wrap items-baseline gap-x-3">
        <b className="font-head text-[20px]">{one.designation}</b>
        <span className="text-[13px] text-steel2">
          {one.system} · {one.product} · {one.processes.join(t` or `)}
        </span>
      </p>
      <ol aria-label={t`Parts`} className="my-2 flex flex-wrap gap-1.5">
        {one.meaning.map((token, index) => (
          <li
            key={index}
            className="max-w-52 rounded-sm border border-line bg-paper px-2 py-1 text-[12px] leading-tight"
          >
            <b className="block font-head text-[15px]">{token.text}</b>
            {token.meaning}
          </li>
        ))}
      </ol>
      <dl>
        <Fact words={t`Polarity`}>{one.polarities.join(', ') || t`stated by the manufacturer`}</Fact>
        <Fact words={t`Shielding`}>
          {shielding}
          {one.gases.length > 0 && `: ${one.gases.join(t` or `)}`}
        </Fact>
        <Fact words={t`Positions`}>{POSITION_WORDS[one.positions] ?? t`none named`}</Fact>
        <Fact words={t`Tensile`}>
          {one.tensile_mpa == null
            ? t`none in the standard, or not known here`
            : t`at least ${units.value(one.tensile_mpa, 'strength')} ${units.unit('strength')}`}
        </Fact>
        <Fact words={t`Impact`}>{impact}</Fact>
        {one.hydrogen_ml_100g != null && (
          <Fact words={t`Hydrogen`}>
            <Trans>at most {one.hydrogen_ml_100g} ml/100 g</Trans>
          </Fact>
        )}
        {one.runs === 'single' && (
          <Fact words={t`Runs`}>
            <Trans>single runs only</Trans>
          </Fact>
        )}
        {one.notes.length > 0 && <Fact words={t`Notes`}>{one.notes.join('; ')}</Fact>}
      </dl>
      <Sources citations={one.sources.citations} />
    </div>
  )
}
