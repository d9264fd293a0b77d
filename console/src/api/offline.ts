import { ref } from "vue";

/** Since when what is shown has not been heard of: the oldest of what was kept; undefined while the service answers. */
export const keptSince = ref<number>();

/** Each answer of the service, or what was kept of one because it could not be reached. */
export function answered(response: Response) {
  const kept = Date.parse(response.headers.get("X-Kept-At") ?? "");
  if (Number.isNaN(kept)) {
    keptSince.value = undefined;
  } else {
    keptSince.value = Math.min(kept, keptSince.value ?? Infinity);
  }
}

/** Keeps the console and the last known state for where there is no network; only over https, or on this machine. */
export async function keepForOffline() {
  if (!import.meta.env.PROD || !("serviceWorker" in navigator)) {
    return;
  }
  const seen = navigator.serviceWorker.controller !== null;
  await navigator.serviceWorker.register("/service-worker.js");
  const ready = await navigator.serviceWorker.ready;
  if (!seen) {
    const files = performance
      .getEntriesByType("resource")
      .map((one) => new URL(one.name))
      .filter((url) => url.origin === location.origin && url.pathname.startsWith("/assets/"));
    ready.active?.postMessage({ keep: ["/", "/icon.svg", ...files.map((url) => url.pathname)] });
  }
}

/** What was known goes with who was signed in. */
export function forgetKept() {
  keptSince.value = undefined;
  void navigator.serviceWorker?.ready.then((ready) => ready.active?.postMessage({ forget: true }));
}
