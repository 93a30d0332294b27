/// <reference lib="webworker" />
import { cleanupOutdatedCaches, matchPrecache, precacheAndRoute } from 'workbox-precaching'
import { NavigationRoute, registerRoute } from 'workbox-routing'

import { isAnswer } from './api/connection'
import { SHEETS, isSheet } from './domain/sheets'

declare const self: ServiceWorkerGlobalScope

/**
 * Opens the program without a network. Pages come from the server while it answers, so that nobody works with
 * an old program; else the page opens as it was kept, and what it shows says itself how old it is.
 */
const PATIENCE_MS = 4000

precacheAndRoute(self.__WB_MANIFEST)
cleanupOutdatedCaches()

async function page({ request }: { request: Request }): Promise<Response> {
  try {
    const answer = await fetch(request, { signal: AbortSignal.timeout(PATIENCE_MS) })
    if (isAnswer(answer.status)) return answer
  } catch {
    // No network, or none that answers in time.
  }
  return (await matchPrecache('/index.html')) ?? Response.error()
}
registerRoute(new NavigationRoute(page, { denylist: [/^\/(api|admin|health|static)\//] }))

// Sheets that were taken along; while the server answers its own is shown, which is as of today.
registerRoute(
  ({ url, sameOrigin }) => sameOrigin && isSheet(url.pathname),
  async ({ request }) => {
    try {
      const answer = await fetch(request)
      if (isAnswer(answer.status)) return answer
    } catch {
      // As kept.
    }
    return (await (await caches.open(SHEETS)).match(request.url, { ignoreSearch: true })) ?? Response.error()
  },
)

self.addEventListener('message', (event) => {
  if (event.data === 'take-over') void self.skipWaiting()
})
