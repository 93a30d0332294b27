import { t } from '@lingui/core/macro'
import { Trans } from '@lingui/react/macro'
import { useQuery } from '@tanstack/react-query'
import { useState } from 'react'
import { gasText } from '../../domain/procedure'
import { OVERLAPS, TRANSFERS } from '../../domain/words'
import { Choice } from '../../ui/Choice'
import { GasField } from '../../ui/GasField'
import { Labelled } from '../../ui/Labelled'
import { QuantityField } from '../../ui/QuantityField'
import { TextField } from '../../ui/TextField'
import { recordsQuery } from '../../queries/library'
import { FillerField } from './FillerField'
import { Answers } from './answers'

type ConstraintsProps = {
  answers: Answers
  change: (next: (before: Answers) => Answers) => void
  errors: ReadonlyMap<string, string>
}

/** What may be wished beyond the six answers; all of it is proposed where it is left open. */
export function Constraints({ answers, change, errors }: ConstraintsProps) {
  const machines = useQuery(recordsQuery('machine'))
  const names = (machines.data ?? []).map((one) => one.name)
  return (
    <details
      className="border-t border-line pt-2"
      open={errors.has('gas') || errors.has('filler.diameter_mm') || undefined}
    >
      <summary className="font-head text-[15px] font-semibold text-accent">
        <Trans>Constraints (optional)</Trans>
      </summary>
      <div className="mt-2 grid grid-cols-2 gap-x-1.5 gap-y-2">
        <Labelled words={t`Filler`} wide>
          <FillerField
            path="filler.designation"
            value={answers.filler?.designation}
            disabled={false}
            onType={(designation) => change((before) => ({ ...before, filler: { ...before.filler, designation } }))}
            onPick={(one) =>
              change((before) => ({
                ...before,
                filler: {
                  ...before.filler,
                  designation: one.decoded.designation,
                  ...(one.diameter_mm == null ? {} : { diameter_mm: one.diameter_mm, nominal: one.nominal }),
                  ...(one.product ? { make: one.product.name } : {}),
                },
                ...(one.product
                  ? { shelf: { machines: [], metals: [], ...before.shelf, products: [one.product] } }
                  : {}),
              }))
            }
          />
        </Labelled>
        {answers.fill_process && (
          <Labelled words={t`Filler after the root`} wide>
            <TextField
              label={t`Filler after the root`}
              path="fill_filler.designation"
              placeholder={t`as usual`}
              value={answers.fill_filler?.designation}
              error={errors.get('fill_filler.designation')}
              onChange={(designation) =>
                change((before) => ({ ...before, fill_filler: designation ? { designation } : null }))
              }
            />
          </Labelled>
        )}
        <Labelled words={t`Diameter`}>
          <QuantityField
            label={t`Filler diameter`}
            kind="wire_diameter"
            path="filler.diameter_mm"
            value={answers.filler?.diameter_mm}
            error={errors.get('filler.diameter_mm')}
            onChange={(diameter_mm) => change((before) => ({ ...before, filler: { ...before.filler, diameter_mm } }))}
          />
        </Labelled>
        <Labelled words={t`Gas`}>
          <GasField
            label={t`Gas`}
            path="gas"
            value={null}
            onChange={(shares) => change((before) => ({ ...before, gas: shares ? gasText(shares) : null }))}
          />
          {answers.gas && <p className="text-[12px] text-steel2">{answers.gas}</p>}
        </Labelled>
        <Labelled words={t`Transfer`}>
          <Choice<NonNullable<Answers['transfer']>>
            label={t`Transfer`}
            path="transfer"
            value={answers.transfer}
            none={t`as usual`}
            options={TRANSFERS}
            onChange={(transfer) => change((before) => ({ ...before, transfer }))}
          />
        </Labelled>
        <Labelled words={t`Overlap`}>
          <Choice<NonNullable<Answers['overlap']>>
            label={t`Overlap of beads`}
            path="overlap"
            value={answers.overlap ?? 'half'}
            options={OVERLAPS}
            onChange={(overlap) => overlap && change((before) => ({ ...before, overlap }))}
          />
        </Labelled>
        <Labelled words={t`Heat input`}>
          <QuantityField
            mode="range"
            label={t`Heat input wanted`}
            kind="heat_input"
            path="heat_input_kj_mm"
            value={answers.heat_input_kj_mm}
            onChange={(heat_input_kj_mm) => change((before) => ({ ...before, heat_input_kj_mm }))}
          />
        </Labelled>
        <Labelled words="t8/5">
          <QuantityField
            mode="range"
            label={t`Cooling time t8/5 wanted`}
            kind="time"
            path="t85_s"
            value={answers.t85_s}
            onChange={(t85_s) => change((before) => ({ ...before, t85_s }))}
          />
        </Labelled>
        <Labelled words={t`Passes`}>
          <PassCount
            value={answers.passes_wanted ?? null}
            onChange={(passes_wanted) => change((before) => ({ ...before, passes_wanted }))}
          />
        </Labelled>
        <Labelled words={t`Hydrogen`}>
          <QuantityField
            label={t`Hydrogen of the deposit`}
            kind="hydrogen"
            path="hydrogen_ml_100g"
            value={answers.hydrogen_ml_100g}
            onChange={(hydrogen_ml_100g) => change((before) => ({ ...before, hydrogen_ml_100g }))}
          />
        </Labelled>
        {names.length > 0 && (
          <Labelled words={t`Machine`} wide>
            <Choice
              label={t`Machine`}
              path="machine"
              value={answers.machine}
              none={t`any`}
              options={names.map((name) => [name, name] as const)}
              onChange={(machine) => {
                const record = machines.data?.find((one) => one.name === machine)?.document
                change((before) => ({
                  ...before,
                  machine,
                  shelf: {
                    products: [],
                    metals: [],
                    ...before.shelf,
                    machines: record && record.format === 'grounded-bead/machine' ? [record] : [],
                  },
                }))
              }}
            />
          </Labelled>
        )}
      </div>
    </details>
  )
}

function PassCount({ value, onChange }: { value: number | null; onChange: (value: number | null) => void }) {
  const [text, setText] = useState<string | null>(value === null ? null : String(value))
  const number = text === null ? null : Number(text)
  const wrong = number !== null && (!Number.isInteger(number) || number < 1 || number > 100)
  return (
    <TextField
      label={t`Number of passes`}
      path="passes_wanted"
      value={text}
      placeholder={t`as it comes`}
      error={wrong ? t`a whole number from 1 to 100` : undefined}
      onChange={(next) => {
        setText(next)
        const typed = next === null ? null : Number(next)
        if (typed === null || (Number.isInteger(typed) && typed >= 1 && typed <= 100)) onChange(typed)
      }}
    />
  )
}
