import { t } from '@lingui/core/macro'
import { Trans } from '@lingui/react/macro'
import { useQuery } from '@tanstack/react-query'

import { api, unwrap } from '../../api/client'
import { dayAndTime } from '../../domain/dayAndTime'
import { useSession } from '../../session/session'
import { Notice } from '../../ui/Notice'
import { PageTitle } from '../../ui/PageTitle'
import { MarkIcon } from '../../ui/Verdict'

/** How the server stands: what its administrator has to do comes first. */
export function OperationsPage() {
  const { may } = useSession()
  const found = useQuery({
    queryKey: ['operations'],
    queryFn: () => unwrap(api.GET('/api/operations')),
    enabled: may('KEEP_PEOPLE'),
    refetchInterval: 60_000,
    staleTime: 0,
  })
  return (
    <div className="px-5 py-4">
      <div className="mb-3 flex flex-wrap items-baseline gap-x-4 gap-y-1">
        <PageTitle words={t`Operations`} />
        {found.data && (
          <span className="text-[13px] text-steel2">
            {t`version ${found.data.version}, as of ${dayAndTime(found.data.at)}`}
          </span>
        )}
      </div>
      {!may('KEEP_PEOPLE') && (
        <Notice mark="unknown">
          <Trans>An administrator looks after the server.</Trans>
        </Notice>
      )}
      {found.isError && <Notice mark="breach">{found.error.message}</Notice>}
      {found.data && (
        <div className="panel max-w-4xl overflow-x-auto">
          <table className="w-full text-[14px]">
            <thead className="sr-only">
              <tr>
                <th scope="col">{t`What`}</th>
                <th scope="col">{t`How it stands`}</th>
              </tr>
            </thead>
            <tbody>
              {found.data.facts.map((one) => (
                <tr key={one.what + one.said} className="border-b border-line align-top last:border-b-0">
                  <th scope="row" className="w-56 px-3 py-2 text-left font-medium break-words">
                    {one.what}
                  </th>
                  <td className="px-2 py-2">
                    <span className="flex items-baseline gap-2">
                      <MarkIcon mark={one.mark} size={10} />
                      <span className="min-w-0 break-words">
                        {one.said}
                        {one.todo && <span className="block text-[13px] text-steel2">{one.todo}</span>}
                      </span>
                    </span>
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
        </div>
      )}
    </div>
  )
}
