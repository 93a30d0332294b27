import { plural, t } from '@lingui/core/macro'
import { Trans } from '@lingui/react/macro'
import { useQuery } from '@tanstack/react-query'

import type { Dossier } from '../../api/types'
import { dossierQuery } from '../../queries/production'
import { useJob } from '../../session/job'
import { Notice } from '../../ui/Notice'
import { MarkIcon } from '../../ui/Verdict'
import { ProductionHead } from './ProductionHead'

/** The final documentation: what it still lacks, and its files. */
export function DocumentationPage() {
  const { job } = useJob()
  return job ? <OfJob key={job.id} jobId={job.id} /> : <ProductionHead more={t`Documentation`} />
}

function OfJob({ jobId }: { jobId: number }) {
  const found = useQuery(dossierQuery(jobId))
  const path = `/api/jobs/${String(jobId)}/dossier`
  return (
    <div className="px-5 py-4">
      <ProductionHead more={t`Documentation`} />
      {found.isError && <Notice mark="breach">{found.error.message}</Notice>}
      {found.data && (
        <>
          <Counts found={found.data} />
          <OpenPoints found={found.data} />
          <p className="mt-3 flex flex-wrap gap-5">
            <a className="link" href={`${path}/print`} target="_blank" rel="noreferrer">
              <Trans>Open as one PDF</Trans>
            </a>
            <a className="link" href={`${path}/file`}>
              <Trans>Download the open files as ZIP</Trans>
            </a>
          </p>
          <p className="mt-2 max-w-2xl text-[13px] text-steel2">
            <Trans>
              The ZIP holds the weld list, every weld with its results, the WPSs and records as the very bytes that were
              signed, the signatures, and the SHA-256 of each file. Equal contents give an equal file.
            </Trans>
          </p>
        </>
      )}
    </div>
  )
}

function Counts({ found }: { found: Dossier }) {
  const { expected, made, released } = found
  const share = expected > 0 ? (100 * released) / expected : 0
  return (
    <div className="panel mb-3 px-4 py-3">
      <p className="flex flex-wrap items-baseline gap-x-6 font-head text-[17px]">
        <span>
          <Trans>
            <b>{released}</b> of {expected} welds released
          </Trans>
        </span>
        <span>
          <Trans>
            <b>{made}</b> logged
          </Trans>
        </span>
      </p>
      <svg viewBox="0 0 100 4" preserveAspectRatio="none" className="mt-2 block h-2 w-full" aria-hidden="true">
        <rect width="100" height="4" className="fill-line" />
        <rect width={expected > 0 ? (100 * made) / expected : 0} height="4" className="fill-accent opacity-35" />
        <rect width={share} height="4" className="fill-accent" />
      </svg>
    </div>
  )
}

function OpenPoints({ found }: { found: Dossier }) {
  if (found.open.length === 0)
    return (
      <Notice mark="holds">
        <Trans>Nothing is open: every weld of the list is logged, accepted and released.</Trans>
      </Notice>
    )
  return (
    <section className="panel px-4 py-3" aria-label={t`Open points`}>
      <h2 className="mb-1 font-head text-[17px] font-semibold">
        {plural(found.open.length, { one: '# open point', other: '# open points' })}
      </h2>
      <ul className="grid gap-2">
        {found.open.map((one) => (
          <li key={one.said}>
            <span className="flex items-baseline gap-1.5">
              <MarkIcon mark="unknown" size={10} silent />
              {one.said}
              {one.count > 0 && (
                <>
                  : <b>{one.count}</b>
                </>
              )}
            </span>
            <span className="block text-[12.5px] text-steel2">
              {one.marks.join(', ')}
              {one.count > one.marks.length && ' …'}
            </span>
          </li>
        ))}
      </ul>
    </section>
  )
}
