// Keeps one page, a shopping list or a session that is cooked, and what it needs, for a time
// without a connection: the network first, then what was kept. Nothing else is kept.
const KEPT = "shopping-list";

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
        if (!answer?.ok || answer.redirected) continue;
        await cache.put(address, answer);
        kept += 1;
      }
      // said to be kept only when all of it is
      event.source?.postMessage({ kept: kept === event.data.keep.length });
    })(),
  );
});
self.addEventListener("fetch", (event) => {
  if (event.request.method !== "GET") return;
  event.respondWith(
    (async () => {
      try {
        return await fetch(event.request);
      } catch (error) {
        const kept = await caches.match(event.request, { ignoreSearch: true, ignoreVary: true });
        if (kept) return kept;
        throw error;
      }
    })(),
  );
});
