// Keeps the application itself (page, scripts, styles, fonts) so that it opens while the server is away. What it shows
// of a rig comes from the server, or from what the page has kept; nothing under /api passes through here.
// The build puts `files` and `version` before this text.
/* global self, caches, files, version, fetch, Response, URL */
const name = `yunta-${version}`;
const page = '/';

self.addEventListener('install', (event) => {
  event.waitUntil(
    caches
      .open(name)
      .then((cache) => cache.addAll([page, ...files]))
      .then(() => self.skipWaiting()),
  );
});

self.addEventListener('activate', (event) => {
  const old = (key) => key.startsWith('yunta-') && key !== name;
  event.waitUntil(
    caches
      .keys()
      .then((keys) => Promise.all(keys.filter(old).map((key) => caches.delete(key))))
      .then(() => self.clients.claim()),
  );
});

self.addEventListener('fetch', (event) => {
  const { request } = event;
  const url = new URL(request.url);
  if (
    request.method !== 'GET' ||
    url.origin !== self.location.origin ||
    url.pathname.startsWith('/api') ||
    url.pathname === '/health'
  )
    return;
  if (request.mode === 'navigate')
    event.respondWith(
      fetch(request).then(
        (answer) => (answer.ok ? answer : kept(page)),
        () => kept(page),
      ),
    );
  else event.respondWith(caches.match(request, { ignoreSearch: true }).then((found) => found ?? fetch(request)));
});

const kept = async (path) => (await caches.match(path)) ?? Response.error();
