import { plural, t } from '@lingui/core/macro'
import { Trans } from '@lingui/react/macro'
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import { useState } from 'react'

import { api, unwrap } from '../../api/client'
import { useSession } from '../../session/session'
import { Button } from '../../ui/Button'
import { Labelled } from '../../ui/Labelled'
import { Modal } from '../../ui/Modal'
import { Notice } from '../../ui/Notice'
import { TextField } from '../../ui/TextField'
import { recordersQuery } from '../../queries/recordings'
import { locale } from '../../session/language'

/** The devices that record volts and amps: who may stream, and whose columns are known. */
export function RecordersTab({ text }: { text: string }) {
  const { may } = useSession()
  const queries = useQueryClient()
  const found = useQuery(recordersQuery)
  const [adding, setAdding] = useState(false)
  const retire = useMutation({
    mutationFn: (id: number) =>
      unwrap(api.POST('/api/recorders/{recorder_id}/retire', { params: { path: { recorder_id: id } } })),
    onSettled: () => queries.invalidateQueries({ queryKey: ['recorders'] }),
  })
  const rows = (found.data ?? []).filter((one) => one.name.toLowerCase().includes(text.trim().toLowerCase()))
  return (
    <>
      <div className="mb-2 flex items-center gap-4">
        <p role="status" className="text-[13px] text-steel2">
          {found.data ? plural(rows.length, { one: '# recorder', other: '# recorders' }) : ''}
        </p>
        {may('KEEP_LIBRARY') && (
          <Button className="ml-auto" onClick={() => setAdding(true)}>
            <Trans>Add a recorder</Trans>
          </Button>
        )}
      </div>
      {found.isError && <Notice mark="breach">{found.error.message}</Notice>}
      {retire.isError && <Notice mark="breach">{retire.error.message}</Notice>}
      {found.data?.length === 0 && (
        <p className="panel p-6 text-steel">
          <Trans>
            No recorder yet. Add one: it gets a token to stream with, and the columns of its files are remembered.
          </Trans>
        </p>
      )}
      {rows.length > 0 && (
        <table className="panel w-full text-[14px]">
          <thead className="label text-left">
            <tr className="border-b border-line">
              <th className="px-3 py-2 font-medium">
                <Trans>Recorder</Trans>
              </th>
              <th className="font-medium">
                <Trans>Heard last</Trans>
              </th>
              <th className="font-medium">
                <Trans>Columns of its files</Trans>
              </th>
              <th />
            </tr>
          </thead>
          <tbody>
            {rows.map((one) => (
              <tr key={one.id} className="border-b border-hair">
                <td className="px-3 py-2 font-semibold">{one.retired ? <s>{one.name}</s> : one.name}</td>
                <td>{one.heard_at ? new Date(one.heard_at).toLocaleString(locale()) : t`never`}</td>
                <td>{one.has_mapping ? t`known` : t`not asked yet`}</td>
                <td className="px-3 text-right">
                  {one.retired ? (
                    <span className="text-steel2">
                      <Trans>retired</Trans>
                    </span>
                  ) : (
                    may('KEEP_LIBRARY') && (
                      <button
                        type="button"
                        className="link p-1"
                        disabled={retire.isPending}
                        onClick={() => retire.mutate(one.id)}
                      >
                        <Trans>Retire {one.name}</Trans>
                      </button>
                    )
                  )}
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
      {adding && <AddDialog onClose={() => setAdding(false)} />}
    </>
  )
}

function AddDialog({ onClose }: { onClose: () => void }) {
  const queries = useQueryClient()
  const [name, setName] = useState<string | null>(null)
  const add = useMutation({
    mutationFn: () => unwrap(api.POST('/api/recorders', { body: { name: name ?? '' } })),
    onSuccess: () => queries.invalidateQueries({ queryKey: ['recorders'] }),
  })
  return (
    <Modal title={t`Add a recorder`} open onClose={onClose}>
      {add.data ? (
        <div className="grid gap-3">
          <p>
            <Trans>
              {add.data.name} signs in with this token. <b>It is shown this once.</b> Copy it into the recorder or its
              gateway.
            </Trans>
          </p>
          <code
            className="block border border-line bg-paper p-2 text-[13px] [overflow-wrap:anywhere]"
            aria-label={t`Token`}
          >
            {add.data.token}
          </code>
          <div className="flex justify-end">
            <Button look="main" onClick={onClose}>
              <Trans>It is copied</Trans>
            </Button>
          </div>
        </div>
      ) : (
        <form
          className="grid gap-3"
          onSubmit={(event) => {
            event.preventDefault()
            add.mutate()
          }}
        >
          <Labelled words={t`Name`}>
            <TextField
              label={t`Name of the recorder`}
              placeholder={t`Booth 2`}
              value={name}
              onChange={setName}
              error={add.isError ? add.error.message : undefined}
            />
          </Labelled>
          <div className="flex justify-end gap-2">
            <Button onClick={onClose}>
              <Trans>Not now</Trans>
            </Button>
            <Button look="main" type="submit" disabled={add.isPending}>
              <Trans>Add it</Trans>
            </Button>
          </div>
        </form>
      )}
    </Modal>
  )
}
