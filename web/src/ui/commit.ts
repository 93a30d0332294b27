const PATIENCE_MS = 4000
const LOOK_MS = 50

/**
 * Leave the field that is being typed in, wait until everything typed in a form is read, then submit
 * it: a value that is typed and clicked away from at once must not be missing from what is saved.
 */
export function commitAndSubmit(formId: string): void {
  if (document.activeElement instanceof HTMLElement) document.activeElement.blur()
  const until = Date.now() + PATIENCE_MS
  const look = () => {
    const form = document.getElementById(formId)
    if (!(form instanceof HTMLFormElement)) return
    if (form.querySelector('[aria-busy="true"]') && Date.now() < until) window.setTimeout(look, LOOK_MS)
    else form.requestSubmit()
  }
  // Leaving a field is told to it after this event.
  window.setTimeout(look, LOOK_MS)
}

/** Put the cursor where something in the form could not be read; true if there is such a place. */
export function showWrong(form: HTMLFormElement): boolean {
  const wrong = form.querySelector<HTMLElement>('[aria-invalid="true"]')
  wrong?.focus()
  return wrong !== null
}
