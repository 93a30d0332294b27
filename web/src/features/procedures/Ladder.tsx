import { t } from '@lingui/core/macro'
import { Trans } from '@lingui/react/macro'
import { useMemo, type KeyboardEvent } from 'react'

import type { Bracket, Evaluation, Pass, Procedure, Range } from '../../api/types'
import { useUsage } from '../../session/terms'
import { useUnits } from '../../session/units'
import { scaleOver } from '../../domain/band'
import { addPass, gasText, groupsOf, passesOf, removePass, withPasses } from '../../domain/procedure'
import { temper } from '../../domain/temper'
import { inWords, processName } from '../../domain/words'
import { Band } from '../../ui/Band'
import { Button } from '../../ui/Button'
import { QuantityField } from '../../ui/QuantityField'
import { MarkIcon, markOf, type Mark } from '../../ui/Verdict'
import { digits } from '../../session/language'

const COLUMNS = [
  { field: 'current_a', kind: 'current', words: t`Current` },
  { field: 'voltage_v', kind: 'voltage', words: t`Voltage` },
  { field: 'travel_mm_min', kind: 'travel', words: t`Travel` },
] as const

const GRID =
  'grid grid-cols-[30px_46px_repeat(3,minmax(0,1fr))_minmax(0,1.1fr)_16px] items-center gap-x-2 max-[1150px]:gap-x-1'

type Props = {
  document: Procedure
  evaluation: Evaluation | undefined
  onChange: (change: (before: Procedure) => Procedure) => void
  selected: number | null
  onSelect: (pass: number) => void
  onLight: (pass: number | null) => void
  lit: number | null
  disabled: boolean
  /** What the supporting record allows, field by field. */
  brackets?: readonly Bracket[]
}

