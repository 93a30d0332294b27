import { t } from '@lingui/core/macro'
import { keepPreviousData, queryOptions, useQuery } from '@tanstack/react-query'

import { api, unwrap } from '../../api/client'
import type { MetalFound } from '../../api/types'
import { useUnits } from '../../session/units'
import { PickField, useAsked } from '../../ui/PickField'

type Props = {
  label: string
  path: string
  value: string | null | undefined
  thicknessMm: number | null | undefined
  disabled: boolean
  error: string | undefined
  placeholder?: string
  onType: (designation: string | null) => void
  onPick: (metal: MetalFound) => void
}

const metalsQuery = (text: string, thickness: number | null) =>
  queryOptions({
    queryKey: ['metals', text, thickness],
    queryFn: ({ signal }) =>
      unwrap(
        api.GET('/api/metals', {
          params: { query: { search_text: text, ...(thickness === null ? {} : { thickness_mm: thickness }) } },
          signal,
        }),
      ),
    staleTime: 60_000,
  })

/** A base metal: typed freely, or picked from the catalogue and the own records by what people say. */
export function MetalField({ thicknessMm, onPick, placeholder = 'S355J2+N', ...rest }: Props) {
  const units = useUnits()
  const [asked, setAsked] = useAsked()
  const found = useQuery({
    ...metalsQuery(asked, thicknessMm ?? null),
    enabled: asked.trim().length > 0,
    placeholderData: keepPreviousData,
  })
  const metals = found.data ?? []
  return (
    <PickField
      {...rest}
      placeholder={placeholder}
      picks={metals.map((one) => ({
        key: one.name,
        main: one.name,
        sub: one.own ? t`own record` : one.standard,
        side: [
          one.iso_15608,
          one.aws_d1_1,
          one.yield_mpa != null && `${units.value(one.yield_mpa, 'strength')} ${units.unit('strength')}`,
        ]
          .filter(Boolean)
          .join(' · '),
      }))}
      onAsk={setAsked}
      onPick={(name) => {
        const metal = metals.find((one) => one.name === name)
        if (metal) onPick(metal)
      }}
    />
  )
}
