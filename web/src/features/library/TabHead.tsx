import type { ReactNode } from 'react'

import { useSession } from '../../session/session'
import { Button } from '../../ui/Button'
import { Notice } from '../../ui/Notice'

type Props = {
  /** How many are shown, in words; empty while they are fetched. */
  count: string
  note?: ReactNode
  addWords: string
  onAdd: () => void
  failed: Error | null
  /** Said where there is nothing to show. */
  nothing?: ReactNode
}

/** What stands above the list of a tab: how many there are, the way to add one, what went wrong. */
export function TabHead({ count, note, addWords, onAdd, failed, nothing }: Props) {
  const { may } = useSession()
  return (
    <>
      <div className="mb-2 flex items-center gap-4">
        <p role="status" className="text-[13px] text-steel2">
          {count}
          {note}
        </p>
        {may('KEEP_LIBRARY') && (
          <Button className="ml-auto" onClick={onAdd}>
            {addWords}
          </Button>
        )}
      </div>
      {failed && <Notice mark="breach">{failed.message}</Notice>}
      {nothing && <p className="panel p-6 text-steel">{nothing}</p>}
    </>
  )
}
