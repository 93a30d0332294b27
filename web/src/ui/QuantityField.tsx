import { useId, type KeyboardEvent } from 'react'

import type { DialCalibration, Range } from '../api/types'
import { digits } from '../session/language'
import { useUnits } from '../session/units'
import { plainNumbers, rangeText, unitOf } from '../domain/quantity'
import { useReading, type ReadResult } from './useReading'

type Common = {
  label: string
  kind: string
  /** Path of the field in the document; findings put the cursor there. */
  path?: string
  error?: string | undefined
  disabled?: boolean
  metal?: string
  placeholder?: string
  /** In the ladder: no border until it is used, centred. */
  bare?: boolean
  big?: boolean
  hideUnit?: boolean
  /** The note floats over what is below instead of moving it. */
  floating?: boolean
  /** At the booth a plain number is taken while the server is away. */
  booth?: boolean
  /** The machine's wire feed dial, so that "dial 4.5" is read. */
  feedDial?: DialCalibration | null | undefined
  onKeyDown?: (event: KeyboardEvent<HTMLInputElement>) => void
}
type ValueProps = Common & {
  mode?: 'value'
  value: number | null | undefined
  onChange: (value: number | null, read?: ReadResult) => void
}
type RangeProps = Common & {
  mode: 'range'
  value: Range | null | undefined
  onChange: (value: Range | null, read?: ReadResult) => void
}

/** Read back as it stands: 1,234 could be thousands, so that number keeps its point. */
function typeable(text: string): string {
  return /\b[1-9]\d{0,2}\.\d{3}\b/.test(text) ? text : digits(text)
}

/** A quantity, typed as people say it, shown in the person's unit with the other beside it. */
export function QuantityField(props: ValueProps | RangeProps) {
  const { label, kind, path, error, disabled, metal, placeholder, bare, big, hideUnit, floating, booth, feedDial } =
    props
  const units = useUnits()
  const id = useId()
  const found = units.kind(kind)
  const reading = useReading({
    kind,
    as: props.mode ?? 'value',
    system: units.system,
    ...(metal ? { metal } : {}),
    ...(feedDial ? { feedDial } : {}),
    onEmpty: () => props.onChange(null),
    readAway: booth
      ? (text) => {
          const read = plainNumbers(text, found, units.system)
          if (!read || (props.mode !== 'range' && read.min !== read.max)) return null
          return { value: read.min, min: read.min, max: read.max, understood: text }
        }
      : undefined,
    onRead: (result) => {
      if (props.mode === 'range') {
        if (result.min != null && result.max != null) props.onChange({ min: result.min, max: result.max }, result)
      } else if (result.value != null) props.onChange(result.value, result)
    },
  })
  const stored =
    props.mode === 'range' ? props.value : props.value == null ? null : { min: props.value, max: props.value }
  const written = stored ? typeable(rangeText(stored, found, units.system)) : ''
  const other = units.system === 'si' ? 'us' : 'si'
  const echo =
    stored && reading.text !== null && !reading.error
      ? `${digits(rangeText(stored, found, units.system))} ${unitOf(found, units.system)}` +
        (found.unit === found.us_unit ? '' : ` · ${digits(rangeText(stored, found, other))} ${unitOf(found, other)}`)
      : null
  const problem = reading.error ?? error
  const onKeyDown = (event: KeyboardEvent<HTMLInputElement>) => {
    if (event.key === 'Escape' && reading.text !== null) {
      reading.revert()
      event.stopPropagation()
      return
    }
    if (event.key === 'Enter') {
      event.preventDefault() // Enter takes the value; it never submits a form around it
      void reading.leave()
    }
    props.onKeyDown?.(event)
  }
  const look = bare
    ? 'w-full min-w-0 rounded-sm border border-transparent bg-transparent px-0 py-0 text-center max-[1150px]:text-[12.5px] hover:border-line focus:border-accent focus:bg-panel disabled:hover:border-transparent'
    : big
      ? 'field py-1 text-[24px] font-semibold leading-tight placeholder:text-[15px] placeholder:font-normal'
      : 'field px-1.5 py-0.5'
  return (
    <div className="relative min-w-0">
      <div className={`flex items-baseline ${bare ? 'gap-0.5' : 'gap-1.5'}`}>
        <input
          id={id}
          aria-label={label}
          aria-invalid={problem ? true : undefined}
          aria-busy={reading.pending || undefined}
          aria-describedby={problem || echo ? `${id}-note` : undefined}
          data-path={path}
          className={`${look} ${problem ? 'border-breach! outline-breach' : ''}`}
          value={reading.text ?? written}
          placeholder={placeholder ?? (bare ? '—' : '')}
          disabled={disabled}
          autoComplete="off"
          spellCheck={false}
          onChange={(event) => reading.type(event.target.value)}
          onBlur={() => void reading.leave()}
          onKeyDown={onKeyDown}
        />
        {!hideUnit && !bare && (
          <span className={`shrink-0 text-steel2 ${big ? 'w-16 text-[15px]' : 'w-10 text-[12px]'}`}>
            {unitOf(found, units.system)}
          </span>
        )}
      </div>
      {(problem ?? echo) && (
        <div
          id={`${id}-note`}
          role={problem ? 'alert' : undefined}
          className={
            bare
              ? `panel absolute top-full left-1/2 z-30 w-max max-w-56 -translate-x-1/2 px-2 py-1 text-[12px] ${problem ? 'border-breach text-breach' : 'text-steel'}`
              : floating
                ? `panel absolute top-full left-0 z-30 w-max max-w-56 px-2 py-1 text-[12px] ${problem ? 'border-breach text-breach' : 'text-steel'}`
                : `mt-0.5 text-[12px] ${problem ? 'text-breach' : 'text-steel2'}`
          }
        >
          {problem ?? echo}
        </div>
      )}
    </div>
  )
}

/** One value with its unit, for reading only. */
export function Quantity({ value, kind }: { value: number; kind: string }) {
  const units = useUnits()
  const found = units.kind(kind)
  return (
    <span className="whitespace-nowrap">
      {units.value(value, kind)} <small className="text-steel2">{unitOf(found, units.system)}</small>
    </span>
  )
}
