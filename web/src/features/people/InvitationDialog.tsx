import { t } from '@lingui/core/macro'
import { Trans } from '@lingui/react/macro'
import { useState } from 'react'

import type { Invitation } from '../../api/types'
import { Button } from '../../ui/Button'
import { Modal } from '../../ui/Modal'

/** The link, shown this once; behind the # it is not sent to the server, so no log of addresses keeps it. */
export function InvitationDialog({ invitation, onClose }: { invitation: Invitation; onClose: () => void }) {
  const link = `${window.location.origin}/welcome#${invitation.token}`
  const [copied, setCopied] = useState(false)
  const copy = async () => {
    await navigator.clipboard.writeText(link)
    setCopied(true)
  }
  const { days } = invitation
  return (
    <Modal title={t`Link for ${invitation.person.name}`} open onClose={onClose}>
      <p className="mb-2 text-steel">
        <Trans>
          Give this link to {invitation.person.name} and to nobody else: who has it sets the password. It works once,
          for {days} days, and is not shown again.
        </Trans>
      </p>
      <textarea
        className="field h-auto! break-all"
        rows={3}
        readOnly
        aria-label={t`Link to set the password`}
        value={link}
        onFocus={(event) => event.target.select()}
      />
      <p className="mt-2 text-[14px]">
        <Trans>The name to sign in with is {invitation.person.username}.</Trans>
      </p>
      <div className="mt-3 flex items-center justify-end gap-2">
        {copied && (
          <span role="status" className="text-[13px] text-steel2">
            <Trans>copied</Trans>
          </span>
        )}
        <Button onClick={() => void copy()}>
          <Trans>Copy the link</Trans>
        </Button>
        <Button look="main" onClick={onClose}>
          <Trans>Done</Trans>
        </Button>
      </div>
    </Modal>
  )
}
