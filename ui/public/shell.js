// Keeps the page itself for when there is no network: index.html and what it is
// built of, nothing that the server answers. Each build has files of its own
// names, so that what is kept never grows old; a new index.html is taken whenever
// there is a network, and shows at the next load.
const KEPT = 'shell-1'

addEventListener('install', (event) => {
  event.waitUntil(
    caches
      .open(KEPT)
      .then((kept) => kept.add(new Request('/', { cache: 'reload' })))
      .then(() => skipWaiting()),
  )
})

addEventListener('activate', (event) => event.waitUntil(clients.claim()))

const isPage = (request) => request.mode === 'navigate'
const isPart = (url) => url.pathname.startsWith('/assets/') || url.pathname === '/icon.svg'

addEventListener('fetch', (event) => {
  const { request } = event
  const url = new URL(request.url)
  if (request.method !== 'GET' || url.origin !== location.origin) return
  // The page does not wait for what is kept of it.
  const later = (work) => event.waitUntil(work)
  if (isPage(request)) event.respondWith(page(request, later))
  else if (isPart(url)) event.respondWith(part(request, later))
})

/** The page as it is now, or the one that is kept where there is no network. Every address of the house is one page. */
async function page(request, later) {
  try {
    const now = await fetch(request)
    const type = now.headers.get('content-type') ?? ''
    // A download or an answer of the server is no page, and is not kept.
    // The page inside a try has other headers.
    const whole = !new URL(request.url).pathname.startsWith('/try/')
    if (now.ok && whole && type.startsWith('text/html')) later(keep(now.clone()))
    return now
  } catch (error) {
    const before = await (await caches.open(KEPT)).match('/')
    if (before) return before
    throw error
  }
}

async function keep(now) {
  const kept = await caches.open(KEPT)
  const html = await now.clone().text()
  await kept.put('/', now)
  await forgetOld(kept, html)
}

/** A part that is kept is as good as a new one: its name changes with what is in it. */
async function part(request, later) {
  const kept = await caches.open(KEPT)
  const before = await kept.match(request)
  if (before) return before
  const now = await fetch(request)
  if (now.ok) later(kept.put(request, now.clone()))
  return now
}

/** When the page names other parts than before, those of older versions are let go, but for the last ones kept. */
async function forgetOld(kept, html) {
  const main = /\/assets\/index-[\w-]+\.js/.exec(html)?.[0]
  const keys = await kept.keys()
  if (!main || keys.some((key) => key.url.endsWith(main))) return
  const parts = keys.filter((key) => new URL(key.url).pathname.startsWith('/assets/'))
  await Promise.all(parts.map((key) => kept.delete(key)))
}
