import { csrfToken, refusalFrom } from '../../api/client'
import type { Recording } from '../../api/types'
import { newId } from '../../domain/ids'

/** Send a recorder's file; told how far it is, from 0 to 1. */
export function sendFile(
  couponId: number,
  file: File,
  recorderId: number | null,
  onShare: (share: number) => void,
): Promise<Recording> {
  const query = new URLSearchParams({
    client_id: newId(),
    name: file.name,
    ...(recorderId === null ? {} : { recorder_id: String(recorderId) }),
  })
  return new Promise((done, failed) => {
    // fetch tells nothing of how far a body is.
    const request = new XMLHttpRequest()
    request.open('POST', `/api/coupons/${String(couponId)}/recordings?${query.toString()}`)
    request.setRequestHeader('Content-Type', 'application/octet-stream')
    request.setRequestHeader('X-CSRFToken', csrfToken())
    request.upload.onprogress = (event) => onShare(event.total > 0 ? event.loaded / event.total : 0)
    request.onload = () => {
      const body = parsed(request.responseText)
      if (request.status === 201) done(body as Recording)
      else failed(refusalFrom(request.status, body))
    }
    request.onerror = () => failed(refusalFrom(0, null))
    request.send(file)
  })
}

function parsed(text: string): unknown {
  try {
    return JSON.parse(text)
  } catch {
    return null
  }
}
