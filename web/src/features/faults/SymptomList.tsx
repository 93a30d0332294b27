import { t } from '@lingui/core/macro'
import { Trans } from '@lingui/react/macro'
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import { useState } from 'react'

import { api, unwrap } from '../../api/client'
import type { Symptom } from '../../api/types'
import { symptomsQuery } from '../../queries/faults'
import { useSession } from '../../session/session'
import { Button } from '../../ui/Button'
import { Notice } from '../../ui/Notice'
import { TextField } from '../../ui/TextField'
import { useSettled } from '../../ui/useSettled'
import { SymptomShape } from './SymptomShape'

type Props = {
  chosen: string
  suggested: readonly Symptom[]
  passId: number | null
  onChoose: (key: string) => void
}

/** What is seen, heard or found: by words, by picture, or as the breaches of the pass say. */
export function SymptomList({ chosen, suggested, passId, onChoose }: Props) {
  const [text, setText] = useState<string | null>(null)
  const words = useSettled((text ?? '').trim())
  const found = useQuery(symptomsQuery(words))
  const groups = found.data?.groups ?? []
  const every = new Map(groups.flatMap((group) => group.symptoms.map((one) => [one.key, one] as const)))
  const named = (found.data?.found ?? []).flatMap((key) => every.get(key) ?? [])
  const rows = (list: readonly Symptom[]) =>
    list.map((one) => <Row key={one.key} symptom={one} chosen={one.key === chosen} onChoose={onChoose} />)
  return (
    <section className="panel p-3" aria-labelledby="symptoms">
      <h2 id="symptoms" className="mb-2 text-[17px]">
        <Trans>What is seen, heard or found</Trans>
      </h2>
      {found.isError && <Notice mark="breach">{found.error.message}</Notice>}
      {suggested.length > 0 && (
        <>
          <h3 className="label mb-1">
            <Trans>Out of range on this pass</Trans>
          </h3>
          <ul className="mb-3">{rows(suggested)}</ul>
        </>
      )}
      <TextField
        label={t`Say it in words`}
        placeholder={t`Say it: crackles, sugar on the root …`}
        value={text}
        onChange={setText}
      />
      {words !== '' && found.data && (
        <ul className="mt-1 mb-3" aria-label={t`Found by words`}>
          {rows(named)}
          {named.length === 0 && !found.isPlaceholderData && <Unknown key={words} words={words} passId={passId} />}
        </ul>
      )}
      {groups.map((group) => (
        <details
          key={group.key}
          className="border-t border-hair py-1"
          open={group.symptoms.some((one) => one.key === chosen) || undefined}
        >
          <summary className="cursor-pointer font-head text-[14px] font-semibold">
            {group.title} <span className="font-normal text-steel2">{group.symptoms.length}</span>
          </summary>
          <ul>{rows(group.symptoms)}</ul>
        </details>
      ))}
    </section>
  )
}

function Row({ symptom, chosen, onChoose }: { symptom: Symptom; chosen: boolean; onChoose: (key: string) => void }) {
  return (
    <li>
      <button
        type="button"
        aria-pressed={chosen}
        title={symptom.also.join(', ')}
        onClick={() => onChoose(symptom.key)}
        className={`flex min-h-6 w-full items-center gap-2 rounded-sm px-1 py-0.5 text-left text-[13px] ${chosen ? 'bg-accent-soft font-semibold' : 'hover:bg-accent-soft'}`}
      >
        <SymptomShape symptom={symptom.key} group={symptom.group} />
        <span className="min-w-0">{symptom.title}</span>
      </button>
    </li>
  )
}

/** Words that find nothing are kept for the engineer, never thrown away. */
function Unknown({ words, passId }: { words: string; passId: number | null }) {
  const { may } = useSession()
  const queries = useQueryClient()
  const send = useMutation({
    mutationFn: () => unwrap(api.POST('/api/faults/words', { body: { words, pass_id: passId } })),
    onSuccess: () => queries.invalidateQueries({ queryKey: ['symptom-words'] }),
  })
  return (
    <li className="py-1 text-[13px]">
      <p className="text-steel2">
        <Trans>No symptom is known by these words. Choose one below, or ask the welding engineer.</Trans>
      </p>
      {send.isSuccess ? (
        <p role="status">
          <Trans>Kept for the welding engineer.</Trans>
        </p>
      ) : (
        may('LOG_TRIAL') && (
          <Button disabled={send.isPending} onClick={() => send.mutate()}>
            <Trans>Ask the engineer</Trans>
          </Button>
        )
      )}
      {send.isError && <p className="text-breach">{send.error.message}</p>}
    </li>
  )
}
