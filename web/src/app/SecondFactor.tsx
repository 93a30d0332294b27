import { plural, t } from '@lingui/core/macro'
import { Trans } from '@lingui/react/macro'
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import { useState } from 'react'

import { api, unwrap } from '../api/client'
import { errorsOf } from '../api/errors'
import { sessionQuery } from '../queries/session'
import { Button } from '../ui/Button'
import { Modal } from '../ui/Modal'
import { Notice } from '../ui/Notice'
import { PasswordField } from '../ui/PasswordField'

const KEY = ['session', 'factor']

/** The own second factor: set up with a device that makes codes, and removed. */
export function SecondFactor({ onClose }: { onClose: () => void }) {
  const found = useQuery({ queryKey: KEY, queryFn: () => unwrap(api.GET('/api/session/factor')), staleTime: 0 })
  const [codes, setCodes] = useState<string[] | null>(null)
  return (
    <Modal title={t`Second factor`} open onClose={onClose}>
      {found.isError && <Notice mark="breach">{found.error.message}</Notice>}
      {codes ? (
        <Codes codes={codes} onClose={onClose} />
      ) : found.data?.on ? (
        <Removal left={found.data.codes_left} onClose={onClose} />
      ) : (
        found.data && <SetUp onClose={onClose} onCodes={setCodes} />
      )}
    </Modal>
  )
}

/** What is known of the factor and of who is signed in is asked anew. */
function useAsked() {
  const queries = useQueryClient()
  return () => queries.invalidateQueries({ queryKey: sessionQuery.queryKey })
}

function SetUp({ onClose, onCodes }: { onClose: () => void; onCodes: (codes: string[]) => void }) {
  const asked = useAsked()
  const [password, setPassword] = useState('')
  const [code, setCode] = useState('')
  const offer = useMutation({ mutationFn: () => unwrap(api.POST('/api/session/factor', { body: { password } })) })
  const confirm = useMutation({
    mutationFn: () => unwrap(api.PUT('/api/session/factor', { body: { code } })),
    onSuccess: (made) => {
      onCodes(made.codes)
      void asked()
    },
  })
  const offered = offer.data
  return (
    <form
      className="grid gap-3 text-[14px]"
      onSubmit={(event) => {
        event.preventDefault()
        if (offered) confirm.mutate()
        else offer.mutate()
      }}
    >
      {offered ? (
        <>
          <p>
            <Trans>Read this with an application for codes on your phone, then enter the code that it shows.</Trans>
          </p>
          <img src={offered.qr} alt={t`QR code with the secret`} className="mx-auto size-52 border border-line" />
          <p className="text-[13px] text-steel">
            <Trans>Or type the secret: {offered.secret.replace(/(.{4})(?=.)/g, '$1 ')}</Trans>
          </p>
          <CodeField value={code} error={errorsOf(confirm.error)('code')} onChange={setCode} />
        </>
      ) : (
        <>
          <p>
            <Trans>
              Beside the password, signing in then asks for a code that changes every 30 seconds. Who learns your
              password alone signs nothing in your name.
            </Trans>
          </p>
          <PasswordField value={password} error={errorsOf(offer.error)('password')} onChange={setPassword} />
        </>
      )}
      {offer.isError && <Notice mark="breach">{offer.error.message}</Notice>}
      <div className="flex justify-end gap-2">
        <Button onClick={onClose}>
          <Trans>Not now</Trans>
        </Button>
        <Button
          type="submit"
          look="main"
          disabled={offer.isPending || confirm.isPending || (offered ? code === '' : password === '')}
        >
          {offered ? t`Ask for it from now on` : t`Begin`}
        </Button>
      </div>
    </form>
  )
}

function Codes({ codes, onClose }: { codes: readonly string[]; onClose: () => void }) {
  return (
    <div className="grid gap-3 text-[14px]">
      <Notice mark="holds">
        <Trans>The second factor is on. Your other sessions have ended.</Trans>
      </Notice>
      <p>
        <Trans>
          Keep these recovery codes where your phone is not: each lets you in once, if the phone is lost. They are shown
          this once.
        </Trans>
      </p>
      <ul className="grid grid-cols-2 gap-1 font-mono text-[15px]">
        {codes.map((one) => (
          <li key={one}>{one}</li>
        ))}
      </ul>
      <div className="flex justify-end">
        <Button look="main" onClick={onClose}>
          <Trans>They are kept</Trans>
        </Button>
      </div>
    </div>
  )
}

function Removal({ left, onClose }: { left: number; onClose: () => void }) {
  const asked = useAsked()
  const [password, setPassword] = useState('')
  const [code, setCode] = useState('')
  const remove = useMutation({
    mutationFn: () => unwrap(api.POST('/api/session/factor/removal', { body: { password, code } })),
    onSuccess: () => {
      void asked()
      onClose()
    },
  })
  return (
    <form
      className="grid gap-3 text-[14px]"
      onSubmit={(event) => {
        event.preventDefault()
        remove.mutate()
      }}
    >
      <p>
        <Trans>Signing in asks you for a code.</Trans>{' '}
        {plural(left, { one: '# recovery code is left.', other: '# recovery codes are left.' })}
      </p>
      <p className="text-steel">
        <Trans>To change the phone, remove it here and set it up anew.</Trans>
      </p>
      <PasswordField value={password} error={errorsOf(remove.error)('password')} onChange={setPassword} />
      <CodeField value={code} error={errorsOf(remove.error)('code')} onChange={setCode} />
      <div className="flex justify-end gap-2">
        <Button onClick={onClose}>
          <Trans>Leave it</Trans>
        </Button>
        <Button type="submit" look="main" disabled={remove.isPending || password === '' || code === ''}>
          <Trans>Remove it</Trans>
        </Button>
      </div>
    </form>
  )
}

type FieldProps = { value: string; error?: string; onChange: (value: string) => void }

/** A code of the device, or a recovery code. */
export function CodeField({ value, error, onChange }: FieldProps) {
  return (
    <label className="block">
      <span className="label">{t`Code of your device`}</span>
      <input
        className={`field tracking-widest ${error ? 'border-breach!' : ''}`}
        autoComplete="one-time-code"
        maxLength={40}
        value={value}
        aria-invalid={error !== undefined}
        onChange={(event) => onChange(event.target.value)}
      />
      {error && (
        <span role="alert" className="text-[13px] text-breach">
          {error}
        </span>
      )}
    </label>
  )
}
