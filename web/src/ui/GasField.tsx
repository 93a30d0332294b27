import { t } from '@lingui/core/macro'
import { gasText } from '../domain/procedure'
import { ReadField } from './ReadField'

type Props = {
  label: string
  value: Record<string, number> | null | undefined
  onChange: (value: Record<string, number> | null) => void
  path?: string
  disabled?: boolean
}

/** A shielding gas, typed as people write it: Ar+18CO2, C25, CO2. */
export function GasField({ label, value, onChange, path, disabled = false }: Props) {
  return (
    <ReadField
      label={label}
      as="gas"
      written={gasText(value)}
      placeholder={t`Ar+18CO2`}
      path={path}
      disabled={disabled}
      onEmpty={() => onChange(null)}
      onRead={(result) => {
        if (result.components_percent) onChange(result.components_percent)
      }}
    />
  )
}
