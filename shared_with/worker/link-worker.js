// Keeps the pages of one link, today and the list, for a time without a connection: the network
// first, then what was kept. What belongs to another link is never answered from here.
const KEPT = `link ${self.registration.scope}`;

self.addEventListener("install", () => self.skipWaiting());
self.addEventListener("activate", (event) => event.waitUntil(self.clients.claim()));
self.addEventListener("message", (event) => {
  if (!event.data?.keep) return;
  event.waitUntil(
    (async () => {
      const cache = await caches.open(KEPT);
      let kept = 0;
      for (const address of event.data.keep) {
        const answer = await fetch(address, { credentials: "same-origin" }).catch(() => null);
        // a link that no longer opens leaves nothing behind
        if (answer && (answer.status === 410 || answer.status === 404)) await caches.delete(KEPT);
        if (answer?.ok && !answer.redirected) {
          await cache.put(address, answer);
          kept += 1;
        }
      }
      event.source?.postMessage({ kept: kept === event.data.keep.length });
    })(),
  );
});
self.addEventListener("fetch", (event) => {
  if (event.request.method !== "GET") return;
  event.respondWith(
    (async () => {
      try {
        const answer = await fetch(event.request);
        if (answer.status === 410) await caches.delete(KEPT);
        return answer;
      } catch (error) {
        const cache = await caches.open(KEPT);
        const kept = await cache.match(event.request, { ignoreSearch: true, ignoreVary: true });
        if (kept) return kept;
        throw error;
      }
    })(),
  );
});
