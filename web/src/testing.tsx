import { QueryClient, QueryClientProvider } from '@tanstack/react-query'
import { render } from '@testing-library/react'
import type { ReactNode } from 'react'
import { vi } from 'vitest'

import table from '../../tests/welding/cases/writing.json'
import { TermsProvider } from './session/terms'
import { UnitsProvider } from './session/units'

/** What the server would say to a request; ``null`` is no answer at all. */
export type Answer = { status?: number; body: unknown } | null
type Asked = { path: string; query: URLSearchParams; body: Record<string, unknown> }

/** Stand in for the server; returns what was asked of it. */
export function serve(answer: (asked: Asked) => Answer | Promise<Answer>): Asked[] {
  const seen: Asked[] = []
  vi.stubGlobal('fetch', async (request: Request) => {
    const text = await request.text()
    const url = new URL(request.url, 'http://127.0.0.1')
    const asked = {
      path: url.pathname,
      query: url.searchParams,
      body: text ? (JSON.parse(text) as Record<string, unknown>) : {},
    }
    seen.push(asked)
    const found = await answer(asked)
    if (!found) throw new TypeError('no answer')
    return new Response(JSON.stringify(found.body), {
      status: found.status ?? 200,
      headers: { 'Content-Type': 'application/json' },
    })
  })
  return seen
}

export function refusal(detail: string): Answer {
  return { status: 422, body: { type: '/problems/unreadable', title: '', status: 422, detail, errors: [] } }
}

/** Some of the glossary, as the server gives it. */
const TERMS = [
  ['root-gap', 'root opening', 'root gap'],
  ['groove-angle', 'groove angle', 'included angle'],
  ['weld-fillet', 'fillet weld', 'fillet weld'],
  ['weld-groove-cjp', 'CJP groove weld', 'full penetration butt weld'],
  ['weld-groove-pjp', 'PJP groove weld', 'partial penetration butt weld'],
].map(([key = '', aws = '', iso = '']) => ({ key, aws, iso, meaning: '' }))

/** Render with units, terms and queries around it. */
export function show(children: ReactNode) {
  const queries = new QueryClient({ defaultOptions: { queries: { retry: false } } })
  const around = (inner: ReactNode) => (
    <QueryClientProvider client={queries}>
      <TermsProvider terms={TERMS}>
        <UnitsProvider kinds={Object.values(table.kinds)}>{inner}</UnitsProvider>
      </TermsProvider>
    </QueryClientProvider>
  )
  const result = render(around(children))
  return { ...result, again: (next: ReactNode) => result.rerender(around(next)) }
}
