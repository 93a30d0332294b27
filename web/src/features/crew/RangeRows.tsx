import { t } from '@lingui/core/macro'

import type { RangeItem, WelderVariable } from '../../api/types'
import { RangeCell } from '../../ui/RangeCell'

const WELDS: Record<string, string> = { groove: t`groove welds`, fillet: t`fillet welds` }
const PIPES: Record<string, string> = { fixed: t`fixed pipe`, turning: t`turning pipe` }

/** A range of qualification, variable by variable. */
export function RangeRows({ items, variables }: { items: readonly RangeItem[]; variables: readonly WelderVariable[] }) {
  const known = new Map(variables.map((one) => [one.name, one]))
  return (
    <table className="mt-2 w-full table-fixed text-[13px]" aria-label={t`Range of qualification`}>
      <tbody>
        {items.map((item, at) => {
          const variable = known.get(item.variable)
          const scope = [item.process, item.weld && WELDS[item.weld], PIPES[item.how]].filter(Boolean).join(', ')
          return (
            <tr key={`${item.variable} ${String(at)}`} className="border-t border-hair align-top">
              <th scope="row" className="w-52 py-1 pr-2 text-left font-medium">
                {variable?.title ?? item.variable}
                {scope && <small className="block font-normal text-steel2">{scope}</small>}
              </th>
              <td className="py-1">
                <RangeCell item={item} quantity={variable?.quantity ?? ''} others={[item]} />
              </td>
            </tr>
          )
        })}
      </tbody>
    </table>
  )
}
