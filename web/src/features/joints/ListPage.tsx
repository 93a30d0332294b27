import { plural, t } from '@lingui/core/macro'
import { Trans } from '@lingui/react/macro'
import { Menu, MenuButton, MenuItems } from '@headlessui/react'
import { useQuery } from '@tanstack/react-query'
import { useState } from 'react'

import { weldListQuery } from '../../queries/joints'
import { useJob } from '../../session/job'
import { Button } from '../../ui/Button'
import { Notice } from '../../ui/Notice'
import { CodeOfList } from './CodeOfList'
import { ImportDialog } from './ImportDialog'
import { JointGrid } from './JointGrid'
import { JointsHead } from './JointsHead'
import { Answered, Questions } from './Questions'
import { MenuFile } from '../../ui/MenuEntry'

/** The weld list of the job: imported, edited in the grid, exported. */
export function ListPage() {
  const { job } = useJob()
  return job ? <OfJob key={job.id} jobId={job.id} /> : <JointsHead more={t`Weld list`} />
}

function OfJob({ jobId }: { jobId: number }) {
  const list = useQuery(weldListQuery(jobId))
  const [taking, setTaking] = useState(false)
  const rows = list.data?.rows ?? []
  const joints = rows.length
  const wrong = rows.filter((row) => row.problems.length > 0).length
  return (
    <div className="flex h-full min-h-0 flex-col px-5 py-4">
      <JointsHead more={t`Weld list`} code={list.data?.code}>
        <span className="text-steel2">
          {plural(joints, { one: '# joint', other: '# joints' })}
          {wrong > 0 && <span className="ml-2 text-breach">{t`${wrong} with something to correct`}</span>}
        </span>
        {list.data && <CodeOfList jobId={jobId} list={list.data} />}
        <span className="ml-auto flex gap-2">
          <Button onClick={() => setTaking(true)}>
            <Trans>Import a list</Trans>
          </Button>
          {joints > 0 && <Export jobId={jobId} />}
        </span>
      </JointsHead>
      {list.isError && <Notice mark="breach">{list.error.message}</Notice>}
      {list.data && list.data.questions.length > 0 && <Questions jobId={jobId} list={list.data} />}
      {list.data && <Answered jobId={jobId} list={list.data} />}
      {list.data && joints === 0 && (
        <p className="panel mb-3 p-4 text-steel">
          <Trans>
            No joint yet. Import the drawing office’s list from CSV or XLSX, whatever its columns are called, or type
            and paste joints into the rows below.
          </Trans>
        </p>
      )}
      {list.data && <JointGrid jobId={jobId} list={list.data} />}
      {taking && <ImportDialog jobId={jobId} onClose={() => setTaking(false)} />}
    </div>
  )
}

const KINDS = [
  ['xlsx', t`Weld list as XLSX`],
  ['csv', t`Weld list as CSV`],
  ['json', t`Weld list with its records as JSON`],
] as const

function Export({ jobId }: { jobId: number }) {
  return (
    <Menu>
      <MenuButton className="rounded-sm border border-line bg-panel px-3 py-1.5 font-head text-[15px] font-medium hover:border-edge">
        <Trans>Export</Trans>
      </MenuButton>
      <MenuItems anchor="bottom end" className="panel z-50 min-w-48 py-1 focus:outline-none">
        {KINDS.map(([kind, words]) => (
          <MenuFile key={kind} download href={`/api/jobs/${String(jobId)}/weld-list/file?kind=${kind}`}>
            {words}
          </MenuFile>
        ))}
      </MenuItems>
    </Menu>
  )
}
