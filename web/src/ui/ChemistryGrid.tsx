import { t } from '@lingui/core/macro'
import { Trans } from '@lingui/react/macro'
import type { ClipboardEvent } from 'react'

import { chemistryOf, pasted } from '../domain/chemistry'

const ELEMENTS = ['C', 'Si', 'Mn', 'Cr', 'Mo', 'V', 'Ni', 'Cu', 'Nb', 'N', 'B']

type Props = {
  typed: Readonly<Record<string, string>>
  onType: (typed: Record<string, string>) => void
  elements?: readonly string[]
  disabled?: boolean
}

/** A composition in %, typed field by field or pasted as a line of a certificate. */
export function ChemistryGrid({ typed, onType, elements = ELEMENTS, disabled = false }: Props) {
  const { wrong } = chemistryOf(typed)
  const paste = (event: ClipboardEvent) => {
    const found = pasted(event.clipboardData.getData('text'))
    if (Object.keys(found).length < 2) return
    event.preventDefault()
    onType({ ...typed, ...found })
  }
  const shown = [...elements, ...Object.keys(typed).filter((one) => !elements.includes(one))]
  return (
    <>
      <div className="grid grid-cols-6 gap-2" onPaste={paste}>
        {shown.map((element) => (
          <label key={element} className="text-[12px] text-steel2">
            {element} %
            <input
              className={`field ${wrong.includes(element) ? 'border-breach!' : ''}`}
              aria-label={t`${element} in %`}
              aria-invalid={wrong.includes(element) || undefined}
              inputMode="decimal"
              autoComplete="off"
              disabled={disabled}
              value={typed[element] ?? ''}
              onChange={(event) => onType({ ...typed, [element]: event.target.value })}
            />
          </label>
        ))}
        {!disabled && (
          <button type="button" className="link self-end pb-1 text-left text-[13px]" onClick={() => onType({})}>
            <Trans>Clear</Trans>
          </button>
        )}
      </div>
      {wrong.length > 0 && (
        <p role="alert" className="mt-1 text-[12px] text-breach">
          <Trans>{wrong.join(', ')}: a number in % is needed, such as 0.16 or 0,16.</Trans>
        </p>
      )}
    </>
  )
}
