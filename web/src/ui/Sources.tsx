import { Trans } from '@lingui/react/macro'
import type { Citation } from '../api/types'
import { PROVENANCE } from '../domain/words'

/** Where numbers come from: the first at once, the others on asking. */
export function Sources({ citations }: { citations: readonly Citation[] }) {
  const lines = citations.map((one) => {
    const place = [one.edition ? `${one.document}:${one.edition}` : one.document, one.clause].filter(Boolean).join(', ')
    const provenance = PROVENANCE[one.provenance] ?? one.provenance
    return one.document === provenance ? place : `${place} · ${provenance}`
  })
  const [first, ...others] = lines
  if (!first) return null
  if (others.length === 0) return <p className="mt-0.5 text-[11.5px] text-steel2">{first}</p>
  return (
    <details className="mt-0.5 text-[11.5px] text-steel2">
      <summary>
        <Trans>
          {first} · {others.length} more
        </Trans>
      </summary>
      {others.map((line) => (
        <p key={line}>{line}</p>
      ))}
    </details>
  )
}
