import { t } from '@lingui/core/macro'
import { Trans } from '@lingui/react/macro'
import { useQuery } from '@tanstack/react-query'
import { useState } from 'react'

import type { BeadSettings, Range, Remedy } from '../../api/types'
import { cureQuery } from '../../queries/calculators'
import { digits, fixed } from '../../session/language'
import { Button } from '../../ui/Button'
import { useUnits } from '../../session/units'
import { Choice } from '../../ui/Choice'
import { Notice } from '../../ui/Notice'
import { kindOf, settingWords } from './settings'

type Props = {
  settings: BeadSettings
  limits: Readonly<Record<string, Range>>
  goals: readonly { key: string; title: string }[]
  onUse: (settings: BeadSettings) => void
}

/** Ask for an effect: the smallest changes that have it, in the order practice tries them. */
export function CurePanel({ settings, limits, goals, onUse }: Props) {
  const [goal, setGoal] = useState<string | null>(null)
  const found = useQuery({ ...cureQuery({ settings, goal: goal ?? '', limits }), enabled: goal !== null })
  const remedies = found.data?.remedies ?? []
  return (
    <section className="panel p-4" aria-labelledby="cure">
      <h2 id="cure" className="mb-2 text-[17px]">
        <Trans>What would change it</Trans>
      </h2>
      <Choice
        label={t`Effect that is wanted`}
        value={goal}
        none={t`Choose an effect`}
        options={goals.map((one) => [one.key, one.title])}
        onChange={setGoal}
      />
      {found.isError && <Notice mark="breach">{found.error.message}</Notice>}
      {goal && found.data?.no_model && <p className="mt-2 text-[13px] text-steel2">{found.data.no_model}</p>}
      <ol className="mt-2 text-[13px]">
        {goal && remedies.map((one) => <RemedyRow key={one.field} remedy={one} onUse={onUse} />)}
      </ol>
      {goal && remedies.length > 0 && (
        <p className="mt-2 text-[12px] text-steel2">
          <Trans>
            In the order of common practice. An estimate of a model: make a trial weld. The limits of the procedure
            hold; what would leave them is for the welding engineer to decide.
          </Trans>
        </p>
      )}
    </section>
  )
}

function RemedyRow({ remedy, onUse }: { remedy: Remedy; onUse: (settings: BeadSettings) => void }) {
  const words = settingWords(remedy.field)
  const units = useUnits()
  const kind = kindOf(remedy.field)
  const said = (value: number) => (kind ? units.value(value, kind) : digits(String(Number(value.toFixed(2)))))
  const change =
    remedy.after === null
      ? ''
      : `${said(remedy.before ?? 0)} → ${said(remedy.after)} ${kind ? units.unit(kind) : ''}`.trim()
  const settings = remedy.settings as BeadSettings | null
  return (
    <li className="flex items-start gap-3 border-t border-hair py-1.5">
      <div className="min-w-0 flex-1">
        <b>{words}</b> <span className="tabular-nums">{change}</span>
        <span className="block text-steel2">{remedy.why}</span>
        {remedy.outcome === 'outside' && (
          <span className="block text-caution">
            <Trans>Only outside the limits of the procedure: the welding engineer decides.</Trans>
          </span>
        )}
        {remedy.outcome === 'no-effect' && (
          <span className="block text-steel2">
            <Trans>No help here.</Trans>
          </span>
        )}
        {remedy.outcome === 'helps' && (
          <span className="block text-steel2">
            {remedy.limited ? t`Helps in part, as far as the limits go.` : t`Helps in part.`}
          </span>
        )}
        {remedy.worsens.length > 0 && (
          <span className="block text-caution">{t`Then watch: ${remedy.worsens.join(', ')}`}</span>
        )}
      </div>
      {settings && (
        <>
          <span className="tabular-nums">
            {remedy.percent > 0 ? '+' : ''}
            {fixed(remedy.percent, 0)} %
          </span>
          <Button aria-label={t`Use ${words} ${change}`} onClick={() => onUse(settings)}>
            <Trans>Use</Trans>
          </Button>
        </>
      )}
    </li>
  )
}
