import { t } from '@lingui/core/macro'
import { Trans } from '@lingui/react/macro'
import { useRef, useState } from 'react'

import type { BaseMetal, Certificate } from '../../api/types'
import { chemistryOf, typedOf } from '../../domain/chemistry'
import { Button } from '../../ui/Button'
import { ChemistryGrid } from '../../ui/ChemistryGrid'
import { Labelled } from '../../ui/Labelled'
import { Modal } from '../../ui/Modal'
import { useSaveWhenRead } from '../../ui/commit'
import { QuantityField } from '../../ui/QuantityField'
import { TextField } from '../../ui/TextField'
import { useSettled } from '../../ui/useSettled'
import { EquivalentsTable } from '../calculators'
import { fixed } from '../../session/language'

type Changes = Pick<BaseMetal, 'heat' | 'chemistry' | 'certificate'>
type Props = {
  title: string
  metal: BaseMetal
  disabled: boolean
  open: boolean
  onClose: () => void
  onTake: (changes: Changes) => void
}

/** A heat's certificate: number, chemistry, properties; equivalents as one types. Nothing is taken before it is said. */
export function CertificateDialog(props: Props) {
  return props.open ? <Form {...props} /> : null
}

function Form({ title, metal, disabled, open, onClose, onTake }: Props) {
  const [heat, setHeat] = useState(metal.heat ?? null)
  const [paper, setPaper] = useState<Certificate>(metal.certificate ?? {})
  const [typed, setTyped] = useState<Record<string, string>>(typedOf(metal.chemistry))
  const settled = useSettled(typed)
  const { chemistry, wrong } = chemistryOf(typed)
  const total = Object.values(chemistry).reduce((sum, share) => sum + share, 0)
  const put = (changes: Partial<Certificate>) => setPaper((before) => ({ ...before, ...changes }))
  const day = paper.issued_on && !/^\d{4}-\d{2}-\d{2}$/.test(paper.issued_on) ? t`Write it as 2026-03-31.` : undefined
  const problem = wrong.length > 0 || total > 100.05 || day !== undefined
  const frame = useRef<HTMLDivElement>(null)
  const take = useSaveWhenRead(frame, () => {
    const odd = frame.current?.querySelector<HTMLElement>('[aria-invalid="true"]')
    odd?.focus()
    if (problem || odd) return
    const stated = Object.values(paper).some((value) => value != null)
    onTake({
      heat,
      chemistry: Object.keys(chemistry).length > 0 ? chemistry : null,
      certificate: stated ? paper : null,
    })
    onClose()
  })
  return (
    <Modal title={title} open={open} onClose={onClose} wide>
      <div ref={frame} className="grid grid-cols-4 gap-x-3 gap-y-2 text-[13px]">
        <Labelled words={t`Heat number`}>
          <TextField label={t`Heat number`} value={heat} onChange={setHeat} disabled={disabled} />
        </Labelled>
        <Labelled words={t`Certificate`}>
          <TextField
            label={t`Certificate number`}
            value={paper.number}
            onChange={(number) => put({ number })}
            disabled={disabled}
          />
        </Labelled>
        <Labelled words={t`Kind`}>
          <TextField
            label={t`Kind of certificate`}
            value={paper.kind}
            onChange={(kind) => put({ kind })}
            placeholder="3.1"
            disabled={disabled}
          />
        </Labelled>
        <Labelled words={t`Issued on`}>
          <TextField
            label={t`Issued on`}
            value={paper.issued_on}
            onChange={(issued_on) => put({ issued_on })}
            placeholder="2026-03-31"
            error={day}
            disabled={disabled}
          />
        </Labelled>
        <Labelled words={t`Yield, as measured`}>
          <QuantityField
            label={t`Yield`}
            kind="strength"
            value={paper.yield_mpa}
            onChange={(yield_mpa) => put({ yield_mpa })}
            disabled={disabled}
          />
        </Labelled>
        <Labelled words={t`Tensile, as measured`}>
          <QuantityField
            label={t`Tensile strength`}
            kind="strength"
            value={paper.tensile_mpa}
            onChange={(tensile_mpa) => put({ tensile_mpa })}
            disabled={disabled}
          />
        </Labelled>
        <Labelled words={t`Elongation`}>
          <QuantityField
            label={t`Elongation`}
            kind="percent"
            value={paper.elongation_percent}
            onChange={(elongation_percent) => put({ elongation_percent })}
            disabled={disabled}
          />
        </Labelled>
      </div>
      <h3 className="mt-4 mb-1 text-[15px]">
        <Trans>Chemistry of the heat</Trans>
      </h3>
      <ChemistryGrid typed={typed} onType={setTyped} elements={ELEMENTS} disabled={disabled} />
      {total > 100.05 && (
        <p role="alert" className="mt-1 text-[13px] text-breach">
          <Trans>The elements sum to {fixed(total, 1)} %, more than 100 %.</Trans>
        </p>
      )}
      <EquivalentsTable chemistry={chemistryOf(settled).chemistry} />
      <div className="mt-4 flex justify-end gap-2">
        <Button onClick={onClose}>{disabled ? t`Close` : t`Not now`}</Button>
        {!disabled && (
          <Button look="main" disabled={problem} onClick={take}>
            <Trans>Take it</Trans>
          </Button>
        )}
      </div>
    </Modal>
  )
}

const ELEMENTS = ['C', 'Si', 'Mn', 'P', 'S', 'Cr', 'Mo', 'Ni', 'Cu', 'V', 'Nb', 'Ti', 'Al', 'B', 'N', 'Mg', 'Zn']
