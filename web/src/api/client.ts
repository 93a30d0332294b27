import { t } from '@lingui/core/macro'
import createClient, { type Middleware } from 'openapi-fetch'

import { isAnswer, noteAnswer } from './connection'
import type { paths } from './schema'
import type { ProblemBody } from './types'

/** A refusal of the server, or no answer at all (status 0). */
export class Refusal extends Error {
  constructor(
    readonly status: number,
    readonly body: ProblemBody,
  ) {
    super(body.detail)
  }

  /** Whether sending the same again later may succeed. */
  get passing(): boolean {
    return this.status === 0 || this.status === 503 || this.status === 502
  }
}

const listeners = new Set<() => void>()

/** Hear of a session that has ended; returns how to stop hearing. */
export function onSignedOut(listener: () => void): () => void {
  listeners.add(listener)
  return () => listeners.delete(listener)
}

/** The token changes at sign-in, so it is read for every request. */
export function csrfToken(): string {
  return /(?:^|; )csrftoken=([^;]+)/.exec(document.cookie)?.[1] ?? ''
}

const middleware: Middleware = {
  onRequest({ request }) {
    if (request.method !== 'GET') request.headers.set('X-CSRFToken', csrfToken())
    return request
  },
}

/**
 * Ask, and ask once more where the token was refused: a sign-in that finishes between reading the
 * cookie and sending it leaves the old token in the header. Nothing was done yet when it is refused.
 */
async function fetchWithToken(request: Request): Promise<Response> {
  if (request.method === 'GET') return ask(request)
  const again = request.clone()
  const answer = await ask(request)
  if (answer.status !== 403) return answer
  const problem: unknown = await answer
    .clone()
    .json()
    .catch(() => null)
  if (!isProblem(problem) || problem.type !== '/problems/csrf') return answer
  again.headers.set('X-CSRFToken', csrfToken())
  return ask(again)
}

/** Ask, and note whether the server answers. */
async function ask(request: Request): Promise<Response> {
  try {
    const answer = await globalThis.fetch(request)
    noteAnswer(isAnswer(answer.status))
    return answer
  } catch (error) {
    if (!(error instanceof DOMException && error.name === 'AbortError')) noteAnswer(false)
    throw error
  }
}

export const api = createClient<paths>({
  baseUrl: window.location.origin,
  // Looked up at each call, so that tests can stand in for the server.
  fetch: fetchWithToken,
})
api.use(middleware)

const NO_ANSWER: ProblemBody = {
  type: '/problems/no-answer',
  title: t`No answer`,
  status: 0,
  detail: t`The server does not answer. What you typed is kept and can be sent again.`,
  errors: [],
}

/** Turn an answer of the client into data, or throw what went wrong. */
export async function unwrap<T>(answer: Promise<{ data?: T; error?: unknown; response: Response }>): Promise<T> {
  let result: { data?: T; error?: unknown; response: Response }
  try {
    result = await answer
  } catch (error) {
    if (error instanceof DOMException && error.name === 'AbortError') throw error
    throw new Refusal(0, NO_ANSWER)
  }
  if (result.response.ok) return result.data as T
  throw refusalFrom(result.response.status, result.error)
}

/** Make a refusal of an answer that is no success, whatever its body holds. */
export function refusalFrom(status: number, body: unknown): Refusal {
  const problem = isProblem(body) ? body : { ...NO_ANSWER, status, title: t`Error ${status}`, detail: NO_ANSWER.detail }
  if (status === 401) for (const listener of listeners) listener()
  return new Refusal(status, problem)
}

function isProblem(body: unknown): body is ProblemBody {
  return typeof body === 'object' && body !== null && 'detail' in body && 'type' in body
}
