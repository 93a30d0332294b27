import { Trans } from '@lingui/react/macro'

import { Notice } from './Notice'

type Props = {
  /** A field holds what could not be read. */
  unread: boolean
  /** What the server answered; nothing while all is well. */
  refusal: string | null | undefined
  /** Somebody else saved in between: what to do about it. */
  conflict?: { takeTheirs: () => void; saveMine: () => void } | undefined
  /** What could not be removed, and why. */
  notRemoved?: string | undefined
}

/** Why a dialog's document is not saved. Nothing typed is lost, and nothing is written over unasked. */
export function NotSaved({ unread, refusal, conflict, notRemoved }: Props) {
  return (
    <>
      {unread && (
        <Notice mark="caution" className="mt-3 text-[13px]">
          <Trans>Not saved yet: correct the marked field first, or empty it.</Trans>
        </Notice>
      )}
      {refusal && conflict && (
        <Notice mark="caution" className="mt-3 text-[13px]">
          <Trans>{refusal} What you typed is kept. </Trans>
          <button type="button" className="link" onClick={conflict.takeTheirs}>
            <Trans>Take theirs, drop mine</Trans>
          </button>{' '}
          <button type="button" className="link" onClick={conflict.saveMine}>
            <Trans>Save mine over it</Trans>
          </button>
        </Notice>
      )}
      {refusal && !conflict && (
        <Notice mark="breach" className="mt-3 text-[13px]">
          <Trans>Not saved. </Trans>
          {refusal}
        </Notice>
      )}
      {notRemoved && (
        <Notice mark="breach" className="mt-3 text-[13px]">
          <Trans>Not removed. {notRemoved}</Trans>
        </Notice>
      )}
    </>
  )
}
