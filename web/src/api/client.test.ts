import { afterEach, expect, test, vi } from 'vitest'

import { api } from './client'

const problem = (type: string) =>
  new Response(JSON.stringify({ type, title: 'Not accepted', status: 403, detail: 'refused', errors: [] }), {
    status: 403,
    headers: { 'Content-Type': 'application/problem+json' },
  })

afterEach(() => vi.unstubAllGlobals())

test.each([
  ['a token that a sign-in has just changed is read again', '/problems/csrf', 2],
  ['a plain refusal is not asked twice', '/problems/refused', 1],
])('%s', async (_, type, times) => {
  document.cookie = 'csrftoken=old'
  const seen: (string | null)[] = []
  vi.stubGlobal('fetch', async (request: Request) => {
    seen.push(request.headers.get('X-CSRFToken'))
    expect(await request.json()).toEqual({ username: 'x' })
    if (seen.length > 1) return Response.json({})
    document.cookie = 'csrftoken=new'
    return problem(type)
  })
  const answer = await api.POST('/api/session/demo', { body: { username: 'x' } })
  expect(seen).toEqual(['old', 'new'].slice(0, times))
  expect(answer.response.ok).toBe(times === 2)
})
