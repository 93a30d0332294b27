import { t } from '@lingui/core/macro'
import { Trans } from '@lingui/react/macro'
import type { Test } from '../../api/types'
import { useUnits } from '../../session/units'
import { Button } from '../../ui/Button'
import { Choice } from '../../ui/Choice'
import { Labelled } from '../../ui/Labelled'
import { QuantityField } from '../../ui/QuantityField'
import { TextField } from '../../ui/TextField'
import { ListField } from './ListField'
import { CAUSES, EMPTY_COUNTS, FIELDS, YES_NO, ZONES, type Field } from './fields'
import { readBlanks, readNumbers, writeBlanks, writeNumbers } from './numbers'

export type Draft = Record<string, unknown> & { kind: Test['kind']; specimen: string }
export type SpecimenPut = (changes: Record<string, unknown> | ((before: Draft) => Record<string, unknown>)) => void
type Props = {
  draft: Draft
  /** Changes, or what they are of the draft as it stands: two fields may be read at once. */
  put: SpecimenPut
  errors: ReadonlyMap<string, string>
  disabled: boolean
}

/** The readings of one specimen, by its kind. */
export function SpecimenForm({ draft, put, errors, disabled }: Props) {
  return (
    <>
      <div className="grid grid-cols-3 gap-x-4 gap-y-2 max-sm:grid-cols-2">
        {FIELDS[draft.kind].map((field) => (
          <Labelled key={field.name} words={field.words} wide={field.as === 'list' || field.as === 'blanks'}>
            <Reading field={field} draft={draft} put={put} error={errors.get(field.name)} disabled={disabled} />
          </Labelled>
        ))}
      </div>
      {draft.kind.includes('bend') && <Corners draft={draft} put={put} disabled={disabled} />}
      {draft.kind === 'hardness-hv10' && <HardnessRows draft={draft} put={put} disabled={disabled} />}
    </>
  )
}

function Reading({
  field,
  draft,
  put,
  error,
  disabled,
}: {
  field: Field
  draft: Draft
  put: Props['put']
  error: string | undefined
  disabled: boolean
}) {
  const units = useUnits()
  const value = draft[field.name]
  const set = (next: unknown) => put({ [field.name]: next })
  switch (field.as) {
    case 'quantity':
      return (
        <QuantityField
          label={field.words}
          kind={field.kind}
          path={field.name}
          value={value as number | null | undefined}
          onChange={set}
          error={error}
          disabled={disabled}
        />
      )
    case 'choice':
      return (
        <Choice
          label={field.words}
          value={value as string | null | undefined}
          options={field.options}
          none={t`not noted`}
          onChange={set}
          disabled={disabled}
          path={field.name}
        />
      )
    case 'yes-no':
      return (
        <Choice
          label={field.words}
          value={value === true ? 'yes' : value === false ? 'no' : null}
          options={YES_NO}
          none={t`not noted`}
          onChange={(next) => set(next === null ? null : next === 'yes')}
          disabled={disabled}
          path={field.name}
        />
      )
    case 'text':
      return (
        <TextField
          label={field.words}
          value={value as string | null | undefined}
          onChange={set}
          path={field.name}
          error={error}
          disabled={disabled}
        />
      )
    case 'codes':
      return (
        <ListField
          label={field.words}
          path={field.name}
          unit=""
          hint={field.hint}
          disabled={disabled}
          written={Array.isArray(value) ? value.join(', ') : ''}
          read={(text) => text.split(/[\s,;+]+/).filter(Boolean)}
          onChange={(found) => set(found ?? [])}
        />
      )
    case 'number':
      return (
        <ListField
          label={field.words}
          path={field.name}
          unit={field.unit}
          hint={t`a number`}
          disabled={disabled}
          written={typeof value === 'number' ? String(value) : ''}
          read={(text) => {
            const found = readBlanks(text)
            return found?.length === 1 && found[0] !== null ? found : null
          }}
          onChange={(found) => set(found?.[0] ?? null)}
        />
      )
    case 'blanks':
      return (
        <ListField
          label={field.words}
          path={field.name}
          unit={field.unit}
          hint={field.hint}
          disabled={disabled}
          written={Array.isArray(value) && value.length > 0 ? writeBlanks(value as (number | null)[]) : ''}
          read={readBlanks}
          onChange={set}
        />
      )
    case 'list': {
      const kind = units.kind(field.kind)
      const known = Array.isArray(value) && (value.length > 0 || EMPTY_COUNTS.includes(field.name))
      return (
        <ListField
          label={field.words}
          path={field.name}
          unit={units.unit(field.kind)}
          hint={field.hint}
          disabled={disabled}
          written={known ? writeNumbers(value as number[], kind, units.system) : ''}
          read={(text) => readNumbers(text, kind, units.system)}
          onChange={set}
        />
      )
    }
  }
}

