import { t } from '@lingui/core/macro'
import { Trans } from '@lingui/react/macro'
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import { useEffect, useState } from 'react'
import { Link, useNavigate, useSearchParams } from 'react-router'

import { api, unwrap } from '../../api/client'
import { useJob } from '../../session/job'
import { useSession } from '../../session/session'
import { useUnits } from '../../session/units'
import { EMPTY } from '../../domain/procedure'
import { inWords, codeWords } from '../../domain/words'
import { Button } from '../../ui/Button'
import { Modal } from '../../ui/Modal'
import { Notice } from '../../ui/Notice'
import { PageTitle } from '../../ui/PageTitle'
import { TextField } from '../../ui/TextField'
import { MarkIcon } from '../../ui/Verdict'
import { ImportDialog } from './ImportDialog'
import { proceduresQuery } from '../../queries/procedures'

/** All procedures of the job. */
export function ProceduresPage() {
  // What is opened from here is fetched meanwhile: the network may be gone by then.
  useEffect(() => void import('./ProcedurePage'), [])
  const { job } = useJob()
  const procedures = useQuery({ ...proceduresQuery(job?.id ?? 0), enabled: job !== undefined })
  const { may, codes } = useSession()
  const units = useUnits()
  const navigate = useNavigate()
  const [params, setParams] = useSearchParams()
  const close = () => setParams({}, { replace: true })
  const short = (id: string) => codes.find((one) => one.id === id)?.short
  return (
    <div className="px-5 py-4">
      <div className="mb-3 flex flex-wrap items-center gap-2">
        <PageTitle words={t`Procedures`} className="mr-auto" />
        {may('IMPORT') && (
          <Button onClick={() => setParams({ import: '1' })}>
            <Trans>Import</Trans>
          </Button>
        )}
        {may('WRITE_PROCEDURE') && (
          <>
            <Button onClick={() => setParams({ new: '1' })}>
              <Trans>Draft a procedure</Trans>
            </Button>
            <Button look="main" onClick={() => void navigate('/procedures/draft')}>
              <Trans>Draft from six answers</Trans>
            </Button>
          </>
        )}
      </div>
      {procedures.isError && <Notice mark="breach">{procedures.error.message}</Notice>}
      {procedures.data?.length === 0 && (
        <p className="panel p-6 text-steel">
          <Trans>No procedure in this job yet. Draft the first one, or import one from a file.</Trans>
        </p>
      )}
      {procedures.data && procedures.data.length > 0 && (
        <div className="overflow-x-auto">
          <table className="panel w-full text-[13px]">
            <thead className="label text-left">
              <tr className="border-b border-line">
                {[
                  t`Number`,
                  t`Title`,
                  t`Code`,
                  t`Process`,
                  t`Position`,
                  t`Thickness, ${units.unit('thickness')}`,
                  t`Passes`,
                  t`Stage`,
                  t`Checks`,
                  t`Next step`,
                ].map((words) => (
                  <th key={words} className="px-2.5 py-1.5 font-medium">
                    {words}
                  </th>
                ))}
              </tr>
            </thead>
            <tbody>
              {procedures.data.map((one) => (
                <tr key={one.id} className="border-b border-hair hover:bg-accent-soft">
                  <td className="px-2.5 py-2 font-semibold whitespace-nowrap">
                    <Link className="link" to={`/procedures/${String(one.id)}`}>
                      {one.number}
                    </Link>{' '}
                    <span className="font-normal text-steel2">{one.letter}</span>
                  </td>
                  <td className="min-w-44 px-2.5 py-2 [overflow-wrap:anywhere]">{one.title}</td>
                  <td className="px-2.5 py-2">{codeWords(one.code_id, one.code_level, short(one.code_id))}</td>
                  <td className="px-2.5 py-2">{one.processes.join(' + ')}</td>
                  <td className="px-2.5 py-2">{one.positions.join(', ')}</td>
                  <td className="px-2.5 py-2 whitespace-nowrap">
                    {one.thickness_min_mm != null && one.thickness_max_mm != null
                      ? [
                          ...new Set(
                            [one.thickness_min_mm, one.thickness_max_mm].map((value) =>
                              units.value(value, 'thickness'),
                            ),
                          ),
                        ].join(t` to `)
                      : '—'}
                  </td>
                  <td className="px-2.5 py-2">{one.pass_count}</td>
                  <td className="px-2.5 py-2">{inWords(one.stage)}</td>
                  <td className="px-2.5 py-2 whitespace-nowrap">
                    <Counts breaches={one.breaches} cautions={one.cautions} open={one.open_questions} />
                  </td>
                  <td className="px-2.5 py-2">
                    {one.damaged ? (
                      <span className="font-semibold text-breach" title={one.damaged}>
                        {one.next_step}
                      </span>
                    ) : (
                      one.next_step
                    )}
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
        </div>
      )}
      {job && <NewDialog jobId={job.id} open={params.has('new')} onClose={close} />}
      {job && params.has('import') && <ImportDialog jobId={job.id} open onClose={close} />}
    </div>
  )
}

export function Counts({ breaches, cautions, open }: { breaches: number; cautions: number; open: number }) {
  if (breaches + cautions + open === 0)
    return (
      <span className="inline-flex items-center gap-1">
        <MarkIcon mark="holds" /> <Trans>all hold</Trans>
      </span>
    )
  return (
    <span className="inline-flex items-center gap-1">
      {breaches > 0 && (
        <>
          <MarkIcon mark="breach" /> <span className="mr-1.5">{breaches}</span>
        </>
      )}
      {cautions > 0 && (
        <>
          <MarkIcon mark="caution" /> <span className="mr-1.5">{cautions}</span>
        </>
      )}
      {open > 0 && (
        <>
          <MarkIcon mark="unknown" /> <span>{open}</span>
        </>
      )}
    </span>
  )
}

function NewDialog({ jobId, open, onClose }: { jobId: number; open: boolean; onClose: () => void }) {
  const navigate = useNavigate()
  const queries = useQueryClient()
  const [title, setTitle] = useState<string | null>(null)
  const create = useMutation({
    mutationFn: () =>
      unwrap(
        api.POST('/api/jobs/{job_id}/procedures', {
          params: { path: { job_id: jobId } },
          body: { document: { ...EMPTY, title } },
        }),
      ),
    onSuccess: (made) => {
      void queries.invalidateQueries({ queryKey: ['procedures'] })
      void navigate(`/procedures/${String(made.id)}`)
    },
  })
  return (
    <Modal title={t`Draft a procedure`} open={open} onClose={onClose}>
      <form
        className="grid gap-3"
        onSubmit={(event) => {
          event.preventDefault()
          create.mutate()
        }}
      >
        <div>
          <span className="label">
            <Trans>Title</Trans>
          </span>
          <TextField
            label={t`Title`}
            value={title}
            onChange={setTitle}
            placeholder={t`Girder butt, flat`}
            error={create.isError ? create.error.message : undefined}
          />
        </div>
        <p className="text-[13px] text-steel2">
          <Trans>It gets the job&rsquo;s next number. Everything else is typed on the page itself.</Trans>
        </p>
        <div className="flex justify-end gap-2">
          <Button onClick={onClose}>
            <Trans>Not now</Trans>
          </Button>
          <Button look="main" type="submit" disabled={create.isPending}>
            <Trans>Draft it</Trans>
          </Button>
        </div>
      </form>
    </Modal>
  )
}
