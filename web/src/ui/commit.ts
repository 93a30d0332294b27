import { useCallback, useEffect, useRef, type RefObject } from 'react'

const PATIENCE_MS = 60_000
const LOOK_MS = 50

/**
 * Leave the field that is being typed in, wait until everything typed in a frame is read, then go on: a value that
 * is typed and clicked away from at once must not be missing from what is saved. Nothing goes on once the frame is
 * gone, nor while something is still unread after a minute: rather no save than one without it.
 */
function whenRead(frame: () => Element | null, then: (frame: Element) => void): void {
  if (document.activeElement instanceof HTMLElement) document.activeElement.blur()
  const until = Date.now() + PATIENCE_MS
  const look = () => {
    const here = frame()
    if (!here) return
    if (!here.querySelector('[aria-busy="true"]')) then(here)
    else if (Date.now() < until) window.setTimeout(look, LOOK_MS)
  }
  // Leaving a field is told to it after this event.
  window.setTimeout(look, LOOK_MS)
}

/** Submit a form once everything typed in it is read. */
export function commitAndSubmit(formId: string): void {
  whenRead(
    () => document.getElementById(formId),
    (form) => {
      if (form instanceof HTMLFormElement) form.requestSubmit()
    },
  )
}

/** A save that waits until everything typed in a frame is read, and then saves what stands by then. */
export function useSaveWhenRead(frame: RefObject<HTMLElement | null>, save: () => void): () => void {
  const latest = useRef(save)
  useEffect(() => {
    latest.current = save
  })
  return useCallback(() => {
    whenRead(
      () => frame.current,
      () => latest.current(),
    )
  }, [frame])
}

/** Put the cursor where something in the form could not be read; true if there is such a place. */
export function showWrong(form: HTMLFormElement): boolean {
  const wrong = form.querySelector<HTMLElement>('[aria-invalid="true"]')
  wrong?.focus()
  return wrong !== null
}
