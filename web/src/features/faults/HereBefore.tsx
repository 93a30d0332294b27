import { t } from '@lingui/core/macro'
import { Trans } from '@lingui/react/macro'
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import { useState } from 'react'

import { api, unwrap } from '../../api/client'
import { curesQuery, wordsQuery } from '../../queries/faults'
import { locale } from '../../session/language'
import { useSession } from '../../session/session'
import { Button } from '../../ui/Button'
import { TextField } from '../../ui/TextField'

/** What cured faults in this shop, and words that nobody knew. */
export function HereBefore() {
  const cures = useQuery(curesQuery)
  const words = useQuery(wordsQuery)
  const day = (time: string) => new Date(time).toLocaleDateString(locale())
  return (
    <>
      {(cures.data?.length ?? 0) > 0 && (
        <section className="panel mb-4 p-3 text-[13px]" aria-labelledby="cured-here">
          <h2 id="cured-here" className="mb-1 text-[17px]">
            <Trans>What cured it here</Trans>
          </h2>
          <ul>
            {cures.data?.map((one) => (
              <li key={one.id} className={`border-t border-hair py-1.5 ${one.struck_because ? 'text-steel2' : ''}`}>
                <b>{one.title}</b>: {one.cause}. {one.remedy}. {one.note}
                <span className="block text-steel2">
                  {[one.seen_on, one.entered_by, day(one.entered_at)].filter(Boolean).join(' · ')}
                  {one.struck_because ? t` · void: ${one.struck_because}` : ''}
                </span>
                {!one.struck_because && (
                  <Reasoned
                    words={t`void`}
                    label={t`Why it is voided`}
                    action="LOG_TRIAL"
                    send={(reason) =>
                      unwrap(
                        api.POST('/api/faults/cures/{cure_id}/strike', {
                          params: { path: { cure_id: one.id } },
                          body: { reason },
                        }),
                      )
                    }
                    then={['cures', 'causes']}
                  />
                )}
              </li>
            ))}
          </ul>
        </section>
      )}
      {(words.data?.length ?? 0) > 0 && (
        <section className="panel p-3 text-[13px]" aria-labelledby="unknown-words">
          <h2 id="unknown-words" className="mb-1 text-[17px]">
            <Trans>Words that found no symptom</Trans>
          </h2>
          <ul>
            {words.data?.map((one) => (
              <li key={one.id} className="border-t border-hair py-1.5">
                <b>“{one.words}”</b> {one.settled_as}
                <span className="block text-steel2">
                  {[one.seen_on, one.entered_by, day(one.entered_at), one.settled_by].filter(Boolean).join(' · ')}
                </span>
                {!one.settled_as && (
                  <Reasoned
                    words={t`answer`}
                    label={t`What it means`}
                    action="KEEP_LIBRARY"
                    send={(answer) =>
                      unwrap(
                        api.POST('/api/faults/words/{words_id}/settle', {
                          params: { path: { words_id: one.id } },
                          body: { answer },
                        }),
                      )
                    }
                    then={['symptom-words']}
                  />
                )}
              </li>
            ))}
          </ul>
        </section>
      )}
    </>
  )
}

type ReasonedProps = {
  words: string
  label: string
  action: 'LOG_TRIAL' | 'KEEP_LIBRARY'
  send: (text: string) => Promise<unknown>
  then: readonly string[]
}

/** A link that opens a line to write in: nothing is voided or answered without words. */
function Reasoned({ words, label, action, send, then }: ReasonedProps) {
  const { may } = useSession()
  const queries = useQueryClient()
  const [open, setOpen] = useState(false)
  const [text, setText] = useState<string | null>(null)
  const sending = useMutation({
    mutationFn: () => send(text ?? ''),
    onSuccess: () => Promise.all(then.map((key) => queries.invalidateQueries({ queryKey: [key] }))),
  })
  if (!may(action)) return null
  if (!open)
    return (
      <button type="button" className="link" onClick={() => setOpen(true)}>
        {words}
      </button>
    )
  return (
    <form
      className="flex max-w-md items-start gap-2"
      onSubmit={(event) => {
        event.preventDefault()
        sending.mutate()
      }}
    >
      <div className="flex-1">
        <TextField
          label={label}
          placeholder={label}
          value={text}
          onChange={setText}
          error={sending.isError ? sending.error.message : undefined}
        />
      </div>
      <Button type="submit" disabled={sending.isPending}>
        {words}
      </Button>
    </form>
  )
}
