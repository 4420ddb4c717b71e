// Keeps the page with its fonts, and what was last seen of the sittings, so that the bench opens without the
// server. The list of assets is written in by the server.
const assets = __ASSETS__;
const shell = "gyrophane-shell";
const seen = "gyrophane-seen";
const page = "/";

self.addEventListener("install", (event) => {
  event.waitUntil(
    caches
      .open(shell)
      .then(async (cache) => {
        // Names of assets tell their content: what is there already is right.
        const missing = [];
        for (const asset of assets) if (!(await cache.match(asset))) missing.push(asset);
        await cache.addAll([page, ...missing]);
      })
      .then(() => self.skipWaiting()),
  );
});

self.addEventListener("activate", (event) => {
  event.waitUntil(
    caches
      .open(shell)
      .then(async (cache) => {
        const wanted = new Set([page, ...assets]);
        for (const request of await cache.keys())
          if (!wanted.has(new URL(request.url).pathname)) await cache.delete(request);
      })
      .then(() => self.clients.claim()),
  );
});

/** What is kept of the API: who paints, and the sittings. */
const kept = /^\/api\/(session|sittings(\/\d+)?)$/;

/** Who paints by an answer on the session, as it is kept. */
const painterOf = async (answer) => (await answer?.clone().json())?.painter?.id ?? null;

async function fresh(request) {
  const answer = await fetch(request);
  const cache = await caches.open(seen);
  if (answer.status >= 500) throw new Error("the server does not answer");
  if (answer.status === 401) {
    await caches.delete(seen); // the session has ended
    return answer;
  }
  if (!answer.ok) {
    await cache.delete(request);
    return answer;
  }
  if (new URL(request.url).pathname === "/api/session") {
    const old = await cache.match(request);
    if (old && (await painterOf(old)) !== (await painterOf(answer))) {
      await caches.delete(seen); // it was another's
      await (await caches.open(seen)).put(request, answer.clone());
      return answer;
    }
  }
  await cache.put(request, answer.clone());
  return answer;
}

async function asSeen(request) {
  const old = await (await caches.open(seen)).match(request);
  if (!old) return Response.json({ detail: "The server does not answer." }, { status: 503 });
  const headers = new Headers(old.headers);
  headers.set("Kept-Here", "yes");
  return new Response(await old.blob(), { status: old.status, headers });
}

self.addEventListener("fetch", (event) => {
  const { request } = event;
  const url = new URL(request.url);
  if (url.origin !== self.location.origin) return;
  if (request.method !== "GET") {
    // Somebody else is painting: what was seen is none of their business.
    if (url.pathname === "/api/session" || url.pathname === "/api/painters")
      event.respondWith(caches.delete(seen).then(() => fetch(request)));
    return;
  }
  if (request.mode === "navigate") {
    event.respondWith(
      fetch(request).catch(async () => (await caches.match(page)) ?? Response.error()),
    );
    return;
  }
  if (url.pathname.startsWith("/assets/")) {
    event.respondWith(caches.match(request).then((found) => found ?? fetch(request)));
    return;
  }
  if (kept.test(url.pathname)) event.respondWith(fresh(request).catch(() => asSeen(request)));
});
