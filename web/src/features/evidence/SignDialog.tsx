import { Trans } from '@lingui/react/macro'
import { useState } from 'react'

import { Refusal } from '../../api/client'
import { Button } from '../../ui/Button'
import { Modal } from '../../ui/Modal'
import { Notice } from '../../ui/Notice'
import { PasswordField } from '../../ui/PasswordField'

type Props = {
  title: string
  words: string
  action: string
  reason: string
  open: boolean
  onClose: () => void
  onSign: (signature: { password: string; reason: string }) => Promise<unknown>
}

/** A signature: what it says, the password again, and a reason or remarks. */
export function SignDialog({ title, words, action, reason: label, open, onClose, onSign }: Props) {
  const [password, setPassword] = useState('')
  const [reason, setReason] = useState('')
  const [busy, setBusy] = useState(false)
  const [refusal, setRefusal] = useState<Error | null>(null)
  const close = () => {
    setPassword('')
    setRefusal(null)
    onClose()
  }
  const sign = async () => {
    setBusy(true)
    setRefusal(null)
    try {
      await onSign({ password, reason })
      close()
    } catch (error) {
      setRefusal(error instanceof Error ? error : new Error('No answer.'))
    } finally {
      setBusy(false)
    }
  }
  const listed = refusal instanceof Refusal ? refusal.body.errors.filter((one) => one.path !== 'password') : []
  return (
    <Modal title={title} open={open} onClose={close}>
      <form
        className="grid gap-3"
        onSubmit={(event) => {
          event.preventDefault()
          void sign()
        }}
      >
        <p className="text-steel">{words}</p>
        <label className="block">
          <span className="label">{label}</span>
          <textarea className="field" rows={2} value={reason} onChange={(event) => setReason(event.target.value)} />
        </label>
        <PasswordField value={password} onChange={setPassword} />
        {refusal && (
          <Notice mark="breach" className="text-[13px]">
            {refusal.message}
            {listed.length > 0 && (
              <ul className="mt-1 list-disc pl-4">
                {listed.slice(0, 8).map((one) => (
                  <li key={one.path + one.message}>{one.message}</li>
                ))}
              </ul>
            )}
          </Notice>
        )}
        <div className="flex justify-end gap-2">
          <Button onClick={close}>
            <Trans>Not now</Trans>
          </Button>
          <Button look="main" type="submit" disabled={busy || password === ''}>
            {action}
          </Button>
        </div>
      </form>
    </Modal>
  )
}