/** Passes stacked as they lie in the joint: root at the bottom, cap at the top. */
export function Ladder({
  document,
  evaluation,
  onChange,
  selected,
  onSelect,
  onLight,
  lit,
  disabled,
  brackets = [],
}: Props) {
  const units = useUnits()
  const passes = passesOf(document)
  const heat = useMemo(() => new Map(evaluation?.heat_input.map((one) => [one.pass_number, one])), [evaluation])
  const window_ = document.thermal?.heat_input_kj_mm ?? null
  const limits = new Map(brackets.map((one) => [one.path, one]))
  const ends = (field: string): Range[] =>
    brackets
      .filter((one) => one.path.endsWith(`.${field}`))
      .flatMap((one) => [one.min, one.max].flatMap((end) => (end == null ? [] : [{ min: end, max: end }])))
  const scales = {
    current_a: scaleOver([...passes.map((one) => one.current_a), ...ends('current_a')]),
    voltage_v: scaleOver([...passes.map((one) => one.voltage_v), ...ends('voltage_v')]),
    travel_mm_min: scaleOver([...passes.map((one) => one.travel_mm_min), ...ends('travel_mm_min')]),
    heat: scaleOver([
      ...[...heat.values()].map((one) => ({ min: one.min_kj_mm, max: one.max_kj_mm })),
      window_,
      ...ends('heat_input_kj_mm'),
    ]),
  }
  const k = new Set([...heat.values()].map((one) => one.k))
  const only = k.size === 1 ? [...k][0] : undefined
  const kWords = only === undefined ? '' : only === 1 ? t`no k` : `k ${digits(String(only))}`

  const rowKeys = (event: KeyboardEvent<HTMLDivElement>, one: Pass) => {
    if (event.target !== event.currentTarget) return
    const move = { ArrowUp: 1, ArrowDown: -1 }[event.key]
    if (move) {
      event.preventDefault()
      focusRow(one.number + move)
    } else if (event.key === 'Enter' || event.key === 'ArrowRight') {
      event.preventDefault()
      event.currentTarget.querySelector('input')?.focus()
    } else if (event.key === 'a' && !disabled) {
      onChange((before) => addPass(before, one.number))
      onSelect(one.number + 1)
    } else if (event.key === 'D' && event.shiftKey && !disabled) {
      onChange((before) => addPass(before, one.number, true))
      onSelect(one.number + 1)
    }
  }
  const cellKeys = (event: KeyboardEvent<HTMLInputElement>, one: Pass, column: number) => {
    const input = event.currentTarget
    if (event.key === 'ArrowUp') focusCell(one.number + 1, column, event)
    else if (event.key === 'ArrowDown') focusCell(one.number - 1, column, event)
    else if (event.key === 'Enter' && event.shiftKey) focusCell(one.number + 1, column, event)
    else if (event.key === 'ArrowLeft' && input.selectionStart === 0 && input.selectionEnd === 0)
      focusCell(one.number, column - 1, event)
    else if (event.key === 'ArrowRight' && input.selectionStart === input.value.length)
      focusCell(one.number, column + 1, event)
    else if (event.key === 'Escape') input.closest<HTMLElement>('[data-pass]')?.focus()
  }

  return (
    <>
      <div className="relative overflow-x-auto">
        <div role="table" aria-label={t`Passes`} className="min-w-[34rem]" onMouseLeave={() => onLight(null)}>
          <div role="row" className={`${GRID} items-end border-b border-line pb-1 text-center leading-tight label`}>
            <span role="columnheader" className="col-span-2 text-left">
              <Trans>Pass</Trans>
            </span>
            {COLUMNS.map((column) => (
              <span role="columnheader" key={column.field}>
                {column.words} <small className="block font-sans text-[11px]">{units.unit(column.kind)}</small>
              </span>
            ))}
            <span role="columnheader">
              {evaluation?.heat_word ?? t`Heat input`}{' '}
              <small className="block font-sans text-[11px]">
                {units.unit('heat_input')}
                {kWords && `, ${kWords}`}
              </small>
            </span>
            <span role="columnheader" className="relative">
              <span className="sr-only">
                <Trans>Findings</Trans>
              </span>
            </span>
          </div>
          {groupsOf(passes)
            .toReversed()
            .map((group) => (
              <div key={`${group.key}${String(group.passes[0]?.number)}`} role="rowgroup">
                <Heading one={group.passes[0]} code={document.code?.id} />
                {group.passes.toReversed().map((one) => {
                  const found = heat.get(one.number)
                  const range = found ? { min: found.min_kj_mm, max: found.max_kj_mm } : null
                  const mark = worst(evaluation, one.number)
                  const active = selected === one.number
                  return (
                    <div
                      role="row"
                      key={one.number}
                      data-pass={one.number}
                      tabIndex={0}
                      aria-label={t`Pass ${one.number}, ${inWords(one.role)}`}
                      aria-selected={active}
                      className={`${GRID} border-b border-hair py-1.5 ${active ? 'rounded-sm bg-accent-soft outline-[1.5px] -outline-offset-1 outline-accent' : lit === one.number ? 'bg-accent-soft' : ''}`}
                      onFocus={() => onSelect(one.number)}
                      onClick={() => onSelect(one.number)}
                      onMouseEnter={() => onLight(one.number)}
                      onKeyDown={(event) => rowKeys(event, one)}
                    >
                      <span
                        role="cell"
                        className="grid size-6.5 place-items-center rounded-full text-[13px] font-semibold text-white"
                        style={{ background: temper(found?.max_kj_mm) }}
                      >
                        {one.number}
                      </span>
                      <span role="cell" className="font-head text-[15px] font-semibold">
                        {inWords(one.role)}
                      </span>
                      {COLUMNS.map((column, index) => (
                        <div role="cell" key={column.field} className="min-w-0">
                          <Band
                            scale={scales[column.field]}
                            range={one[column.field]}
                            limits={limits.get(`passes.${String(one.number - 1)}.${column.field}`) ?? null}
                            label={t`${column.words} of pass ${one.number}`}
                          />
                          <QuantityField
                            mode="range"
                            bare
                            label={t`${column.words}, pass ${one.number}`}
                            path={`passes.${String(one.number - 1)}.${column.field}`}
                            kind={column.kind}
                            value={one[column.field]}
                            disabled={disabled}
                            onChange={(value) =>
                              onChange((before) => withPasses(before, [one.number], { [column.field]: value }))
                            }
                            onKeyDown={(event) => cellKeys(event, one, index)}
                          />
                        </div>
                      ))}
                      <div role="cell" className="min-w-0 text-center" data-heat={one.number}>
                        <Band
                          scale={scales.heat}
                          range={range}
                          limits={limits.get(`passes.${String(one.number - 1)}.heat_input_kj_mm`) ?? window_}
                          colour={temper(found?.max_kj_mm)}
                          label={t`Heat input of pass ${one.number}`}
                        />
                        <HeatText range={range} />
                      </div>
                      <span role="cell">{mark && <MarkIcon mark={mark} />}</span>
                    </div>
                  )
                })}
              </div>
            ))}
        </div>
      </div>
      {passes.length === 0 && (
        <div className="grid justify-items-start gap-2 py-4">
          <p className="text-steel">
            <Trans>No pass yet. The root comes first; the others are added above it.</Trans>
          </p>
          {!disabled && (
            <Button
              look="main"
              onClick={() => {
                onChange((before) => addPass(before, null))
                onSelect(1)
              }}
            >
              <Trans>Add the root pass</Trans>
            </Button>
          )}
        </div>
      )}
      {!disabled && passes.length > 0 && (
        <p className="flex gap-3 pt-2 text-[13px]">
          <button
            type="button"
            className="link"
            onClick={() => {
              onChange((before) => addPass(before, selected))
              onSelect((selected ?? passes.length) + 1)
            }}
          >
            {selected ? t`Add a pass above ${selected}` : t`Add a pass`}
          </button>
          {selected !== null && (
            <button type="button" className="link" onClick={() => onChange((before) => removePass(before, selected))}>
              <Trans>Remove pass {selected}</Trans>
            </button>
          )}
        </p>
      )}
    </>
  )
}

