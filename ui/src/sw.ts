/// <reference lib="webworker" />
import { matchPrecache, precacheAndRoute } from 'workbox-precaching'
import { NavigationRoute, registerRoute } from 'workbox-routing'

declare const self: ServiceWorkerGlobalScope & { __WB_MANIFEST: { url: string; revision: string | null }[] }

// The application itself, so that it opens without a connection. What it shows is kept by account, and not here.
precacheAndRoute(self.__WB_MANIFEST)

/** How long a page waits for the server before it opens as it was, in milliseconds. */
const patience = 4_000

registerRoute(new NavigationRoute(async ({ request }) => {
  try {
    return await fetch(request, { signal: AbortSignal.timeout(patience) })
  } catch {
    return (await matchPrecache('/index.html')) ?? Response.error()
  }
}, { denylist: [/^\/api\//] }))
