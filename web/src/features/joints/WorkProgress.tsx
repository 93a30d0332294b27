import { Trans } from '@lingui/react/macro'
import { t } from '@lingui/core/macro'

import { Button } from '../../ui/Button'

type Props = {
  words: string
  done: number
  of: number
  stopWords: string
  stopping: boolean
  onStop: () => void
}

/** How far long work is, with a button that ends it. */
export function WorkProgress({ words, done, of, stopWords, stopping, onStop }: Props) {
  return (
    <>
      <label className="grid min-w-60 flex-1 gap-1">
        <span role="status" className="font-semibold">
          {words}
        </span>
        {of > 1 ? (
          <progress className="w-full accent-accent" value={done} max={of} />
        ) : (
          <progress className="w-full accent-petrol" />
        )}
      </label>
      <span className="num text-steel2">{of > 1 && t`${done} of ${of}`}</span>
      <Button disabled={stopping} onClick={onStop}>
        {stopping ? <Trans>Stopping …</Trans> : stopWords}
      </Button>
    </>
  )
}