function HeatText({ range }: { range: Range | null }) {
  const units = useUnits()
  return (
    <span className="text-[14px]">
      {range ? units.range(range, 'heat_input') : <span className="text-steel2">—</span>}
    </span>
  )
}

function Heading({ one, code }: { one: Pass | undefined; code: string | undefined }) {
  const units = useUnits()
  const usage = useUsage(code)
  if (!one) return null
  const size = one.filler?.diameter_mm
    ? `${units.value(one.filler.diameter_mm, 'wire_diameter')} ${units.unit('wire_diameter')}`
    : ''
  const flow = one.gas?.flow_l_min ? `${units.range(one.gas.flow_l_min, 'flow')} ${units.unit('flow')}` : ''
  const rest = [
    one.polarity,
    one.transfer ? inWords(one.transfer) : null,
    [gasText(one.gas?.components_percent), flow].filter(Boolean).join(', '),
  ]
  return (
    <div role="row" className="border-b border-line pt-2 pb-1 text-[12.5px]">
      <div role="rowheader" className="truncate">
        <b className="mr-1.5 rounded-sm bg-ink px-1.5 py-px font-head text-[15px] font-semibold text-paper">
          {processName(one.process, usage)}
        </b>
        {size} {one.filler?.designation ?? t`no filler`}
        <span className="ml-2 text-steel2">{rest.filter(Boolean).join(' · ')}</span>
      </div>
    </div>
  )
}

function worst(evaluation: Evaluation | undefined, number: number): Mark | null {
  const prefix = `passes.${String(number - 1)}.`
  const marks = (evaluation?.findings ?? []).filter((one) => one.path.startsWith(prefix)).map(markOf)
  return (['breach', 'caution', 'unknown'] as const).find((mark) => marks.includes(mark)) ?? null
}

function focusRow(number: number): void {
  document.querySelector<HTMLElement>(`[data-pass="${String(number)}"]`)?.focus()
}

function focusCell(number: number, column: number, event: KeyboardEvent): void {
  const cell = document.querySelectorAll<HTMLInputElement>(`[data-pass="${String(number)}"] input`)[column]
  if (!cell) return
  event.preventDefault()
  cell.focus()
  cell.select()
}
