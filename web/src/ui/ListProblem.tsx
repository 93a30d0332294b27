import { Trans } from '@lingui/react/macro'
import { Link } from 'react-router'

import { Refusal } from '../api/client'
import { Notice } from './Notice'

/** Why a page of the weld list has nothing to show: without a list it says where one is made. */
export function ListProblem({ error }: { error: Error }) {
  if (!(error instanceof Refusal) || error.body.type !== '/problems/no-weld-list')
    return <Notice mark="breach">{error.message}</Notice>
  return (
    <Notice mark="unknown">
      {error.message}{' '}
      <Link className="link" to="/joints">
        <Trans>Import one, or enter its joints</Trans>
      </Link>
    </Notice>
  )
}
