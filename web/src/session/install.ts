import { isKeeping } from './kept'

/** The file of the worker that opens the program without a network. */
const WORKER = '/sw.js'
const LOOKS_MS = 3_600_000

let renewed = false
const listeners = new Set<() => void>()

/** Whether the browser can open this address without a network: over HTTPS, or on this machine itself. */
export const canInstall = (): boolean => window.isSecureContext && 'serviceWorker' in navigator

/** Whether a newer version of the program than the one on the page has come. */
export const isRenewed = (): boolean => renewed

export function onRenewed(listener: () => void): () => void {
  listeners.add(listener)
  return () => listeners.delete(listener)
}

/** Take care that the program opens without a network, where this device is to work without one. */
export async function install(): Promise<void> {
  if (!canInstall() || !isKeeping()) return
  const found = await navigator.serviceWorker.register(WORKER)
  // The page was read from the server just now: a worker that waits belongs to it.
  found.waiting?.postMessage('take-over')
  found.addEventListener('updatefound', () => {
    const next = found.installing
    next?.addEventListener('statechange', () => {
      if (next.state !== 'installed' || !navigator.serviceWorker.controller) return
      renewed = true
      for (const listener of listeners) listener()
    })
  })
  setInterval(() => void found.update().catch(() => undefined), LOOKS_MS)
}

/** The program opens from the server only, as on any other device. */
export async function uninstall(): Promise<void> {
  if (!('serviceWorker' in navigator)) return
  for (const one of await navigator.serviceWorker.getRegistrations()) await one.unregister()
}
