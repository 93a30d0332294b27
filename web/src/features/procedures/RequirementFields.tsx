import { t } from '@lingui/core/macro'
import { useEffect, useRef, useState } from 'react'

import type { Procedure } from '../../api/types'
import { withRequirements } from '../../domain/procedure'
import { ASKED } from '../../domain/words'
import { Choice } from '../../ui/Choice'
import { QuantityField } from '../../ui/QuantityField'
import { TextField } from '../../ui/TextField'
import { Row } from './Row'
import { merged } from './setup/Part'

type Props = {
  document: Procedure
  onChange: (change: (before: Procedure) => Procedure) => void
  disabled: boolean
  errors: ReadonlyMap<string, string>
}

const keyOf = (asked: unknown) => (asked === null || asked === undefined ? null : asked === false ? t`no` : t`yes`)

/** What the contract asks beyond the code's own rule: impact toughness, hardness and its agreed limit. */
export function RequirementFields({ document, onChange, disabled, errors }: Props) {
  const asked = document.requirements
  const impact = asked?.impact
  // Both numbers make the requirement: until then it is asked for, and its numbers are the code's.
  const [typed, setTyped] = useState<{ temperature_c?: number | null; average_j?: number | null }>({})
  const values = typeof impact === 'object' && impact !== null ? impact : null
  const shown = { ...typed, ...values }
  const limit = asked?.hardness_limit
  const set = (changes: NonNullable<Procedure['requirements']>) =>
    onChange((before) => withRequirements(before, changes))
  // Two fields may be read at once: each change is made to what stands by then.
  const latest = useRef<typeof typed>(shown)
  useEffect(() => {
    latest.current = { ...typed, ...values }
  }, [typed, values])
  const setImpact = (changes: typeof typed) => {
    const next = { ...latest.current, ...changes }
    latest.current = next
    setTyped(next)
    const { temperature_c, average_j } = next
    set({ impact: temperature_c == null || average_j == null ? true : { temperature_c, average_j } })
  }
  const setLimit = (changes: Partial<NonNullable<typeof limit>>) =>
    onChange((before) =>
      withRequirements(before, { hardness_limit: merged(before.requirements?.hardness_limit, changes) }),
    )
  return (
    <>
      <Row words={t`Impact`}>
        <Choice
          label={t`Impact toughness`}
          path="requirements.impact"
          value={keyOf(impact)}
          none={t`as the code asks`}
          options={ASKED}
          disabled={disabled}
          onChange={(key) => set({ impact: key === null ? null : key === 'yes' })}
        />
        {keyOf(impact) === 'yes' && (
          <div className="mt-1.5 grid grid-cols-2 gap-1.5">
            <QuantityField
              label={t`Impact temperature`}
              kind="temperature"
              path="requirements.impact.temperature_c"
              placeholder={t`at`}
              value={shown.temperature_c}
              disabled={disabled}
              onChange={(temperature_c) => setImpact({ temperature_c })}
            />
            <QuantityField
              label={t`Impact energy, mean`}
              kind="impact"
              path="requirements.impact.average_j"
              placeholder={t`mean`}
              value={shown.average_j}
              disabled={disabled}
              onChange={(average_j) => setImpact({ average_j })}
            />
          </div>
        )}
      </Row>
      <Row words={t`Hardness`}>
        <div className="grid grid-cols-2 gap-1.5">
          <Choice
            label={t`Hardness`}
            path="requirements.hardness"
            value={keyOf(asked?.hardness)}
            none={t`as the code asks`}
            options={ASKED}
            disabled={disabled}
            onChange={(key) => set({ hardness: key === null ? null : key === 'yes' })}
          />
          <QuantityField
            label={t`Agreed hardness limit, HV10`}
            kind="number"
            path="requirements.hardness_limit.max_hv10"
            placeholder={t`limit, HV10`}
            value={limit?.max_hv10}
            disabled={disabled}
            onChange={(max_hv10) => setLimit({ max_hv10 })}
          />
          {limit && (
            <>
              <TextField
                label={t`Hardness limit agreed with`}
                path="requirements.hardness_limit.agreed_with"
                placeholder={t`agreed with`}
                value={limit.agreed_with}
                disabled={disabled}
                onChange={(agreed_with) => setLimit({ agreed_with })}
              />
              <DayField
                label={t`Hardness limit agreed on`}
                path="requirements.hardness_limit.agreed_on"
                value={limit.agreed_on}
                disabled={disabled}
                onChange={(agreed_on) => setLimit({ agreed_on })}
              />
            </>
          )}
        </div>
        {errors.get('requirements.hardness_limit.max_hv10') && (
          <p role="alert" className="mt-0.5 text-[12px] text-breach">
            {errors.get('requirements.hardness_limit.max_hv10')}
          </p>
        )}
      </Row>
    </>
  )
}

/** A day; what is no day yet stays in the field and says so. */
function DayField({
  label,
  path,
  value,
  onChange,
  disabled,
}: {
  label: string
  path: string
  value: string | null | undefined
  onChange: (day: string | null) => void
  disabled: boolean
}) {
  const [typed, setTyped] = useState<string | null>(null)
  return (
    <TextField
      label={label}
      path={path}
      value={typed ?? value}
      placeholder="2026-03-31"
      disabled={disabled}
      error={typed === null ? undefined : t`Write it as 2026-03-31.`}
      onChange={(text) => {
        const fine = text === null || (/^\d{4}-\d{2}-\d{2}$/.test(text) && !Number.isNaN(Date.parse(text)))
        setTyped(fine ? null : text)
        if (fine) onChange(text)
      }}
    />
  )
}
