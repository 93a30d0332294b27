import { t } from '@lingui/core/macro'
import { Trans } from '@lingui/react/macro'
import { Menu, MenuButton, MenuItem, MenuItems, MenuSeparator } from '@headlessui/react'
import { useState } from 'react'
import { useNavigate } from 'react-router'

import { AddJob, JobSettings } from '../features/jobs'
import { useJob } from '../session/job'
import { useSession } from '../session/session'
import { MenuAction } from '../ui/MenuEntry'

/** The job that is open; others to open; a new one. */
export function JobMenu() {
  const { jobs, job, choose } = useJob()
  const { may } = useSession()
  const navigate = useNavigate()
  const [adding, setAdding] = useState(false)
  const [settings, setSettings] = useState(false)
  return (
    <>
      <Menu>
        <MenuButton
          className="min-w-0 truncate rounded-sm px-1 py-0.5 font-head text-[16px] font-semibold hover:bg-accent-soft"
          aria-label={job ? t`Job ${job.number} ${job.title}` : t`No job`}
        >
          {job ? `${job.number} ${job.title}` : t`No job yet`}{' '}
          <span aria-hidden className="text-[12px] text-steel2">
            ▾
          </span>
        </MenuButton>
        <MenuItems
          anchor="bottom start"
          className="panel z-50 max-h-[60vh] max-w-md overflow-auto py-1 focus:outline-none"
        >
          {jobs?.map((one) => (
            <MenuItem key={one.id}>
              <button
                type="button"
                className={`block w-full px-4 py-1.5 text-left data-focus:bg-accent-soft ${one.id === job?.id ? 'font-semibold' : ''}`}
                onClick={() => {
                  choose(one.id)
                  void navigate('/')
                }}
              >
                {one.number} {one.title} <span className="text-[12.5px] font-normal text-steel2">{one.customer}</span>
              </button>
            </MenuItem>
          ))}
          {may('CREATE_JOB') && (
            <>
              <MenuSeparator className="my-1 h-px bg-line" />
              {job && (
                <MenuAction onClick={() => setSettings(true)}>
                  <Trans>Coordinator and signatures of {job.number}</Trans>
                </MenuAction>
              )}
              <MenuAction onClick={() => setAdding(true)}>
                <Trans>Add a job</Trans>
              </MenuAction>
            </>
          )}
        </MenuItems>
      </Menu>
      {adding && <AddJob onClose={() => setAdding(false)} />}
      {settings && job && <JobSettings job={job} onClose={() => setSettings(false)} />}
    </>
  )
}
