import { Combobox, ComboboxInput, ComboboxOption, ComboboxOptions } from '@headlessui/react'
import { keepPreviousData, queryOptions, useQuery } from '@tanstack/react-query'
import { useState } from 'react'

import { api, unwrap } from '../../api/client'
import type { MetalFound } from '../../api/types'
import { useSettled } from '../../ui/useSettled'

type Props = {
  label: string
  path: string
  value: string | null | undefined
  thicknessMm: number | null | undefined
  disabled: boolean
  error: string | undefined
  onType: (designation: string | null) => void
  onPick: (metal: MetalFound) => void
}

const metalsQuery = (text: string, thickness: number | null) =>
  queryOptions({
    queryKey: ['metals', text, thickness],
    queryFn: ({ signal }) =>
      unwrap(api.GET('/api/metals', { params: { query: { search_text: text, ...(thickness === null ? {} : { thickness_mm: thickness }) } }, signal })),
    staleTime: Infinity,
  })

/** A base metal: typed freely, or picked from the catalogue by what people say. */
export function MetalField({ label, path, value, thicknessMm, disabled, error, onType, onPick }: Props) {
  const [asked, setAsked] = useState('')
  const settled = useSettled(asked)
  const found = useQuery({ ...metalsQuery(settled, thicknessMm ?? null), enabled: settled.trim().length > 0, placeholderData: keepPreviousData })
  const options = asked.trim() ? (found.data ?? []) : []
  return (
    <div className="min-w-0">
      <Combobox
        value={value ?? ''}
        disabled={disabled}
        onChange={(name: string | null) => {
          const metal = options.find((one) => one.name === name)
          if (metal) onPick(metal)
          setAsked('')
        }}
      >
        <ComboboxInput
          aria-label={label}
          aria-invalid={error ? true : undefined}
          data-path={path}
          className={`field ${error ? 'border-breach!' : ''}`}
          placeholder="S355J2+N"
          autoComplete="off"
          displayValue={(text: string) => text}
          onChange={(event) => {
            setAsked(event.target.value)
            onType(event.target.value === '' ? null : event.target.value)
          }}
        />
        {options.length > 0 && (
          <ComboboxOptions anchor="bottom start" modal={false} className="panel z-50 max-h-72 w-80 overflow-auto py-1 text-[13px] focus:outline-none">
            {options.map((one) => (
              <ComboboxOption key={one.name} value={one.name} className="flex justify-between gap-3 px-3 py-1 data-focus:bg-accent-soft">
                <span>
                  <b>{one.name}</b> <span className="text-steel2">{one.standard}</span>
                </span>
                <span className="shrink-0 text-steel2">
                  {one.iso_15608}
                  {one.aws_d1_1 && ` · ${one.aws_d1_1}`}
                  {one.yield_mpa != null && ` · ${String(one.yield_mpa)} MPa`}
                </span>
              </ComboboxOption>
            ))}
          </ComboboxOptions>
        )}
      </Combobox>
      {error && (
        <div role="alert" className="mt-0.5 text-[12px] text-breach">
          {error}
        </div>
      )}
    </div>
  )
}
