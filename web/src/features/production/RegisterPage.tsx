import { t } from '@lingui/core/macro'
import { Trans } from '@lingui/react/macro'
import { useQuery } from '@tanstack/react-query'
import { useState } from 'react'

import type { Register } from '../../api/types'
import { registerQuery } from '../../queries/production'
import { useJob } from '../../session/job'
import { Button } from '../../ui/Button'
import { Notice } from '../../ui/Notice'
import { ProductionHead } from './ProductionHead'

const AT_FIRST = 100

/** Who signed what in the job, and who is responsible for its welding. */
export function RegisterPage() {
  const { job } = useJob()
  return (
    <div className="px-5 py-4">
      <ProductionHead more={t`Signatures`} />
      {job && <OfJob key={job.id} jobId={job.id} />}
    </div>
  )
}

function OfJob({ jobId }: { jobId: number }) {
  const found = useQuery(registerQuery(jobId))
  if (found.isError) return <Notice mark="breach">{found.error.message}</Notice>
  if (!found.data)
    return (
      <p className="text-steel" role="status">
        <Trans>Looking …</Trans>
      </p>
    )
  const { coordinator } = found.data
  return (
    <>
      <div className="mb-3 flex flex-wrap items-baseline gap-x-6 gap-y-1">
        <p>
          <span className="text-steel">{t`Responsible welding coordinator:`}</span>{' '}
          <b>{coordinator || t`not named; an engineer names one in the menu of the job`}</b>
        </p>
        <a className="link" href={`/api/jobs/${String(jobId)}/register/file?kind=xlsx`}>
          <Trans>Download as XLSX</Trans>
        </a>
      </div>
      <Table lines={found.data.lines} />
    </>
  )
}

function Table({ lines }: { lines: Register['lines'] }) {
  const [all, setAll] = useState(false)
  const shown = all ? lines : lines.slice(0, AT_FIRST)
  const count = lines.length
  if (count === 0)
    return (
      <p className="text-steel" role="status">
        <Trans>Nothing is signed in this job yet.</Trans>
      </p>
    )
  return (
    <>
      <div className="panel overflow-x-auto" tabIndex={0} role="region" aria-label={t`Register of signatures`}>
        <table className="w-full text-[14px]">
          <thead>
            <tr className="border-b border-line text-left font-head">
              {[t`When`, t`Name`, t`Role`, t`Signed`, t`What it says`, 'SHA-256'].map((one) => (
                <th key={one} scope="col" className="px-3 py-1.5">
                  {one}
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {shown.map((one) => (
              <tr key={`${one.at} ${one.of} ${one.purpose}`} className="border-b border-line align-top">
                <td className="px-3 py-1.5 whitespace-nowrap">{one.at.slice(0, 16).replace('T', ' ')}</td>
                <td className="px-3 py-1.5">{one.name}</td>
                <td className="px-3 py-1.5">{one.role}</td>
                <td className="px-3 py-1.5">{one.of}</td>
                <td className="px-3 py-1.5">
                  {one.purpose}
                  {one.reason && <span className="text-steel">: {one.reason}</span>}
                </td>
                <td className="px-3 py-1.5 text-[13px] text-steel2" title={one.sha256}>
                  {one.sha256.slice(0, 12)}
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      </div>
      {!all && count > AT_FIRST && (
        <Button look="quiet" className="mt-2" onClick={() => setAll(true)}>
          {t`Show all ${count}`}
        </Button>
      )}
    </>
  )
}
