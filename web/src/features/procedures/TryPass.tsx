import { Trans } from '@lingui/react/macro'
import { keepPreviousData, useQuery } from '@tanstack/react-query'
import { Link, useNavigate } from 'react-router'

import type { BeadSettings, Bracket, Procedure } from '../../api/types'
import { qualifiedOf } from '../../domain/qualified'
import { triedOf } from '../../domain/tried'
import { beadOfPassQuery } from '../../queries/calculators'
import { Notice } from '../../ui/Notice'
import { TrySettings } from '../bead'

type Props = { document: Procedure; selected: number; brackets: readonly Bracket[]; revisionId: number }

/** The selected pass in the middle of its ranges, to be tried inside what the procedure and its records allow. */
export function TryPass({ document, selected, brackets, revisionId }: Props) {
  const navigate = useNavigate()
  const index = document.passes.findIndex((one) => one.number === selected)
  const found = useQuery({
    ...beadOfPassQuery({ procedure: document, index: Math.max(index, 0), qualified: qualifiedOf(brackets, index) }),
    enabled: index >= 0,
    placeholderData: keepPreviousData,
    retry: false,
  })
  if (found.isError) return <Notice mark="caution">{found.error.message}</Notice>
  if (!found.data) return null
  return (
    <>
      <p className="mb-3 max-w-[80ch] text-[13px] text-steel2">
        <Trans>
          Pass {selected} in the middle of its ranges. What is changed here is tried only and changes no procedure. A
          model with the error beside each figure; weld a trial piece.
        </Trans>{' '}
        <Link className="link" to={`/faults?revision=${revisionId}&at=${selected}`}>
          <Trans>Find a fault on this pass</Trans>
        </Link>
      </p>
      <TrySettings
        key={JSON.stringify(found.data.settings)}
        start={found.data.settings as BeadSettings}
        limits={found.data.limits}
        fixed
        onLog={(settings) =>
          void navigate(`/procedures/${revisionId}/scrap`, { state: { tried: triedOf(selected, settings) } })
        }
      />
    </>
  )
}
