import { t } from '@lingui/core/macro'
import { Trans } from '@lingui/react/macro'
import { useMutation } from '@tanstack/react-query'
import { useNavigate } from 'react-router'
import { api, unwrap } from '../../api/client'
import type { Evidence } from '../../api/types'
import { useSession } from '../../session/session'
import { Button } from '../../ui/Button'
import { MarkIcon } from '../../ui/Verdict'
import { STATE_WORDS } from './states'
import { inWords } from '../../domain/words'
import { locale } from '../../session/language'
import { SIGNED_MARK } from './states'

type SignedProps = {
  evidence: Evidence
  signed: NonNullable<Evidence['signed']>
  onWitness: () => void
  onVoid: () => void
  onAmend: () => void
}

export function Signed({ evidence, signed, onWitness, onVoid, onAmend }: SignedProps) {
  const { may, person } = useSession()
  const navigate = useNavigate()
  const make = useMutation({
    mutationFn: (asNew: boolean) =>
      unwrap(
        api.POST('/api/records/{record_id}/procedure', {
          params: { path: { record_id: signed.id } },
          body: { as_new: asNew },
        }),
      ),
    onSuccess: (made) => void navigate(`/procedures/${String(made.id)}`),
  })
  const witnessed = signed.signatures.some((one) => one.purpose === 'witness' && one.by === person.name)
  const counts = signed.state === 'signed'
  const stands = counts || signed.state === 'awaits-second'
  return (
    <div className="panel p-3 text-[13px]">
      <h3 className="mb-1 flex items-center gap-1.5 font-head text-[16px] font-semibold">
        <MarkIcon mark={SIGNED_MARK[signed.state] ?? 'unknown'} /> {evidence.record_word} {signed.number}{' '}
        {STATE_WORDS[signed.state] ?? signed.state}
      </h3>
      {signed.state === 'awaits-second' && (
        <p className="mb-1 text-steel">
          <Trans>This job asks for two signatures: the record counts once a second person has witnessed it.</Trans>
        </p>
      )}
      <ul className="grid gap-1">
        {signed.signatures.map((one) => (
          <li key={one.purpose + one.by}>
            {one.by}, {inWords(one.role)}: {one.words}
            {one.reason && <>, “{one.reason}”</>}{' '}
            <small className="text-steel2">{new Date(one.at).toLocaleString(locale())}</small>
          </li>
        ))}
      </ul>
      <p className="mt-1 text-[11px] break-all text-steel2" title={t`SHA-256 of the signed bytes`}>
        <Trans>SHA-256 {signed.content_hash}</Trans>
      </p>
      <div className="mt-2 grid gap-2">
        {may('WRITE_PROCEDURE') && counts && (
          <Button look="main" disabled={make.isPending} onClick={() => make.mutate(false)}>
            <Trans>Make the WPS</Trans>
          </Button>
        )}
        {may('WRITE_PROCEDURE') && counts && (
          <Button look="quiet" disabled={make.isPending} onClick={() => make.mutate(true)}>
            <Trans>Make it as a new procedure</Trans>
          </Button>
        )}
        {may('WITNESS') && stands && !witnessed && signed.signed_by_id !== person.id && (
          <Button onClick={onWitness}>
            <Trans>Sign as a witness</Trans>
          </Button>
        )}
        {may('SIGN_RECORD') && stands && !signed.amendment && (
          <Button look="quiet" className="text-[13px]!" onClick={onAmend}>
            <Trans>Amend the record</Trans>
          </Button>
        )}
        {may('RELEASE') && stands && (
          <Button look="quiet" className="text-[13px]!" onClick={onVoid}>
            <Trans>Void this record</Trans>
          </Button>
        )}
      </div>
      {make.isError && (
        <p role="alert" className="mt-1 text-breach">
          {make.error.message}
        </p>
      )}
    </div>
  )
}
