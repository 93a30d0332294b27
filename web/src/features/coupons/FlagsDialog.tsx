import { t } from '@lingui/core/macro'
import { Trans } from '@lingui/react/macro'
import { useMutation, useQueryClient } from '@tanstack/react-query'
import { useState } from 'react'

import { api, unwrap } from '../../api/client'
import type { Coupon, Flag } from '../../api/types'
import { Button } from '../../ui/Button'
import { Modal } from '../../ui/Modal'
import { TextField } from '../../ui/TextField'
import { MarkIcon } from '../../ui/Verdict'

type Row = Coupon['rows'][number]

/** What was flagged at a pass. It stays on the record and can only be explained. */
export function FlagsDialog({ row, disabled, onClose }: { row: Row; disabled: boolean; onClose: () => void }) {
  return (
    <Modal title={t`Flags of pass ${row.record.number}`} open onClose={onClose}>
      <p className="mb-3 text-steel">
        <Trans>They stay on the record. Say what happened; it stands beside them.</Trans>
      </p>
      <ul className="grid gap-4">
        {row.record.flags.map((flag) => (
          <One key={flag.rule} row={row} flag={flag} disabled={disabled} />
        ))}
      </ul>
      <div className="mt-4 flex justify-end">
        <Button onClick={onClose}>
          <Trans>Close</Trans>
        </Button>
      </div>
    </Modal>
  )
}

function One({ row, flag, disabled }: { row: Row; flag: Flag; disabled: boolean }) {
  const queries = useQueryClient()
  const [text, setText] = useState<string | null>(flag.explanation ?? null)
  const explain = useMutation({
    mutationFn: () =>
      unwrap(
        api.POST('/api/passes/{pass_id}/explain', {
          params: { path: { pass_id: row.id } },
          body: { version: row.version, rule: flag.rule, text: text ?? '' },
        }),
      ),
    onSettled: () => queries.invalidateQueries({ queryKey: ['coupon'] }),
  })
  return (
    <li>
      <p className="flex items-start gap-2">
        <span className="mt-1">
          <MarkIcon mark="breach" />
        </span>
        <span>
          <b>{flag.title}.</b> {flag.message}
        </span>
      </p>
      {flag.explained_by && (
        <p className="mt-1 text-[13px] text-steel2">
          <Trans>Explained by {flag.explained_by}</Trans>
        </p>
      )}
      <form
        className="mt-1 flex items-start gap-2"
        onSubmit={(event) => {
          event.preventDefault()
          explain.mutate()
        }}
      >
        <div className="flex-1">
          <TextField
            label={t`Explanation: ${flag.title}`}
            rows={2}
            placeholder={t`What happened`}
            value={text}
            disabled={disabled}
            onChange={setText}
            error={explain.isError ? explain.error.message : undefined}
          />
        </div>
        <Button type="submit" disabled={disabled || explain.isPending || text === (flag.explanation ?? null)}>
          <Trans>Explain</Trans>
        </Button>
      </form>
    </li>
  )
}
