/* Keeps this page so that it can be loaded while the server cannot be reached: its own files, and what stands around
   a cook at its fire. What the server says always comes first. */
const FILES = '__FILES__'
const NAME = 'ravska-__VERSION__'
const KEPT = ['/api/book/preferences', '/api/fire/cook', '/api/cooks/in-hand']

self.addEventListener('install', (event) => {
  event.waitUntil(caches.open(NAME).then((kept) => kept.addAll(['/', ...FILES])))
  self.skipWaiting()
})

self.addEventListener('activate', (event) => {
  const others = (names) => names.filter((name) => name.startsWith('ravska-') && name !== NAME)
  event.waitUntil(
    caches
      .keys()
      .then((names) => Promise.all(others(names).map((name) => caches.delete(name))))
      .then(() => self.clients.claim()),
  )
})

/** Ask the server; where it does not answer, what it said last. */
async function serverFirst(request, under) {
  const kept = await caches.open(NAME)
  try {
    const answer = await fetch(request)
    if (answer.ok) await kept.put(under, answer.clone())
    return answer
  } catch (lost) {
    const before = await kept.match(under)
    if (before) return before
    throw lost
  }
}

self.addEventListener('fetch', (event) => {
  const { request } = event
  const { origin, pathname } = new URL(request.url)
  if (request.method !== 'GET' || origin !== self.location.origin) return
  if (request.mode === 'navigate') {
    if (!pathname.startsWith('/api/')) event.respondWith(serverFirst(request, '/'))
  } else if (FILES.includes(pathname)) {
    event.respondWith(caches.match(request, { cacheName: NAME }).then((kept) => kept ?? fetch(request)))
  } else if (KEPT.includes(pathname)) {
    event.respondWith(serverFirst(request, pathname))
  }
})
