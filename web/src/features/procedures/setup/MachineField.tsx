import { t } from '@lingui/core/macro'
import { Trans } from '@lingui/react/macro'
import { useQuery } from '@tanstack/react-query'
import { Link } from 'react-router'

import type { Machine, Procedure } from '../../../api/types'
import { machinesOf, withMachine } from '../../../domain/library'
import { Choice } from '../../../ui/Choice'
import { recordsQuery } from '../../../queries/library'

type Props = {
  document: Procedure
  numbers: readonly number[]
  value: string | null | undefined
  path: string
  disabled: boolean
  onChange: (change: (before: Procedure) => Procedure) => void
}

/** The machine of a pass, from the library; its record goes along with the procedure. */
export function MachineField({ document, numbers, value, path, disabled, onChange }: Props) {
  const found = useQuery(recordsQuery('machine'))
  const records = (found.data ?? []).map((one) => one.document as Machine)
  const taken = machinesOf(document).find((one) => one.name === value)
  const record = records.find((one) => one.name === value)
  const names = [...new Set([...records.map((one) => one.name), ...(value ? [value] : [])])]
  // The supply it is connected to may differ here from the library's; all else should not.
  const changed =
    taken && record && JSON.stringify({ ...taken, connected: null }) !== JSON.stringify({ ...record, connected: null })
  const take = (machine: Machine | undefined, name: string | null) =>
    onChange((before) => withMachine(before, numbers, name, machine))
  return (
    <div className="min-w-0">
      <div className="grid gap-1">
        <Choice
          label={t`Machine`}
          path={path}
          value={value}
          none={t`not stated`}
          disabled={disabled}
          options={names.map((name) => [name, name] as const)}
          onChange={(name) =>
            take(
              records.find((one) => one.name === name),
              name,
            )
          }
        />
        {taken && taken.supplies.length > 1 && (
          <Choice
            label={t`Machine's supply`}
            value={taken.connected ?? taken.supplies[0]?.name}
            disabled={disabled}
            options={taken.supplies.map((one) => [one.name, `on ${one.name}`] as const)}
            onChange={(connected) => take({ ...taken, connected }, taken.name)}
          />
        )}
      </div>
      {records.length === 0 && found.data && !disabled && (
        <p className="mt-0.5 text-[12px] text-steel2">
          <Trans>
            No machine in the library.{' '}
            <Link className="link" to="/library/machines">
              Add one in the library
            </Link>
          </Trans>
        </p>
      )}
      {changed && !disabled && (
        <p className="mt-0.5 text-[12px] text-caution">
          <Trans>Its record has changed in the library. </Trans>
          <button
            type="button"
            className="link"
            onClick={() => take({ ...record, connected: taken.connected ?? null }, record.name)}
          >
            <Trans>Take it over</Trans>
          </button>
        </p>
      )}
    </div>
  )
}
