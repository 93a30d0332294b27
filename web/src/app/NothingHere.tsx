import { Link } from 'react-router'

import { PageTitle } from '../ui/PageTitle'

/** An address without a page, or a page that broke. */
export function NothingHere({ broken = false }: { broken?: boolean }) {
  return (
    <div className="p-8">
      <PageTitle words={broken ? 'This page broke' : 'Nothing at this address'} className="mb-2" />
      <p className="mb-3 text-steel">
        {broken
          ? 'What was saved is safe, and what you typed last is kept in this browser. Load the page again.'
          : 'The page may have moved, or the link is not whole.'}
      </p>
      {broken ? (
        <button type="button" className="link" onClick={() => window.location.reload()}>
          Load it again
        </button>
      ) : (
        <Link className="link" to="/">
          Go to the dashboard
        </Link>
      )}
    </div>
  )
}
