import { t } from '@lingui/core/macro'
import { PageTitle } from '../../ui/PageTitle'
import { AcCard } from './AcCard'
import { CupCard } from './CupCard'
import { Decoder } from './Decoder'
import { DialCard } from './DialCard'
import { Equivalents } from './Equivalents'
import { GasNamer } from './GasNamer'
import { PulseCard } from './PulseCard'
import { UnitReader } from './UnitReader'

/** Small questions, answered while one types; nothing is stored. */
export function CalculatorsPage() {
  return (
    <div className="px-5 py-4">
      <PageTitle words={t`Calculators`} className="mb-3" />
      <div className="grid grid-cols-2 items-start gap-4 max-md:grid-cols-1">
        <div className="grid min-w-0 grid-cols-[minmax(0,1fr)] gap-4">
          <Decoder />
          <DialCard />
          <PulseCard />
          <UnitReader />
        </div>
        <div className="grid min-w-0 grid-cols-[minmax(0,1fr)] gap-4">
          <GasNamer />
          <CupCard />
          <AcCard />
          <Equivalents />
        </div>
      </div>
    </div>
  )
}
