import { t } from '@lingui/core/macro'
import { Trans } from '@lingui/react/macro'
import { useState } from 'react'

import { Button } from '../../ui/Button'

type Props = { words: string; pending: boolean; onStrike: (reason: string) => void }

/** Strike an entry: the reason is asked first and stays with it. */
export function Strike({ words, pending, onStrike }: Props) {
  const [asking, setAsking] = useState(false)
  const [reason, setReason] = useState('')
  if (!asking)
    return (
      <Button look="quiet" onClick={() => setAsking(true)}>
        {words}
      </Button>
    )
  return (
    <form
      className="flex flex-wrap items-end gap-2"
      onSubmit={(event) => {
        event.preventDefault()
        onStrike(reason)
      }}
    >
      <label className="w-64">
        <span className="label">{t`Why it is struck`}</span>
        <input className="field" autoFocus value={reason} onChange={(event) => setReason(event.target.value)} />
      </label>
      <Button type="submit" disabled={pending || reason.trim() === ''}>
        <Trans>Strike</Trans>
      </Button>
      <Button look="quiet" onClick={() => setAsking(false)}>
        <Trans>Cancel</Trans>
      </Button>
    </form>
  )
}
