// Keeps the application and what the work on site needs at hand, for when the connection is gone.
// What is asked of the server is always asked of it first; only then does the kept copy answer.
const KEPT = 'heathrise-work-1'
const PAGE = '/index.html'
const ASKED_OF_THE_SERVER_FIRST = [/^\/api\/catalogue$/, /^\/api\/projects\/[^/]+$/, /^\/api\/projects\/[^/]+\/(work|snags)$/, /^\/api\/projects\/[^/]+\/pictures\/[^/]+$/]

self.addEventListener('install', () => self.skipWaiting())
self.addEventListener('activate', (event) => event.waitUntil(self.clients.claim()))

async function serverFirst(request, key) {
  const kept = await caches.open(KEPT)
  try {
    const answer = await fetch(request)
    if (answer.ok) await kept.put(key, answer.clone())
    return answer
  } catch (error) {
    const copy = await kept.match(key)
    if (copy) return copy
    throw error
  }
}

async function keptFirst(request) {
  const kept = await caches.open(KEPT)
  const copy = await kept.match(request.url)
  if (copy) return copy
  const answer = await fetch(request)
  if (answer.ok) await kept.put(request.url, answer.clone())
  return answer
}

self.addEventListener('fetch', (event) => {
  const { request } = event
  const url = new URL(request.url)
  if (request.method !== 'GET' || url.origin !== self.location.origin) return
  if (request.mode === 'navigate') event.respondWith(serverFirst(request, PAGE))
  else if (url.pathname.startsWith('/assets/') || url.pathname === '/mark.svg') event.respondWith(keptFirst(request))
  else if (ASKED_OF_THE_SERVER_FIRST.some((path) => path.test(url.pathname))) event.respondWith(serverFirst(request, url.pathname))
})
