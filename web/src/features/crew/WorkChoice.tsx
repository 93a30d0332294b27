import { plural, t } from '@lingui/core/macro'
import { Trans } from '@lingui/react/macro'

import type { WorkList } from '../../api/types'
import { Notice } from '../../ui/Notice'
import { MarkIcon } from '../../ui/Verdict'

type Props = {
  list: WorkList
  chosen: readonly string[]
  onChosen: (refs: string[]) => void
  /** Welds that meet the levels of the code for persons, as the examiner states; null where that is not asked. */
  meets: readonly string[] | null
  onMeets: (refs: string[]) => void
}

const toggled = (refs: readonly string[], ref: string) =>
  refs.includes(ref) ? refs.filter((one) => one !== ref) : [...refs, ref]

/** Welds of the logs, each with whether it was within the range; those that are chosen stand in what is signed. */
export function WorkChoice({ list, chosen, onChosen, meets, onMeets }: Props) {
  const { since, until, works, more } = list
  if (!works.some((one) => one.within === true))
    return (
      <Notice mark="breach" className="text-[13.5px]">
        {works.length === 0
          ? t`The logs have no weld of this person from ${since} to ${until}.`
          : t`No weld from ${since} to ${until} is known to be within the range.`}
        <List {...{ list, chosen, onChosen, meets, onMeets }} />
      </Notice>
    )
  return (
    <div className="text-[13.5px]">
      <p className="text-steel2">
        <Trans>
          Welds from {since} to {until}, from the logs:
        </Trans>
      </p>
      <List {...{ list, chosen, onChosen, meets, onMeets }} />
      {more > 0 && <p className="text-steel2">{plural(more, { one: '# more weld', other: '# more welds' })}</p>}
    </div>
  )
}

function List({ list, chosen, onChosen, meets, onMeets }: Props) {
  return (
    <ul className="mt-1 max-h-64 overflow-y-auto">
      {list.works.map((one) => (
        <li key={one.ref} className="border-t border-hair py-1">
          <label className="flex items-baseline gap-2">
            <input
              type="checkbox"
              checked={chosen.includes(one.ref)}
              disabled={one.within !== true}
              onChange={() => onChosen(toggled(chosen, one.ref))}
            />
            <MarkIcon mark={one.within === null ? 'unknown' : one.within ? 'holds' : 'breach'} size={10} />
            <span className="min-w-0">
              {one.on} · {one.what}
              {one.method && ` · ${one.method} ${one.accepted ? t`accepted` : t`rejected`} ${one.report}`}
              {one.against.length > 0 && <small className="block text-steel2">{one.against.join(' ')}</small>}
            </span>
          </label>
          {meets && one.accepted === true && chosen.includes(one.ref) && (
            <label className="ml-6 flex items-baseline gap-2 text-steel">
              <input
                type="checkbox"
                checked={meets.includes(one.ref)}
                onChange={() => onMeets(toggled(meets, one.ref))}
              />
              <Trans>meets the acceptance levels of the code for welders as well</Trans>
            </label>
          )}
        </li>
      ))}
    </ul>
  )
}
