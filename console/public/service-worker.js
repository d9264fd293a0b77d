/*
 * Keeps the console's own files and the last known state, so that a phone in a plant room without a network shows what
 * was known last, and how old it is. Nothing is kept of what was asked for by anything but Now, and all that was known
 * goes when somebody signs out.
 */
const FILES = "files-1";
const KNOWN = "known-1";
const MOST_FILES = 300;
const KEPT_AT = "X-Kept-At";
/** What Now shows. */
const OF_NOW = ["session", "places", "limits", "points", "alerts", "devices", "gateways", "gateways/heard"].map(
  (path) => "/api/v1/" + path,
);

self.addEventListener("install", () => self.skipWaiting());
self.addEventListener("activate", (event) => {
  const mine = async () => {
    const names = await caches.keys();
    await Promise.all(names.filter((name) => name !== FILES && name !== KNOWN).map((name) => caches.delete(name)));
    await self.clients.claim();
  };
  event.waitUntil(mine());
});

self.addEventListener("message", (event) => {
  if (event.data?.keep) {
    // What the first page loaded before this was there to see it.
    event.waitUntil(Promise.allSettled([...event.data.keep, ...OF_NOW].map((path) => answer(new Request(path)))));
  } else if (event.data?.forget) {
    event.waitUntil(caches.delete(KNOWN));
  }
});

self.addEventListener("fetch", (event) => {
  if (event.request.method === "GET" && kindOf(event.request)) {
    event.respondWith(answer(event.request));
  }
});

/** A notice of the service: shown, also while no page is open. One of the same alert takes the place of the last. */
self.addEventListener("push", (event) => {
  let notice;
  try {
    notice = event.data.json();
  } catch {
    notice = { title: "Open Pasture", body: "There is something new. Open the page to see it.", address: "/" };
  }
  event.waitUntil(
    self.registration.showNotification(notice.title, {
      body: notice.body,
      icon: "/icon-192.png",
      data: { address: notice.address },
      ...(notice.topic ? { tag: notice.topic, renotify: true } : {}),
    }),
  );
});

/** Opens what a notice is about, in the page that is there, or in a new one. */
self.addEventListener("notificationclick", (event) => {
  event.notification.close();
  const address = new URL(event.notification.data?.address ?? "/", self.location.origin);
  if (address.origin !== self.location.origin) {
    return;
  }
  const open = async () => {
    const pages = await self.clients.matchAll({ type: "window" });
    const page = pages.find((one) => "focus" in one);
    if (!page) {
      return self.clients.openWindow(address.href);
    }
    await page.focus();
    return page.navigate(address.href);
  };
  event.waitUntil(open());
});

/** What is kept of a request: a page, a file, something that Now shows; undefined for all else. */
function kindOf(request) {
  const url = new URL(request.url);
  if (url.origin !== self.location.origin) {
    return undefined;
  }
  if (request.mode === "navigate" || url.pathname === "/") {
    return url.pathname.startsWith("/api/") ? undefined : "page";
  }
  if (url.pathname.startsWith("/assets/") || url.pathname === "/icon.svg") {
    return "file";
  }
  return OF_NOW.includes(url.pathname) && !url.search ? "known" : undefined;
}

function answer(request) {
  switch (kindOf(request)) {
    case "file":
      return file(request);
    case "page":
      return newest(request, FILES, "/");
    default:
      return newest(request, KNOWN, new URL(request.url).pathname);
  }
}

/** The name of a file changes with its content. */
async function file(request) {
  const files = await caches.open(FILES);
  const kept = await files.match(request);
  if (kept) {
    return kept;
  }
  const found = await fetch(request);
  if (found.ok) {
    await files.put(request, found.clone());
    const all = await files.keys();
    await Promise.all(all.slice(0, Math.max(0, all.length - MOST_FILES)).map((one) => files.delete(one)));
  }
  return found;
}

/** What the service says; if it cannot be reached, or breaks off, what it said last, with the time of that. */
async function newest(request, name, key) {
  const cache = await caches.open(name);
  let found;
  let content;
  try {
    found = await fetch(request);
    content = found.ok ? await found.clone().blob() : undefined;
  } catch (error) {
    const kept = await cache.match(key);
    if (kept) {
      return kept;
    }
    throw error;
  }
  if (content && !found.redirected) {
    const headers = { "Content-Type": found.headers.get("Content-Type") ?? "", [KEPT_AT]: new Date().toISOString() };
    await cache.put(key, new Response(content, { headers }));
  } else if (found.status === 401) {
    await caches.delete(KNOWN);
  }
  return found;
}
