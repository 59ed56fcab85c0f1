/// <reference types="@sveltejs/kit" />
/// <reference no-default-lib="true"/>
/// <reference lib="esnext" />
/// <reference lib="webworker" />
/** Keeps the whole application on the device: after the first load it needs no server. */
import { build, files, version } from '$service-worker';

const worker = self as unknown as ServiceWorkerGlobalScope;
const CACHE = `hekto-${version}`;
const SHELL = '/';
/** Licenses are read on demand. */
const ASSETS = [...build, ...files.filter((f) => !f.endsWith('.txt')), SHELL];

worker.addEventListener('install', (event) => {
  event.waitUntil(
    caches
      .open(CACHE)
      .then((cache) => cache.addAll(ASSETS))
      .then(() => worker.skipWaiting()),
  );
});

worker.addEventListener('activate', (event) => {
  event.waitUntil(
    caches
      .keys()
      .then((keys) => Promise.all(keys.filter((k) => k !== CACHE).map((k) => caches.delete(k))))
      .then(() => worker.clients.claim()),
  );
});

worker.addEventListener('fetch', (event) => {
  const { request } = event;
  const url = new URL(request.url);
  if (request.method !== 'GET' || url.origin !== location.origin || url.pathname.startsWith('/api/')) return;
  event.respondWith(answer(request, url));
});

async function answer(request: Request, url: URL): Promise<Response> {
  const cache = await caches.open(CACHE);
  const kept =
    ASSETS.includes(url.pathname) && url.pathname !== SHELL ? await cache.match(url.pathname) : undefined;
  if (kept) return kept;
  try {
    return await fetch(request);
  } catch (error) {
    // Every page is the same shell, which finds its way by the address.
    const shell = request.mode === 'navigate' ? await cache.match(SHELL) : undefined;
    if (shell) return shell;
    throw error;
  }
}
