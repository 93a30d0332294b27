import { Trans } from '@lingui/react/macro'
import { keepPreviousData, useQuery } from '@tanstack/react-query'

import type { BeadSettings, Bracket, Procedure, Range } from '../../api/types'
import { beadOfPassQuery } from '../../queries/calculators'
import { Notice } from '../../ui/Notice'
import { TrySettings } from '../bead'

const NO_LIMIT = 100_000

type Props = { document: Procedure; selected: number; brackets: readonly Bracket[] }

/** The selected pass in the middle of its ranges, to be tried inside what the procedure and its records allow. */
export function TryPass({ document, selected, brackets }: Props) {
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
        </Trans>
      </p>
      <TrySettings
        key={JSON.stringify(found.data.settings)}
        start={found.data.settings as BeadSettings}
        limits={found.data.limits}
        fixed
      />
    </>
  )
}

/** Qualified ranges of one pass, by field; an open end is no limit. */
export function qualifiedOf(brackets: readonly Bracket[], index: number): Record<string, Range> {
  const before = `passes.${index}.`
  return Object.fromEntries(
    brackets
      .filter((one) => one.path.startsWith(before))
      .map((one) => [one.path.slice(before.length), { min: one.min ?? 0, max: one.max ?? NO_LIMIT }]),
  )
}
