import { t } from '@lingui/core/macro'
import { Trans } from '@lingui/react/macro'
import { Link } from 'react-router'

import { PageTitle } from './PageTitle'

/** An address without a page, or a page that broke. */
export function NothingHere({ broken = false }: { broken?: boolean }) {
  return (
    <div className="p-8">
      <PageTitle words={broken ? t`This page broke` : t`Nothing at this address`} className="mb-2" />
      <p className="mb-3 text-steel">
        {broken
          ? t`What was saved is safe, and what you typed last is kept in this browser. Load the page again.`
          : t`The page may have moved, or the link is not whole.`}
      </p>
      {broken ? (
        <button type="button" className="link" onClick={() => window.location.reload()}>
          <Trans>Load it again</Trans>
        </button>
      ) : (
        <Link className="link" to="/">
          <Trans>Go to the dashboard</Trans>
        </Link>
      )}
    </div>
  )
}
