import { Trans } from '@lingui/react/macro'
import type { UseQueryResult } from '@tanstack/react-query'
import { Link } from 'react-router'

import type { Use } from '../../api/types'

/** In which procedures something is used. */
export function Used({ found }: { found: UseQueryResult<Use[]> }) {
  if (found.isError) return <p className="text-[13px] text-breach">{found.error.message}</p>
  if (!found.data)
    return (
      <p className="text-[13px] text-steel2">
        <Trans>Looking …</Trans>
      </p>
    )
  if (found.data.length === 0)
    return (
      <p className="text-[13px] text-steel2">
        <Trans>In no procedure yet.</Trans>
      </p>
    )
  return (
    <ul className="text-[13px]">
      {found.data.map((one) => (
        <li key={one.revision_id} className="truncate">
          <Link className="link" to={`/procedures/${String(one.revision_id)}`}>
            {one.number} {one.letter}
          </Link>{' '}
          <span className="text-steel2">{one.title}</span>
        </li>
      ))}
    </ul>
  )
}