function changedAt<T>(items: readonly T[] | null | undefined, index: number, changes: Partial<T>): T[] {
  return (items ?? []).map((one, at) => (at === index ? { ...one, ...changes } : one))
}

type Crack = { mm: number; cause?: string | null }

function Corners({ draft, put, disabled }: Omit<Props, 'errors'>) {
  const cracks = (draft.corner_cracks ?? []) as Crack[]
  const change = (index: number, next: Partial<Crack>) =>
    put((before) => ({ corner_cracks: changedAt(before.corner_cracks as Crack[] | undefined, index, next) }))
  return (
    <fieldset className="mt-3">
      <legend className="label">
        <Trans>cracks from the corners</Trans>
      </legend>
      {cracks.map((one, index) => (
        <div key={index} className="mb-1 grid grid-cols-[8rem_minmax(0,1fr)_auto] items-center gap-2">
          <QuantityField
            label={t`Corner crack ${index + 1}`}
            kind="gap"
            value={one.mm}
            onChange={(mm) => change(index, { mm: mm ?? 0 })}
            disabled={disabled}
          />
          <Choice
            label={t`Cause of corner crack ${index + 1}`}
            value={one.cause}
            options={CAUSES}
            none={t`cause not noted`}
            onChange={(cause) => change(index, { cause })}
            disabled={disabled}
          />
          {!disabled && (
            <Button look="quiet" onClick={() => put({ corner_cracks: cracks.filter((_, at) => at !== index) })}>
              <Trans>Remove</Trans>
            </Button>
          )}
        </div>
      ))}
      {!disabled && (
        <Button look="quiet" className="text-[13px]!" onClick={() => put({ corner_cracks: [...cracks, { mm: 0 }] })}>
          <Trans>Add a corner crack</Trans>
        </Button>
      )}
    </fieldset>
  )
}

type Row = { line?: string | null; zone?: string | null; values: (number | null)[] }

function HardnessRows({ draft, put, disabled }: Omit<Props, 'errors'>) {
  const rows = (draft.rows ?? []) as Row[]
  const change = (index: number, next: Partial<Row>) =>
    put((before) => ({ rows: changedAt(before.rows as Row[] | undefined, index, next) }))
  const usual = (['cap', 'root'] as const).flatMap((line) =>
    ZONES.slice(0, 5).map(([zone]) => ({ line, zone, values: [null, null, null] })),
  )
  return (
    <div>
      {rows.map((one, index) => (
        <div key={index} className="mb-1 grid grid-cols-[6rem_10rem_minmax(0,1fr)_auto] items-center gap-2">
          <TextField
            label={t`Line of row ${index + 1}`}
            placeholder={t`line`}
            value={one.line}
            onChange={(line) => change(index, { line })}
            disabled={disabled}
          />
          <Choice
            label={t`Zone of row ${index + 1}`}
            value={one.zone}
            options={ZONES}
            none={t`zone not noted`}
            onChange={(zone) => change(index, { zone })}
            disabled={disabled}
          />
          <ListField
            label={t`Values of row ${index + 1}`}
            path={`rows.${String(index)}.values`}
            unit={t`HV10`}
            hint="245; 251; 248"
            disabled={disabled}
            written={one.values.some((value) => value !== null) ? writeBlanks(one.values) : ''}
            read={readBlanks}
            onChange={(values) =>
              change(index, { values: values && values.length > 0 ? (values as (number | null)[]) : [null] })
            }
          />
          {!disabled && (
            <Button look="quiet" onClick={() => put({ rows: rows.filter((_, at) => at !== index) })}>
              <Trans>Remove</Trans>
            </Button>
          )}
        </div>
      ))}
      {!disabled && (
        <div className="flex gap-3">
          <Button
            look="quiet"
            className="text-[13px]!"
            onClick={() => put({ rows: [...rows, { line: 'cap', values: [null] }] })}
          >
            <Trans>Add a row</Trans>
          </Button>
          {rows.length === 0 && (
            <Button look="quiet" className="text-[13px]!" onClick={() => put({ rows: usual })}>
              <Trans>Lay out two lines over all zones</Trans>
            </Button>
          )}
        </div>
      )}
    </div>
  )
}
