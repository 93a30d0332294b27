import { Trans } from '@lingui/react/macro'
import { useQuery } from '@tanstack/react-query'

import { Notice } from '../../ui/Notice'
import { damagedQuery, type RecordKind } from '../../queries/library'

/** Own records that cannot be read. */
export function Damaged({ kind }: { kind: RecordKind }) {
  const found = useQuery(damagedQuery(kind))
  return (
    <>
      {found.data?.map((one) => (
        <Notice key={one.id} mark="breach" className="mb-2 text-[13px]">
          <Trans>
            <b>{one.name}</b> is damaged. {one.damaged}
          </Trans>
        </Notice>
      ))}
    </>
  )
}
