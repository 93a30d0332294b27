import { plural, t } from '@lingui/core/macro'
import { Trans } from '@lingui/react/macro'
import { useMutation } from '@tanstack/react-query'
import { Link, useNavigate } from 'react-router'
import { api, unwrap } from '../../api/client'
import type { Revision } from '../../api/types'
import { useSession } from '../../session/session'
import { Notice } from '../../ui/Notice'
import { useDraft } from './useDraft'
import { inWords } from '../../domain/words'

export function Banner({ draft, revision }: { draft: ReturnType<typeof useDraft>; revision: Revision }) {
  const navigate = useNavigate()
  const { may } = useSession()
  const next = useMutation({
    mutationFn: () =>
      unwrap(api.POST('/api/revisions/{revision_id}/next', { params: { path: { revision_id: revision.id } } })),
    onSuccess: (made) => void navigate(`/procedures/${String(made.id)}`),
  })
  const later = revision.siblings.filter((one) => one.id > revision.id).at(-1)
  return (
    <>
      {revision.frozen && (
        <Notice mark="unknown" className="mb-3 border-line! text-[13px]">
          <Trans>Revision {revision.letter} is frozen:</Trans>{' '}
          {revision.coupons.length === 0 && t`it is ${inWords(revision.stage)}.`}
          {revision.coupons.map((one, index) => (
            <span key={one.id}>
              {index > 0 && ', '}
              <Link className="link" to={`/coupons/${String(one.id)}`}>
                {one.number}
              </Link>
            </span>
          ))}
          {revision.coupons.length > 0 &&
            ` ${plural(revision.coupons.length, { one: 'was started from it.', other: 'were started from it.' })}`}{' '}
          {later ? (
            <Link className="link" to={`/procedures/${String(later.id)}`}>
              <Trans>Open revision {later.letter}</Trans>
            </Link>
          ) : (
            may('WRITE_PROCEDURE') && (
              <button type="button" className="link" disabled={next.isPending} onClick={() => next.mutate()}>
                <Trans>Begin the next revision</Trans>
              </button>
            )
          )}
          {next.isError && (
            <span role="alert" className="text-breach">
              {' '}
              {next.error.message}
            </span>
          )}
        </Notice>
      )}
      {draft.mergedWith && (
        <Notice mark="holds">
          <Trans>Merged with what {draft.mergedWith} saved meanwhile: each of you changed other fields.</Trans>
        </Notice>
      )}
      {draft.restored && draft.state !== 'saved' && draft.state !== 'conflict' && (
        <Notice className="mb-3 text-[13px]">
          <Trans>Brought back what was typed here and not saved last time.</Trans>
        </Notice>
      )}
      {draft.state === 'refused' && (
        <Notice mark="breach" className="mb-3 text-[13px]">
          <Trans>Not saved. </Trans>
          {draft.errors.length > 0
            ? draft.errors.map((one) => `${one.path}: ${one.message}`).join('; ')
            : draft.message}
          <Trans> What you typed is kept on this page.</Trans>
        </Notice>
      )}
      {draft.state === 'no-answer' && (
        <Notice mark="breach" className="mb-3 text-[13px]">
          <Trans>{draft.message} It is sent again by itself.</Trans>
        </Notice>
      )}
    </>
  )
}
