import { t } from '@lingui/core/macro'
import { Trans } from '@lingui/react/macro'
import { useMutation, useQuery } from '@tanstack/react-query'
import { useState } from 'react'

import { api, unwrap } from '../api/client'
import { errorsOf } from '../api/errors'
import { Button } from '../ui/Button'
import { LanguageSwitch } from '../ui/LanguageSwitch'
import { Notice } from '../ui/Notice'
import { useTabTitle } from '../ui/useTabTitle'

/** Whoever was invited, or whose password was taken away, chooses one by the link. */
export function InvitationPage() {
  useTabTitle(t`Set your password`)
  const token = window.location.hash.slice(1)
  const [fresh, setFresh] = useState('')
  const [again, setAgain] = useState('')
  const look = useQuery({
    queryKey: ['invitation', token],
    queryFn: () => unwrap(api.POST('/api/invitations/look', { body: { token } })),
    enabled: token !== '',
    retry: false,
    staleTime: Infinity,
  })
  const accept = useMutation({
    mutationFn: () => unwrap(api.POST('/api/invitations', { body: { token, password: fresh } })),
  })
  const error = errorsOf(accept.error)
  const differs = again !== '' && fresh !== again
  const who = look.data
  const fields = [
    ['new', t`Password, at least 10 characters`, fresh, setFresh, error('password')],
    ['again', t`Password, again`, again, setAgain, differs ? t`The two are not the same.` : undefined],
  ] as const
  return (
    <main className="mx-auto grid min-h-screen max-w-lg content-center gap-5 p-6">
      <h1 className="text-4xl text-accent">
        <Trans>Grounded Bead</Trans>
      </h1>
      {token === '' && (
        <Notice mark="breach">
          <Trans>The link is not whole: open it as it was given to you.</Trans>
        </Notice>
      )}
      {look.isError && <Notice mark="breach">{look.error.message}</Notice>}
      {accept.isSuccess && (
        <div className="panel grid gap-3 p-4" role="status">
          <p>
            <Trans>
              Your password is set. Sign in as <b>{accept.data.username}</b>.
            </Trans>
          </p>
          <a className="link" href="/">
            <Trans>Sign in</Trans>
          </a>
        </div>
      )}
      {who && !accept.isSuccess && (
        <form
          className="panel grid gap-3 p-4"
          onSubmit={(event) => {
            event.preventDefault()
            if (!differs) accept.mutate()
          }}
        >
          <p>
            <Trans>
              {who.name}, choose the password with which you sign in and sign. Your name to sign in with is{' '}
              <b>{who.username}</b>.
            </Trans>
          </p>
          <input type="hidden" autoComplete="username" value={who.username} />
          {fields.map(([key, words, value, set, wrong]) => (
            <label key={key} className="block">
              <span className="label">{words}</span>
              <input
                className="field"
                type="password"
                maxLength={200}
                autoComplete="new-password"
                value={value}
                aria-invalid={wrong !== undefined}
                onChange={(event) => set(event.target.value)}
              />
              {wrong && (
                <span role="alert" className="text-[13px] text-breach">
                  {wrong}
                </span>
              )}
            </label>
          ))}
          {accept.isError && !error('password') && <Notice mark="breach">{accept.error.message}</Notice>}
          <Button type="submit" look="main" disabled={accept.isPending || fresh === '' || fresh !== again}>
            <Trans>Set the password</Trans>
          </Button>
        </form>
      )}
      <LanguageSwitch />
    </main>
  )
}
