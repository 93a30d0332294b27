import { t } from '@lingui/core/macro'
import { Trans } from '@lingui/react/macro'
import { keepPreviousData, useQuery } from '@tanstack/react-query'

import { Sources } from '../../ui/Sources'
import { equivalentsQuery } from '../../queries/calculators'
import { fixed } from '../../session/language'

/** Every equivalent of a composition, with its use; nothing while there is none. */
export function EquivalentsTable({ chemistry }: { chemistry: Record<string, number> }) {
  const any = Object.keys(chemistry).length > 0
  const found = useQuery({
    ...equivalentsQuery(chemistry),
    enabled: any,
    placeholderData: keepPreviousData,
    retry: false,
  })
  if (!any) return null
  if (found.isError)
    return (
      <p role="alert" className="mt-1 text-[13px] text-breach">
        {found.error.message}
      </p>
    )
  if (!found.data) return null
  return (
    <>
      {found.data.hint && (
        <p role="status" className="mt-2 text-[13px] text-caution">
          {found.data.hint}
        </p>
      )}
      <table className="mt-2 w-full text-[13px] tabular-nums">
        <tbody>
          {found.data.items.map((one) => (
            <tr key={one.key} className="border-t border-hair align-top">
              <th className="py-1 pr-3 text-left font-head text-[14px] font-semibold whitespace-nowrap">{one.words}</th>
              <td className="py-1 pr-3 text-[16px] font-semibold">
                {one.value == null ? '—' : fixed(one.value, one.decimals)}
              </td>
              <td className="py-1 text-steel">
                {one.value == null ? t`needs ${one.missing.join(t` and `)}` : one.use}
                {one.value != null && one.taken_as_zero.length > 0 && (
                  <span className="text-steel2">
                    <Trans>; {one.taken_as_zero.join(', ')} taken as zero</Trans>
                  </span>
                )}
                <Sources citations={[one.citation]} />
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </>
  )
}
