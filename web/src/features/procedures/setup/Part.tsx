import { Trans } from '@lingui/react/macro'
import type { ReactNode } from 'react'

import type { Pass } from '../../../api/types'

export type PassChanges = Partial<Omit<Pass, 'number'>>

/** What every part of the set-up is given: a pass, and how to change it. */
export type PartProps = {
  one: Pass
  path: string
  disabled: boolean
  /** Two answers of the core may come while one keystroke's page still stands, so a change starts from the pass of then. */
  set: (changes: PassChanges | ((pass: Pass) => PassChanges)) => void
}

/** Fields that belong together, with a heading; `odd` where this process has none of them. */
export function Part({
  title,
  odd,
  onTakeOut,
  children,
}: {
  title: string
  odd?: boolean
  onTakeOut?: () => void
  children: ReactNode
}) {
  return (
    <fieldset className="mt-3 border-t border-hair pt-2">
      <legend className="pr-2 font-head text-[14px] font-semibold">
        {title}
        {odd && (
          <span className="font-normal text-caution">
            {' '}
            <Trans>· not for this process</Trans>
          </span>
        )}
        {onTakeOut && (
          <button type="button" className="link ml-3 text-[12px] font-normal" onClick={onTakeOut}>
            <Trans>Take it out</Trans>
          </button>
        )}
      </legend>
      <div className="grid grid-cols-4 gap-x-3 gap-y-2 text-[13px] max-[1150px]:grid-cols-3">{children}</div>
    </fieldset>
  )
}

/** An object with these changes, or nothing where all of it is empty. */
export function merged<T extends object>(before: T | null | undefined, changes: Partial<T>): T | null {
  const next = { ...before, ...changes } as T
  return Object.values(next).some((value) => value !== null && value !== undefined && value !== false) ? next : null
}
