import { queryOptions } from '@tanstack/react-query'

import { api, unwrap } from '../api/client'
import type { components } from '../api/schema'
import type { System } from '../api/types'

const kept = { staleTime: Infinity, gcTime: 60_000 }

export const decodeQuery = (text: string) =>
  queryOptions({
    queryKey: ['decode', text],
    queryFn: ({ signal }) => unwrap(api.POST('/api/calculators/decode', { body: { text }, signal })),
    enabled: text.trim() !== '',
    ...kept,
  })

export const gasQuery = (text: string) =>
  queryOptions({
    queryKey: ['gas', text],
    queryFn: ({ signal }) => unwrap(api.POST('/api/calculators/gas', { body: { text }, signal })),
    enabled: text.trim() !== '',
    ...kept,
  })

export const equivalentsQuery = (chemistry: Record<string, number>) =>
  queryOptions({
    queryKey: ['equivalents', chemistry],
    queryFn: ({ signal }) => unwrap(api.POST('/api/calculators/equivalents', { body: { chemistry }, signal })),
    ...kept,
  })

export const readQuery = (text: string, kind: string, system: System) =>
  queryOptions({
    queryKey: ['read', text, kind, system],
    queryFn: ({ signal }) =>
      unwrap(api.POST('/api/read', { body: { text, kind, as_: 'value', system, metal: 'steel' }, signal })),
    enabled: text.trim() !== '',
    ...kept,
  })

type Schemas = components['schemas']

export const schoolsQuery = queryOptions({
  queryKey: ['pulse-schools'],
  queryFn: () => unwrap(api.GET('/api/pulse-schools')),
  staleTime: Infinity,
})

export const pulseQuery = (body: Schemas['PulseIn']) =>
  queryOptions({
    queryKey: ['pulse', body],
    queryFn: ({ signal }) => unwrap(api.POST('/api/calculators/pulse', { body, signal })),
    ...kept,
  })

export const acQuery = (body: Schemas['AcIn']) =>
  queryOptions({
    queryKey: ['ac', body],
    queryFn: ({ signal }) => unwrap(api.POST('/api/calculators/ac', { body, signal })),
    ...kept,
  })

export const dialQuery = (body: Schemas['RunOutIn']) =>
  queryOptions({
    queryKey: ['dial', body],
    queryFn: ({ signal }) => unwrap(api.POST('/api/calculators/dial', { body, signal })),
    ...kept,
  })

export const cupQuery = (body: Schemas['CupIn']) =>
  queryOptions({
    queryKey: ['cup', body],
    queryFn: ({ signal }) => unwrap(api.POST('/api/calculators/cup', { body, signal })),
    enabled: body.text.trim() !== '',
    ...kept,
  })

export const beadQuery = (settings: Schemas['BeadIn']['settings']) =>
  queryOptions({
    queryKey: ['bead', settings],
    queryFn: ({ signal }) => unwrap(api.POST('/api/calculators/bead', { body: { settings }, signal })),
    ...kept,
  })

export const beadOfPassQuery = (body: Schemas['PassSettingsIn']) =>
  queryOptions({
    queryKey: ['bead-of-pass', body],
    queryFn: ({ signal }) => unwrap(api.POST('/api/calculators/bead/of-pass', { body, signal })),
    ...kept,
  })

export const cureQuery = (body: Schemas['CureIn']) =>
  queryOptions({
    queryKey: ['bead-cure', body],
    queryFn: ({ signal }) => unwrap(api.POST('/api/calculators/bead/cure', { body, signal })),
    ...kept,
  })
