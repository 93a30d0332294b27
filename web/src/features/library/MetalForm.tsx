import { t } from '@lingui/core/macro'
import { Trans } from '@lingui/react/macro'
import { useRef, useState } from 'react'

import type { OwnMetal } from '../../api/types'
import { Choice } from '../../ui/Choice'
import { Labelled } from '../../ui/Labelled'
import { QuantityField } from '../../ui/QuantityField'
import { TextField } from '../../ui/TextField'
import { FAMILIES } from '../../domain/words'
import { changed, without, type FormProps } from './FormParts'

const CONDITIONS = ['AR', 'N', 'NT', 'M', 'QT', 'A', 'SR', 'T4', 'T6', 'H111', 'O'] as const
const ELEMENTS = ['C', 'Si', 'Mn', 'P', 'S', 'Cr', 'Mo', 'Ni', 'Cu', 'V', 'Nb', 'Ti', 'Al', 'N', 'Mg', 'Zn'] as const

/** A metal of one's own: name, family, condition, yield by thickness, chemistry limits, source. */
export function MetalForm({ document, put, errors }: FormProps<OwnMetal>) {
  const steps = document.yield_steps
  // A step needs both its numbers; a half one waits here.
  const [half, setHalf] = useState<{ up_to_mm: number | null; yield_mpa: number | null } | null>(
    steps.length === 0 ? { up_to_mm: null, yield_mpa: null } : null,
  )
  const waiting = useRef(half)
  const putHalf = (changes: Partial<NonNullable<typeof half>>) => {
    const next = { up_to_mm: null, yield_mpa: null, ...waiting.current, ...changes }
    waiting.current = next
    if (next.up_to_mm !== null && next.yield_mpa !== null) {
      const whole = { up_to_mm: next.up_to_mm, yield_mpa: next.yield_mpa }
      put((before) => ({ yield_steps: [...before.yield_steps, whole] }))
      waiting.current = null
      setHalf(null)
    } else setHalf(next)
  }
  const limits = document.chemistry ?? {}
  return (
    <>
      <div className="grid grid-cols-4 gap-x-3 gap-y-2 text-[13px]">
        <Labelled words={t`Name`} wide>
          <TextField
            label={t`Name of the metal`}
            value={document.name}
            onChange={(name) => put({ name: name ?? '' })}
            error={errors.get('name')}
          />
        </Labelled>
        <Labelled words={t`Also called, with commas`} wide>
          <TextField
            label={t`Also called`}
            value={document.also.join(', ')}
            onChange={(text) =>
              put({
                also: (text ?? '')
                  .split(',')
                  .map((one) => one.trimStart())
                  .filter((one) => one !== ''),
              })
            }
          />
        </Labelled>
        <Labelled words={t`Family`}>
          <Choice
            label={t`Family`}
            value={document.family}
            options={FAMILIES}
            onChange={(family) => family && put({ family })}
          />
        </Labelled>
        <Labelled words={t`Condition`}>
          <Choice
            label={t`Condition`}
            value={document.condition}
            none={t`not stated`}
            options={CONDITIONS.map((one) => [one, one] as const)}
            onChange={(condition) => put({ condition })}
          />
        </Labelled>
        <Labelled words={t`Standard`}>
          <TextField label={t`Standard`} value={document.standard} onChange={(standard) => put({ standard })} />
        </Labelled>
        <Labelled words={t`Group, if stated`}>
          <TextField
            label={t`Group of ISO/TR 15608`}
            value={document.iso_15608}
            onChange={(iso_15608) => put({ iso_15608 })}
            placeholder={t`computed`}
          />
        </Labelled>
        <Labelled words={t`Tensile, at least`}>
          <QuantityField
            label={t`Tensile strength, at least`}
            kind="strength"
            value={document.tensile_mpa}
            onChange={(tensile_mpa) => put({ tensile_mpa })}
          />
        </Labelled>
        <Labelled words={t`Where this comes from`} wide>
          <TextField
            label={t`Source of the record`}
            value={document.source}
            onChange={(source) => put({ source })}
            placeholder={t`sheet, standard, date`}
          />
        </Labelled>
      </div>
      <h3 className="mt-3 mb-1 text-[15px]">
        <Trans>Minimum yield by thickness</Trans>
      </h3>
      <div className="grid grid-cols-[140px_140px_auto] items-center gap-x-3 gap-y-1 text-[13px]">
        {steps.map((step, index) => (
          <div key={index} className="contents">
            <QuantityField
              label={t`Up to, step ${index + 1}`}
              kind="thickness"
              value={step.up_to_mm}
              onChange={(value) => {
                if (value !== null)
                  put((before) => ({
                    yield_steps: changed(before.yield_steps, index, (one) => ({ ...one, up_to_mm: value })),
                  }))
              }}
            />
            <QuantityField
              label={t`Yield, step ${index + 1}`}
              kind="strength"
              value={step.yield_mpa}
              onChange={(value) => {
                if (value !== null)
                  put((before) => ({
                    yield_steps: changed(before.yield_steps, index, (one) => ({ ...one, yield_mpa: value })),
                  }))
              }}
            />
            <button
              type="button"
              className="link w-fit text-[12px]"
              onClick={() => put((before) => ({ yield_steps: without(before.yield_steps, index) }))}
            >
              <Trans>remove</Trans>
            </button>
          </div>
        ))}
        {half && (
          <>
            <QuantityField
              label={t`Up to, new step`}
              kind="thickness"
              placeholder={t`up to`}
              value={half.up_to_mm}
              onChange={(up_to_mm) => putHalf({ up_to_mm })}
            />
            <QuantityField
              label={t`Yield, new step`}
              kind="strength"
              placeholder={t`yield`}
              value={half.yield_mpa}
              onChange={(yield_mpa) => putHalf({ yield_mpa })}
            />
            <span />
          </>
        )}
      </div>
      {!half && (
        <button type="button" className="link text-[13px]" onClick={() => setHalf({ up_to_mm: null, yield_mpa: null })}>
          <Trans>Add a step</Trans>
        </button>
      )}
      <h3 className="mt-3 mb-1 text-[15px]">
        <Trans>
          Chemistry limits, %{' '}
          <small className="font-sans text-[12px] font-normal text-steel2">
            one number is a maximum; or from and to, such as 0.8–1.1
          </small>
        </Trans>
      </h3>
      <div className="grid grid-cols-4 gap-x-4 gap-y-1 text-[13px]">
        {ELEMENTS.map((element) => (
          <label key={element} className="grid grid-cols-[24px_minmax(0,1fr)] items-baseline gap-1.5">
            {element}
            <QuantityField
              mode="range"
              label={t`${element}, from and to`}
              kind="percent"
              hideUnit
              value={limits[element]}
              onChange={(range) =>
                put((before) => {
                  const others = Object.fromEntries(
                    Object.entries(before.chemistry ?? {}).filter(([key]) => key !== element),
                  )
                  // One number is a greatest share.
                  return {
                    chemistry: range
                      ? { ...others, [element]: range.min === range.max ? { min: 0, max: range.max } : range }
                      : others,
                  }
                })
              }
            />
          </label>
        ))}
      </div>
    </>
  )
}
