import { t } from '@lingui/core/macro'
import { Refusal, csrfToken, refusalFrom } from './client'

function problem(detail: string) {
  return { type: '/problems/no-answer', title: t`Not sent`, status: 0, detail, errors: [] }
}

/** Send a file byte for byte; a refusal is thrown as one. */
export async function sendBytes(path: string, file: Blob): Promise<unknown> {
  let answer: Response
  try {
    answer = await fetch(path, {
      method: 'POST',
      headers: { 'Content-Type': 'application/json', 'X-CSRFToken': csrfToken() },
      body: await file.arrayBuffer(),
    })
  } catch {
    throw new Refusal(0, problem(t`The server does not answer. Nothing was taken; try again.`))
  }
  const body: unknown = await answer.json().catch(() => null)
  if (!answer.ok) throw refusalFrom(answer.status, body)
  return body
}
