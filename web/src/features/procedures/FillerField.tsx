import { t } from '@lingui/core/macro'
import { keepPreviousData, queryOptions, useQuery } from '@tanstack/react-query'

import { api, unwrap } from '../../api/client'
import type { FillerFound } from '../../api/types'
import { PickField, useAsked } from '../../ui/PickField'

type Props = {
  path: string
  value: string | null | undefined
  disabled: boolean
  onType: (designation: string | null) => void
  onPick: (filler: FillerFound) => void
}

const fillersQuery = (text: string) =>
  queryOptions({
    queryKey: ['fillers', text],
    queryFn: ({ signal }) => unwrap(api.GET('/api/fillers', { params: { query: { search_text: text } }, signal })),
    staleTime: 60_000,
  })

const keyOf = (one: FillerFound) => `${one.product?.name ?? ''}|${one.decoded.designation}`

/** A filler: typed freely, or picked by what people say, with what its class asks for beside it. */
export function FillerField({ onPick, ...rest }: Props) {
  const [asked, setAsked] = useAsked()
  const found = useQuery({
    ...fillersQuery(asked),
    enabled: asked.trim().length > 0,
    placeholderData: keepPreviousData,
  })
  const fillers = found.data ?? []
  return (
    <PickField
      {...rest}
      label={t`Filler designation`}
      placeholder={t`ER70S-6, or .045 flux-core`}
      picks={fillers.map((one) => ({
        key: keyOf(one),
        main: one.product?.name ?? one.decoded.designation,
        sub: one.product ? one.decoded.designation : one.said || one.decoded.product,
        side: [one.nominal, one.decoded.polarities.join('/')].filter(Boolean).join(' · '),
      }))}
      onAsk={setAsked}
      onPick={(key) => {
        const filler = fillers.find((one) => keyOf(one) === key)
        if (filler) onPick(filler)
      }}
    />
  )
}
