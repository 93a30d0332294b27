import { t } from '@lingui/core/macro'

import type { WeldList } from '../../api/types'
import { codeWords } from '../../domain/words'
import { useSession } from '../../session/session'
import { Choice } from '../../ui/Choice'
import { Notice } from '../../ui/Notice'
import { useSettings } from './useSettings'

/** The code that the whole list is judged under, with its level. */
export function CodeOfList({ jobId, list }: { jobId: number; list: WeldList }) {
  const { codes } = useSession()
  const save = useSettings(jobId, list)
  const all = codes.flatMap((code) =>
    (code.levels.length > 0 ? code.levels : [null]).map((level) => ({ code, level, key: keyOf(code.id, level) })),
  )
  return (
    <div className="w-60">
      <Choice
        label={t`Code of the list`}
        value={keyOf(list.code.id, list.code.level)}
        options={all.map(({ code, level, key }) => [key, codeWords(code.id, level, code.short)])}
        disabled={save.isPending}
        onChange={(key: string | null) => {
          const next = all.find((one) => one.key === key)
          if (next)
            save.mutate({
              code: { id: next.code.id, level: next.level, units: next.code.unit_column, route: 'test' },
            })
        }}
      />
      {save.isError && <Notice mark="breach">{save.error.message}</Notice>}
    </div>
  )
}

const keyOf = (id: string, level: number | null | undefined) => `${id} ${String(level ?? '')}`
