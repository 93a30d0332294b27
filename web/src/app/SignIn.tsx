import { t } from '@lingui/core/macro'
import { Trans } from '@lingui/react/macro'
import { useState, type FormEvent } from 'react'

import { Refusal, api, unwrap } from '../api/client'
import type { Session } from '../api/types'
import { Button } from '../ui/Button'
import { LanguageSwitch } from '../ui/LanguageSwitch'
import { useTabTitle } from '../ui/useTabTitle'
import { inWords } from '../domain/words'

type Props = { demo: Session['demo']; onDone: (session: Session) => void }

const ROLE_WORDS: Record<string, string> = {
  engineer: t`drafts, starts coupons`,
  inspector: t`sets up and logs coupons`,
  welder: t`logs passes`,
  viewer: t`looks and prints`,
  administrator: t`everything, and people`,
}

export function SignInPage(props: Props) {
  useTabTitle(t`Sign in`)
  return (
    <main className="mx-auto grid min-h-screen max-w-lg content-center gap-5 p-6">
      <div>
        <h1 className="text-4xl text-accent">
          <Trans>Grounded Bead</Trans>
        </h1>
        <p className="mt-1 text-steel">
          <Trans>Welding procedures: drafted, welded, logged, printed. Every number says where it comes from.</Trans>
        </p>
      </div>
      <SignInForm {...props} />
      <LanguageSwitch />
      <p className="text-[12px] text-steel2">
        <Trans>
          This program helps prepare and record. The code in its own text, the contract, and the responsible engineer
          and inspector decide.
        </Trans>
      </p>
    </main>
  )
}

export function SignInForm({ demo, onDone }: Props) {
  const [username, setUsername] = useState('')
  const [password, setPassword] = useState('')
  const [code, setCode] = useState<string | null>(null)
  const [problem, setProblem] = useState<string | null>(null)
  const [busy, setBusy] = useState(false)

  const attempt = async (call: () => Promise<Session>) => {
    setBusy(true)
    setProblem(null)
    try {
      onDone(await call())
    } catch (error) {
      if (error instanceof Refusal && error.body.type === '/problems/code-needed') setCode((typed) => typed ?? '')
      else setProblem(error instanceof Refusal ? error.message : t`Signing in failed.`)
    } finally {
      setBusy(false)
    }
  }
  const submit = (event: FormEvent) => {
    event.preventDefault()
    void attempt(() => unwrap(api.POST('/api/session', { body: { username, password, code: code ?? '' } })))
  }
  return (
    <div className="grid gap-5">
      {demo.length > 0 && (
        <div className="panel p-4">
          <h2 className="mb-2 text-[16px]">
            <Trans>Demo: sign in as</Trans>
          </h2>
          <ul className="grid gap-1.5">
            {demo.map((one) => (
              <li key={one.username}>
                <Button
                  className="grid w-full grid-cols-[6.5rem_1fr] items-baseline gap-3 text-left"
                  disabled={busy}
                  onClick={() =>
                    void attempt(() => unwrap(api.POST('/api/session/demo', { body: { username: one.username } })))
                  }
                >
                  <span className="font-semibold">{inWords(one.role)}</span>
                  <span className="font-sans text-[13px] font-normal text-steel2">
                    {one.name}, {ROLE_WORDS[one.role]}
                  </span>
                </Button>
              </li>
            ))}
          </ul>
        </div>
      )}
      <form className="panel grid gap-2 p-4" onSubmit={submit}>
        <label className="label" htmlFor="username">
          <Trans>Name</Trans>
        </label>
        <input
          id="username"
          className="field"
          value={username}
          autoComplete="username"
          onChange={(e) => {
            setUsername(e.target.value)
            setCode(null)
          }}
          required
          maxLength={150}
        />
        <label className="label" htmlFor="password">
          <Trans>Password</Trans>
        </label>
        <input
          id="password"
          type="password"
          className="field"
          value={password}
          autoComplete="current-password"
          onChange={(e) => setPassword(e.target.value)}
          required
          maxLength={200}
        />
        {code !== null && (
          <>
            <label className="label" htmlFor="code">
              <Trans>Code of your device, or one of your recovery codes</Trans>
            </label>
            <input
              id="code"
              className="field tracking-widest"
              value={code}
              autoFocus
              autoComplete="one-time-code"
              onChange={(e) => setCode(e.target.value)}
              required
              maxLength={40}
            />
          </>
        )}
        {problem && (
          <p role="alert" className="text-[13px] text-breach">
            {problem}
          </p>
        )}
        <Button type="submit" look="main" className="mt-2" disabled={busy}>
          <Trans>Sign in</Trans>
        </Button>
      </form>
    </div>
  )
}
