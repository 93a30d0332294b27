import { t } from '@lingui/core/macro'
import { Trans } from '@lingui/react/macro'
import { Menu, MenuButton, MenuItem, MenuItems, MenuSeparator } from '@headlessui/react'
import { useMutation, useQueryClient } from '@tanstack/react-query'
import { useState } from 'react'
import { useNavigate } from 'react-router'

import { Refusal, api, unwrap } from '../api/client'
import type { Job } from '../api/types'
import { Button } from '../ui/Button'
import { Modal } from '../ui/Modal'
import { TextField } from '../ui/TextField'
import { useJob } from '../session/job'
import { useSession } from '../session/session'

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
                <MenuItem>
                  <button
                    type="button"
                    className="block w-full px-4 py-1.5 text-left data-focus:bg-accent-soft"
                    onClick={() => setSettings(true)}
                  >
                    <Trans>Coordinator and signatures of {job.number}</Trans>
                  </button>
                </MenuItem>
              )}
              <MenuItem>
                <button
                  type="button"
                  className="block w-full px-4 py-1.5 text-left data-focus:bg-accent-soft"
                  onClick={() => setAdding(true)}
                >
                  <Trans>Add a job</Trans>
                </button>
              </MenuItem>
            </>
          )}
        </MenuItems>
      </Menu>
      {adding && <AddJob onClose={() => setAdding(false)} />}
      {settings && job && <JobSettings job={job} onClose={() => setSettings(false)} />}
    </>
  )
}

function TwoSignatures({ value, onChange }: { value: boolean; onChange: (value: boolean) => void }) {
  return (
    <label className="flex items-start gap-2 text-[14px]">
      <input type="checkbox" className="mt-1" checked={value} onChange={(event) => onChange(event.target.checked)} />
      <span>
        <Trans>
          Ask for two signatures
          <small className="block text-[12.5px] text-steel2">
            A record counts once a second person has witnessed it; whoever declares a procedure qualified does not
            release it as well.
          </small>
        </Trans>
      </span>
    </label>
  )
}

/** What a job asks of its records. */
function JobSettings({ job, onClose }: { job: Job; onClose: () => void }) {
  const queries = useQueryClient()
  const [twoSignatures, setTwoSignatures] = useState(job.two_signatures)
  const [seen] = useState(job.coordinator)
  const [coordinator, setCoordinator] = useState<string | null>(seen)
  const save = useMutation({
    mutationFn: () =>
      unwrap(
        api.PATCH('/api/jobs/{job_id}', {
          params: { path: { job_id: job.id } },
          // Only what was changed here: the rest may have been changed by somebody else meanwhile.
          body: {
            two_signatures: twoSignatures === job.two_signatures ? null : twoSignatures,
            coordinator: (coordinator ?? '') === seen ? null : (coordinator ?? ''),
            seen,
          },
        }),
      ),
    onSuccess: async () => {
      await queries.invalidateQueries()
      onClose()
    },
  })
  const refused = save.error instanceof Refusal ? save.error.body.errors : []
  const problem = (path: string) => refused.find((one) => one.path === path)?.message
  return (
    <Modal title={t`Coordinator and signatures of ${job.number}`} open onClose={onClose}>
      <form
        className="grid gap-3"
        onSubmit={(event) => {
          event.preventDefault()
          save.mutate()
        }}
      >
        <div>
          <span className="label">{t`Responsible welding coordinator`}</span>
          <TextField
            label={t`Responsible welding coordinator`}
            value={coordinator}
            onChange={setCoordinator}
            error={problem('coordinator')}
          />
        </div>
        <TwoSignatures value={twoSignatures} onChange={setTwoSignatures} />
        {save.isError && !problem('coordinator') && (
          <p role="alert" className="text-[13px] text-breach">
            {save.error.message}
          </p>
        )}
        <div className="flex justify-end gap-2">
          <Button onClick={onClose}>
            <Trans>Not now</Trans>
          </Button>
          <Button look="main" type="submit" disabled={save.isPending}>
            <Trans>Save</Trans>
          </Button>
        </div>
      </form>
    </Modal>
  )
}

function AddJob({ onClose }: { onClose: () => void }) {
  const { choose } = useJob()
  const navigate = useNavigate()
  const queries = useQueryClient()
  const [number, setNumber] = useState<string | null>(null)
  const [title, setTitle] = useState<string | null>(null)
  const [customer, setCustomer] = useState<string | null>(null)
  const [coordinator, setCoordinator] = useState<string | null>(null)
  const [twoSignatures, setTwoSignatures] = useState(false)
  const add = useMutation({
    mutationFn: () =>
      unwrap(
        api.POST('/api/jobs', {
          body: {
            number: number ?? '',
            title: title ?? '',
            customer: customer ?? '',
            coordinator: coordinator ?? '',
            two_signatures: twoSignatures,
          },
        }),
      ),
    onSuccess: async (made) => {
      await queries.invalidateQueries({ queryKey: ['jobs'] })
      choose(made.id)
      onClose()
      void navigate('/')
    },
  })
  const refusal = add.error instanceof Refusal ? add.error : null
  const error = (path: string) => refusal?.body.errors.find((one) => one.path === path)?.message
  const placed = ['number', 'title', 'customer', 'coordinator'].some((path) => error(path))
  const fields = [
    ['number', t`Number`, number, setNumber, 'FB-28'],
    ['title', t`Title`, title, setTitle, t`Weir gate`],
    ['customer', t`Customer`, customer, setCustomer, ''],
    ['coordinator', t`Responsible welding coordinator`, coordinator, setCoordinator, ''],
  ] as const
  return (
    <Modal title={t`Add a job`} open onClose={onClose}>
      <form
        className="grid gap-3"
        onSubmit={(event) => {
          event.preventDefault()
          add.mutate()
        }}
      >
        {fields.map(([path, words, value, set, example]) => (
          <div key={path}>
            <span className="label">{words}</span>
            <TextField label={words} value={value} onChange={set} placeholder={example} error={error(path)} />
          </div>
        ))}
        <TwoSignatures value={twoSignatures} onChange={setTwoSignatures} />
        {refusal && !placed && (
          <p role="alert" className="text-[13px] text-breach">
            {refusal.message}
          </p>
        )}
        <div className="flex justify-end gap-2">
          <Button onClick={onClose}>
            <Trans>Not now</Trans>
          </Button>
          <Button look="main" type="submit" disabled={add.isPending}>
            <Trans>Add it</Trans>
          </Button>
        </div>
      </form>
    </Modal>
  )
}
