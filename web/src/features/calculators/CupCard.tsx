import { t } from '@lingui/core/macro'
import { Trans } from '@lingui/react/macro'
import { keepPreviousData, useQuery } from '@tanstack/react-query'
import { useState } from 'react'

import { useUnits } from '../../session/units'
import { Sources } from '../../ui/Sources'
import { TextField } from '../../ui/TextField'
import { useSettled } from '../../ui/useSettled'
import { Card, Fact } from './Card'
import { cupQuery } from '../../queries/calculators'
import { fixed } from '../../session/language'

/** A TIG cup: its bore, and the flow and tungsten that go with it. */
export function CupCard() {
  const units = useUnits()
  const [text, setText] = useState<string | null>(null)
  const [lens, setLens] = useState(false)
  const [ac, setAc] = useState(false)
  const asked = useSettled({ text: text ?? '', lens, ac })
  const found = useQuery({
    ...cupQuery({ ...asked, helium_percent: 0 }),
    placeholderData: keepPreviousData,
    retry: false,
  })
  const answer = asked.text.trim() && !found.isError ? found.data : undefined
  return (
    <Card title={t`TIG cup and argon`}>
      <div className="flex items-start gap-4">
        <div className="w-40">
          <TextField
            label={t`Cup`}
            value={text}
            onChange={setText}
            placeholder={t`8, or 12 mm`}
            error={asked.text.trim() && found.isError ? found.error.message : undefined}
          />
        </div>
        <label className="flex items-center gap-1.5 py-1 text-[13px]">
          <input type="checkbox" checked={lens} onChange={(event) => setLens(event.target.checked)} />{' '}
          <Trans>gas lens</Trans>
        </label>
        <label className="flex items-center gap-1.5 py-1 text-[13px]">
          <input type="checkbox" checked={ac} onChange={(event) => setAc(event.target.checked)} />{' '}
          <Trans>AC on aluminium</Trans>
        </label>
      </div>
      {answer && (
        <>
          <dl className="mt-2">
            <Fact words={t`Cup`}>
              <Trans>
                <b>no. {answer.number}</b>, bore {fixed(answer.bore_mm, 1)} mm, {answer.number}/16 in
              </Trans>
            </Fact>
            <Fact words={t`Argon`}>
              {answer.flow_l_min
                ? t`${units.range(answer.flow_l_min, 'flow')} ${units.unit('flow')} in still air`
                : t`not usual without a lens`}
            </Fact>
            <Fact words={t`Tungsten`}>
              {answer.tungsten_mm
                ? `${units.range(answer.tungsten_mm, 'wire_diameter')} ${units.unit('wire_diameter')}`
                : t`not known here`}
            </Fact>
          </dl>
          {answer.citation && <Sources citations={[answer.citation]} />}
        </>
      )}
    </Card>
  )
}
