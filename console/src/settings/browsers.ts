import { t } from "@/language";
import { api } from "@/api/http";
import type { BrowserView, BrowsersView } from "@/api/types";

/** Under which id this browser is notified, kept in this browser. */
const MINE = "notified-browser";

/** Why this browser cannot notify anybody; undefined if it can. */
export function hindrance(): string | undefined {
  if (!window.isSecureContext) {
    return t("Notices in a browser need https. Ask who runs this instance for an address that begins with https://.");
  }
  if (!("serviceWorker" in navigator) || !("PushManager" in window) || !("Notification" in window)) {
    return t("This browser shows no notices. On an iPhone or iPad add this page to the home screen first.");
  }
  if (Notification.permission === "denied") {
    return t("This browser is set not to show notifications of this page. Allow them in its settings for this page.");
  }
  return undefined;
}

/** The id under which this browser is notified. */
export function thisBrowser(): string | null {
  return localStorage.getItem(MINE);
}

/** By what name its person knows a browser: "Chrome on Android". */
export function nameOf(agent: string): string {
  const program =
    [
      ["Edge", /Edg/],
      ["Firefox", /Firefox|FxiOS/],
      ["Chrome", /Chrome|CriOS/],
      ["Safari", /Safari/],
    ].find(([, sign]) => (sign as RegExp).test(agent))?.[0] ?? t("Browser");
  const system = [
    ["Android", /Android/],
    ["iPhone", /iPhone/],
    ["iPad", /iPad/],
    ["Windows", /Windows/],
    ["Mac", /Mac OS/],
    ["Linux", /Linux/],
  ].find(([, sign]) => (sign as RegExp).test(agent))?.[0];
  return system ? t("{program} on {system}", { program, system }) : String(program);
}

/** Notifies who is signed in in this browser from now on. It asks whether it may. */
export async function notifyHere(known: BrowsersView) {
  if ((await Notification.requestPermission()) !== "granted") {
    throw new Error(t("This browser was not allowed to show notices."));
  }
  const worker = await navigator.serviceWorker.ready;
  const before = await worker.pushManager.getSubscription();
  // One for another instance at this address fits no more.
  await before?.unsubscribe();
  const subscription = await worker.pushManager.subscribe({
    userVisibleOnly: true,
    applicationServerKey: known.key,
  });
  const { endpoint, keys } = subscription.toJSON();
  const added = await api.post<BrowserView>("session/browsers", {
    name: nameOf(navigator.userAgent),
    endpoint,
    key: keys?.p256dh,
    secret: keys?.auth,
  });
  localStorage.setItem(MINE, added.id);
}

/** Who signs out here is notified here no longer. */
export async function notifyHereNoLonger() {
  const id = thisBrowser();
  if (!id) {
    return;
  }
  localStorage.removeItem(MINE);
  // Not what is ready one day: where the worker is gone, nobody would get any further.
  const worker = await navigator.serviceWorker?.getRegistration();
  await Promise.allSettled([
    api.remove("session/browsers/" + id),
    worker?.pushManager.getSubscription().then((subscription) => subscription?.unsubscribe()),
  ]);
}
