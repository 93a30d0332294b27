import { t } from '@lingui/core/macro'
import { useState } from 'react'

import { digits } from '../../session/language'

type Props = { label: string; value: number; onChange: (value: number) => void }

/** An amount of money: a plain number, with point or comma. */
export function NumberField({ label, value, onChange }: Props) {
  const [text, setText] = useState(digits(String(value)))
  const read = /^\d+(?:[.,]\d{1,2})?$/.test(text.trim()) ? Number(text.trim().replace(',', '.')) : null
  return (
    <>
      <input
        className={`field ${read === null ? 'border-breach!' : ''}`}
        aria-label={label}
        aria-invalid={read === null ? true : undefined}
        inputMode="decimal"
        value={text}
        onChange={(event) => {
          setText(event.target.value)
          const told = event.target.value.trim()
          if (/^\d+(?:[.,]\d{1,2})?$/.test(told)) onChange(Number(told.replace(',', '.')))
        }}
      />
      {read === null && (
        <span role="alert" className="text-[12px] text-breach">
          {t`a number is needed, such as 60`}
        </span>
      )}
    </>
  )
}
