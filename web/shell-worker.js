// The shell of the application without a network: the page and its files, and nothing of what a server says of jobs or people.
// The list is of what was built; a new build is a new worker.
const FILES = __FILES__
const CACHE = `shell ${FILES.join(' ').length} ${FILES.reduce((sum, f) => (sum * 31 + [...f].reduce((s, c) => (s * 31 + c.charCodeAt(0)) | 0, 7)) | 0, 1)}`

self.addEventListener('install', (event) => {
  event.waitUntil(caches.open(CACHE).then((cache) => cache.addAll(['/day', ...FILES])).then(() => self.skipWaiting()))
})

self.addEventListener('activate', (event) => {
  const dropOld = caches.keys().then((names) => Promise.all(names.filter((n) => n !== CACHE).map((n) => caches.delete(n))))
  event.waitUntil(dropOld.then(() => self.clients.claim()))
})

self.addEventListener('fetch', (event) => {
  const { request } = event
  const url = new URL(request.url)
  if (request.method !== 'GET' || url.origin !== self.location.origin) return
  // any address of the interface is the same page; the server's is newer, the kept one is there
  if (request.mode === 'navigate' && !/^\/(api|o|c|health|ready)(\/|$)/.test(url.pathname)) event.respondWith(fetch(request).catch(() => caches.match('/day')))
  else if (FILES.includes(url.pathname)) event.respondWith(caches.match(request).then((kept) => kept ?? fetch(request)))
})
