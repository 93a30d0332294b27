import { t } from '@lingui/core/macro'
import { Trans } from '@lingui/react/macro'
import { keepPreviousData, useQuery } from '@tanstack/react-query'
import { useState } from 'react'

import { Sources } from '../../ui/Sources'
import { TextField } from '../../ui/TextField'
import { useSettled } from '../../ui/useSettled'
import { Card, Fact, Spellings } from './Card'
import { gasQuery } from '../../queries/calculators'

const METALS = [
  ['steel', t`Steel`],
  ['stainless', t`Stainless`],
  ['aluminium', t`Aluminium`],
] as const

/** What a shielding gas is called, and what may be welded with it. */
export function GasNamer() {
  const [text, setText] = useState<string | null>(null)
  const asked = useSettled(text ?? '')
  const found = useQuery({ ...gasQuery(asked), placeholderData: keepPreviousData, retry: false })
  const answer = asked.trim() && !found.isError ? found.data : undefined
  return (
    <Card title={t`Shielding gas`}>
      <TextField
        label={t`Shielding gas`}
        value={text}
        onChange={setText}
        placeholder={t`Ar+18CO2`}
        error={asked.trim() && found.isError ? found.error.message : undefined}
      />
      {!asked.trim() && (
        <Spellings words={t`for example`} options={['C25', t`trimix 90/7.5/2.5`, '98/2', 'Ar+30He']} onTake={setText} />
      )}
      {answer && answer.candidates.length > 0 && (
        <div role="status" className="mt-2 text-[13px]">
          <p>
            <Trans>{text} does not name its gases.</Trans>
          </p>
          <Spellings words={t`Which is meant?`} options={answer.candidates} onTake={setText} />
        </div>
      )}
      {answer?.symbol && answer.modes && (
        <div className="mt-2">
          <p className="flex flex-wrap items-baseline gap-x-3">
            <b className="font-head text-[20px]">{answer.symbol.iso_14175_mix}</b>
            <span className="text-[13px] text-steel2">
              <Trans>ISO 14175 ·</Trans> {answer.symbol.nature || t`outside the groups`}{' '}
              <Trans>· AWS {answer.symbol.aws_a5_32}</Trans>
            </span>
          </p>
          <dl className="mt-1">
            <Fact words={t`Mix`}>
              {Object.entries(answer.components_percent)
                .map(([name, share]) => `${name} ${String(Math.round(share * 1000) / 1000)} %`)
                .join(', ')}
            </Fact>
            {METALS.map(([key, words]) => {
              const modes = answer.modes?.[key]
              if (!modes) return null
              const limited = modes.limited.map((mode) => t`${mode.replaceAll('-', ' ')} with care`)
              return (
                <Fact key={key} words={t`${words}, wire`}>
                  {[...modes.usual.map((mode) => mode.replaceAll('-', ' ')), ...limited].join(', ') ||
                    t`no sound transfer`}
                </Fact>
              )
            })}
            {answer.modes.steel.note && <Fact words={t`Note`}>{answer.modes.steel.note}</Fact>}
          </dl>
          <Sources citations={[answer.symbol.citation, answer.modes.steel.citation]} />
        </div>
      )}
    </Card>
  )
}
