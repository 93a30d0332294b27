import { t } from '@lingui/core/macro'
import { Trans } from '@lingui/react/macro'
import { useState } from 'react'

import type { WeldList } from '../../api/types'
import { processOptions } from '../../domain/words'
import { useUsage } from '../../session/terms'
import { Button } from '../../ui/Button'
import { Choice } from '../../ui/Choice'
import { Labelled } from '../../ui/Labelled'
import { Notice } from '../../ui/Notice'
import { QuantityField } from '../../ui/QuantityField'
import { NumberField } from './NumberField'
import { useSettings } from './useSettings'

const PROCESSES = ['111', '114', '121', '135', '136', '138', '141'] as const
const COUNTS = ['1', '2', '3', '4', '5'].map((count) => [count, count] as const)
const PRICES = [
  ['hour', t`Welding, per hour`],
  ['plate_kg', t`Plate, per kg`],
  ['weld_metal_kg', t`Weld metal, per kg`],
  ['coupon', t`Each coupon, set up`],
] as const

/** What coupons may be made of in this shop, and what they cost. */
export function ShopForm({ jobId, list }: { jobId: number; list: WeldList }) {
  const [shop, setShop] = useState(list.shop)
  const [prices, setPrices] = useState(list.prices)
  const changed = JSON.stringify([shop, prices]) !== JSON.stringify([list.shop, list.prices])
  const save = useSettings(jobId, list)
  const processes: readonly string[] = shop.processes
  const words = new Map(processOptions(useUsage(list.code.id)))
  const toggle = (process: (typeof PROCESSES)[number]) =>
    setShop((now) => ({
      ...now,
      processes: now.processes.includes(process)
        ? now.processes.filter((one) => one !== process)
        : [...now.processes, process],
    }))
  return (
    <section className="panel grid gap-3 p-3" aria-label={t`Shop`}>
      <h2 className="font-head text-[17px] font-semibold">
        <Trans>The shop</Trans>
      </h2>
      <fieldset>
        <legend className="label">
          <Trans>Processes</Trans>
        </legend>
        <div className="grid gap-0.5 text-[14px]">
          {PROCESSES.map((process) => (
            <label key={process} className="flex min-h-6 items-center gap-2">
              <input type="checkbox" checked={processes.includes(process)} onChange={() => toggle(process)} />
              {words.get(process) ?? process}
            </label>
          ))}
        </div>
      </fieldset>
      <Labelled words={t`Thickest plate in stock`}>
        <QuantityField
          label={t`Thickest plate in stock`}
          kind="thickness"
          value={shop.thickest_mm}
          onChange={(mm) => setShop((now) => ({ ...now, thickest_mm: mm }))}
        />
      </Labelled>
      <Labelled words={t`Coupons in at most so many positions`}>
        <Choice
          label={t`Coupons in at most so many positions`}
          value={shop.most_positions ? String(shop.most_positions) : null}
          options={COUNTS}
          none={t`any number`}
          onChange={(count) => setShop((now) => ({ ...now, most_positions: count ? Number(count) : null }))}
        />
      </Labelled>
      <div className="grid grid-cols-2 gap-2">
        {PRICES.map(([name, words]) => (
          <Labelled key={name} words={`${words}, ${prices.currency}`}>
            <NumberField
              label={words}
              value={prices[name]}
              onChange={(value) => setPrices((now) => ({ ...now, [name]: value }))}
            />
          </Labelled>
        ))}
      </div>
      <p className="text-[12.5px] text-steel2">
        <Trans>Prices put coupons in order. What tests cost stands in the code book.</Trans>
      </p>
      {save.isError && <Notice mark="breach">{save.error.message}</Notice>}
      <Button
        look="main"
        disabled={!changed || processes.length === 0 || save.isPending}
        onClick={() => save.mutate({ shop, prices })}
      >
        <Trans>Save</Trans>
      </Button>
    </section>
  )
}
