import { t } from '@lingui/core/macro'
import { Trans } from '@lingui/react/macro'
import { useState } from 'react'

import { Refusal, api, unwrap } from '../api/client'
import type { Session } from '../api/types'
import { Button } from '../ui/Button'
import { Modal } from '../ui/Modal'
import { Notice } from '../ui/Notice'

/** Changing one's own password: the present one, and the new one twice. */
export function PasswordDialog({ onClose, onDone }: { onClose: () => void; onDone: (session: Session) => void }) {
  const [current, setCurrent] = useState('')
  const [fresh, setFresh] = useState('')
  const [again, setAgain] = useState('')
  const [busy, setBusy] = useState(false)
  const [refusal, setRefusal] = useState<Error | null>(null)
  const differs = again !== '' && fresh !== again
  const change = async () => {
    setBusy(true)
    setRefusal(null)
    try {
      onDone(await unwrap(api.POST('/api/session/password', { body: { current, new: fresh } })))
      onClose()
    } catch (error) {
      setRefusal(error instanceof Error ? error : new Error('No answer.'))
    } finally {
      setBusy(false)
    }
  }
  const at = (path: string) =>
    refusal instanceof Refusal ? refusal.body.errors.find((one) => one.path === path)?.message : undefined
  const fields = [
    ['current', t`Present password`, current, setCurrent, 'current-password'],
    ['new', t`New password, at least 10 characters`, fresh, setFresh, 'new-password'],
    ['again', t`New password, again`, again, setAgain, 'new-password'],
  ] as const
  return (
    <Modal title={t`Change your password`} open onClose={onClose}>
      <form
        className="grid gap-3"
        onSubmit={(event) => {
          event.preventDefault()
          if (!differs) void change()
        }}
      >
        {fields.map(([path, words, value, set, complete]) => {
          const wrong = path === 'again' && differs ? t`The two are not the same.` : at(path)
          return (
            <label key={path} className="block">
              <span className="label">{words}</span>
              <input
                className="field"
                type="password"
                maxLength={200}
                autoComplete={complete}
                value={value}
                onChange={(event) => set(event.target.value)}
                aria-invalid={wrong !== undefined}
              />
              {wrong && (
                <span role="alert" className="text-[13px] text-breach">
                  {wrong}
                </span>
              )}
            </label>
          )
        })}
        {refusal && !at('current') && !at('new') && (
          <Notice mark="breach" className="text-[13px]">
            {refusal.message}
          </Notice>
        )}
        <p className="text-[13px] text-steel2">
          <Trans>You stay signed in here; everywhere else you sign in again.</Trans>
        </p>
        <div className="flex justify-end gap-2">
          <Button onClick={onClose}>
            <Trans>Not now</Trans>
          </Button>
          <Button look="main" type="submit" disabled={busy || !current || !fresh || fresh !== again}>
            <Trans>Change it</Trans>
          </Button>
        </div>
      </form>
    </Modal>
  )
}
