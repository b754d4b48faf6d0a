// Keeps the application and what the work on site needs at hand, for when the connection is gone.
// What is asked of the server is always asked of it first; only then does the kept copy answer.
const KEPT = 'heathrise-work-1'
const PAGE = '/index.html'
const ASKED_OF_THE_SERVER_FIRST = [/^\/api\/catalogue$/, /^\/api\/projects\/[^/]+$/, /^\/api\/projects\/[^/]+\/(work|pulls|snags|tests|ports)$/, /^\/api\/projects\/[^/]+\/pictures\/[^/]+$/]

self.addEventListener('install', () => self.skipWaiting())
self.addEventListener('activate', (event) => event.waitUntil(self.clients.claim()))

const isPage = (answer) => (answer.headers.get('Content-Type') ?? '').startsWith('text/html')

async function serverFirst(request, key) {
  const kept = await caches.open(KEPT)
  const fits = (answer) => key !== PAGE || isPage(answer)
  const copy = async () => {
    const found = await kept.match(key)
    return found && fits(found) ? found : undefined
  }
  try {
    const answer = await fetch(request)
    if (answer.ok && fits(answer)) await kept.put(key, answer.clone())
    // A server that fails is as good as none: reading goes on.
    return answer.status >= 500 ? ((await copy()) ?? answer) : answer
  } catch (error) {
    const found = await copy()
    if (found) return found
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

/** Keep every part of the application that is not kept yet: stages are loaded when they are first opened. */
async function keepAll() {
  const kept = await caches.open(KEPT)
  const parts = Object.values(await (await fetch('/manifest.json', { cache: 'no-store' })).json())
  const files = parts.flatMap((part) => [part.file, ...(part.css ?? []), ...(part.assets ?? [])]).map((file) => `/${file}`)
  for (const file of new Set(files)) {
    const url = new URL(file, self.location.origin).href
    if (!(await kept.match(url))) await kept.add(url)
  }
}

self.addEventListener('message', (event) => event.data === 'keep' && event.waitUntil(keepAll().catch(() => undefined)))

self.addEventListener('fetch', (event) => {
  const { request } = event
  const url = new URL(request.url)
  if (request.method !== 'GET' || url.origin !== self.location.origin) return
  // A paper that is opened is no page of the application.
  if (request.mode === 'navigate' && !url.pathname.startsWith('/api/')) event.respondWith(serverFirst(request, PAGE))
  else if (url.pathname.startsWith('/assets/') || url.pathname === '/mark.svg') event.respondWith(keptFirst(request))
  else if (ASKED_OF_THE_SERVER_FIRST.some((path) => path.test(url.pathname))) event.respondWith(serverFirst(request, url.pathname))
})
