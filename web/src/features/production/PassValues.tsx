import { t } from '@lingui/core/macro'
import { Trans } from '@lingui/react/macro'

import { Button } from '../../ui/Button'
import { NO_CELLS, type PassCells } from './passCells'

type Problem = { path: string; message: string }
type Props = { cells: readonly PassCells[]; onChange: (next: PassCells[]) => void; errors: readonly Problem[] }

/** Readings pass by pass, where they were taken; they are judged against the WPS. */
export function PassValues({ cells, onChange, errors }: Props) {
  const columns: readonly (readonly [keyof PassCells, string, path: string])[] = [
    ['number', t`Pass`, 'number'],
    ['current', t`Current (A)`, 'current_a'],
    ['voltage', t`Voltage (V)`, 'voltage_v'],
    ['travel', t`Travel speed (mm/min)`, 'travel_mm_min'],
    ['before', t`Before the pass (°C)`, 'before_c'],
  ]
  const said = columns.flatMap(([, words, path]) => {
    const wrong = errors.find((one) => one.path.split('.').includes(path))
    return wrong ? [`${words}: ${wrong.message}`] : []
  })
  if (cells.length === 0)
    return (
      <Button look="quiet" className="justify-self-start" onClick={() => onChange([NO_CELLS])}>
        <Trans>Add readings</Trans>
      </Button>
    )
  return (
    <div>
      <table className="w-full text-[13px]">
        <thead>
          <tr>
            {columns.map(([name, words]) => (
              <th key={name} scope="col" className="pr-1 text-left align-bottom font-normal text-steel2">
                {words}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {cells.map((row, at) => (
            <tr key={at}>
              {columns.map(([name, words]) => {
                const pass = at + 1
                return (
                  <td key={name} className="pt-1 pr-1">
                    <input
                      className="field px-1.5!"
                      inputMode="decimal"
                      autoComplete="off"
                      aria-label={t`${words}, row ${pass}`}
                      value={row[name]}
                      placeholder={name === 'number' ? String(pass) : undefined}
                      onChange={(event) =>
                        onChange(cells.map((one, here) => (here === at ? { ...one, [name]: event.target.value } : one)))
                      }
                    />
                  </td>
                )
              })}
            </tr>
          ))}
        </tbody>
      </table>
      {said.map((one) => (
        <p key={one} role="alert" className="mt-0.5 text-[12px] text-breach">
          {one}
        </p>
      ))}
      <Button look="quiet" onClick={() => onChange([...cells, NO_CELLS])}>
        <Trans>Another pass</Trans>
      </Button>
    </div>
  )
}
