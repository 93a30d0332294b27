import { t } from '@lingui/core/macro'
import { Trans } from '@lingui/react/macro'
import { useState } from 'react'

import type { BalanceDial, Machine } from '../../../api/types'
import { BALANCES, WAVEFORMS } from '../../../domain/words'
import { Choice } from '../../../ui/Choice'
import { Labelled } from '../../../ui/Labelled'
import { QuantityField } from '../../../ui/QuantityField'
import { ReadField } from '../../../ui/ReadField'
import { Part, merged, type PartProps } from './Part'

/** The AC wave. The balance is typed as the dial counts it, and kept as the share negative. */
export function AcPart({
  one,
  path,
  disabled,
  set,
  odd,
  machine,
}: PartProps & { odd: boolean; machine: Machine | undefined }) {
  const own = machine?.balance_dial ?? undefined
  const [convention, setConvention] = useState<BalanceDial['convention']>(own?.convention ?? 'en-percent')
  const dial: BalanceDial = own && own.convention === convention ? own : { convention }
  const share = one.ac?.en_share
  return (
    <Part title={t`AC`} odd={odd} {...(odd && !disabled ? { onTakeOut: () => set({ ac: null }) } : {})}>
      <Labelled words={t`Frequency`}>
        <QuantityField
          label={t`AC frequency`}
          kind="frequency"
          path={`${path}.ac.frequency_hz`}
          value={one.ac?.frequency_hz}
          disabled={disabled}
          onChange={(frequency_hz) => set((pass) => ({ ac: merged(pass.ac, { frequency_hz }) }))}
        />
      </Labelled>
      <Labelled words={t`Balance, as dialled`}>
        <ReadField
          label={t`AC balance`}
          as="balance"
          dial={dial}
          path={`${path}.ac.en_share`}
          disabled={disabled}
          written={
            share == null
              ? ''
              : convention === 'ep-percent'
                ? percent(1 - share)
                : convention === 'en-percent'
                  ? percent(share)
                  : ''
          }
          onEmpty={() => set((pass) => ({ ac: merged(pass.ac, { en_share: null }) }))}
          onRead={(read) => {
            const en_share = read.value
            if (en_share != null) set((pass) => ({ ac: merged(pass.ac, { en_share }) }))
          }}
        />
        {share != null && (
          <p className="mt-0.5 text-[12px] text-steel2">
            <Trans>
              {percent(share)} % negative, {percent(1 - share)} % cleaning
            </Trans>
          </p>
        )}
      </Labelled>
      <Labelled words={t`The dial counts`}>
        <Choice
          label={t`Balance dial`}
          value={convention}
          disabled={disabled}
          options={BALANCES.filter(([key]) => key !== 'signed' || own?.convention === 'signed')}
          onChange={(next) => next && setConvention(next)}
        />
      </Labelled>
      <Labelled words={t`Waveform`}>
        <Choice
          label={t`Waveform`}
          path={`${path}.ac.waveform`}
          value={one.ac?.waveform}
          options={WAVEFORMS}
          none={t`not stated`}
          disabled={disabled}
          onChange={(waveform) => set((pass) => ({ ac: merged(pass.ac, { waveform }) }))}
        />
      </Labelled>
      <Labelled words={t`Negative over positive`}>
        <QuantityField
          label={t`Negative height over positive`}
          kind="number"
          path={`${path}.ac.amplitude_ratio`}
          value={one.ac?.amplitude_ratio}
          disabled={disabled}
          placeholder="1"
          onChange={(amplitude_ratio) => set((pass) => ({ ac: merged(pass.ac, { amplitude_ratio }) }))}
        />
      </Labelled>
    </Part>
  )
}

function percent(share: number): string {
  return String(Math.round(share * 1000) / 10)
}
