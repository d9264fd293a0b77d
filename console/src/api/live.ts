import { onScopeDispose, ref } from "vue";
import { api, Refusal } from "./http";

type Listener = (data: never) => void;

const EVENTS = ["reading", "alert", "gateway", "device", "changed", "news", "logbook", "frame", "resync"] as const;
export type LiveEvent = (typeof EVENTS)[number];

const listeners = new Map<string, Set<Listener>>();
let source: EventSource | undefined;
let frames = false;
let retry: number | undefined;

/** Whether the live stream is open: what is shown is current. */
export const connected = ref(false);

function open() {
  source?.close();
  const wanted = EVENTS.filter((name) => name !== "resync" && (name !== "frame" || frames));
  source = new EventSource("/api/v1/stream?events=" + wanted.join(","));
  source.addEventListener("hello", () => {
    // Whatever happened before it was open, or while it was broken, was missed: everybody loads again.
    connected.value = true;
    tell("resync", undefined);
  });
  EVENTS.forEach((name) => source?.addEventListener(name, (event) => tell(name, JSON.parse(event.data || "null"))));
  source.onerror = () => {
    connected.value = false;
    // The browser goes on trying by itself unless the service refused; then only a new sign-in helps.
    if (source?.readyState === EventSource.CLOSED) {
      window.clearTimeout(retry);
      retry = window.setTimeout(() => void reopen(), 3000);
    }
  };
}

async function reopen() {
  try {
    await api.get("session");
    open();
  } catch (error) {
    if (error instanceof Refusal && error.status === 401) {
      return;
    }
    retry = window.setTimeout(() => void reopen(), 3000);
  }
}

function tell(name: string, data: unknown) {
  listeners.get(name)?.forEach((listener) => listener(data as never));
}

/** Opens the live stream; once for the whole console. */
export function openLive() {
  if (!source || source.readyState === EventSource.CLOSED) {
    open();
  }
}

export function closeLive() {
  window.clearTimeout(retry);
  source?.close();
  source = undefined;
  connected.value = false;
}

/** Listens until the component or store that called it goes away. Raw frames are only sent while somebody looks. */
export function onLive<T>(name: LiveEvent, listener: (data: T) => void) {
  const set = listeners.get(name) ?? new Set();
  listeners.set(name, set);
  set.add(listener as Listener);
  wantFrames();
  onScopeDispose(() => {
    set.delete(listener as Listener);
    wantFrames();
  });
}

/** What the service says has changed, where it does not say how: it is to be asked for again. */
export type Changed =
  "registry" | "heard-gateways" | "rules" | "notices" | "commands" | "inlet" | "strangers" | "outlet";

/** Does something when one of these has changed; other changes cost nothing. */
export function onChanged(kinds: Changed[], action: () => unknown) {
  onLive<{ what: Changed }>("changed", ({ what }) => {
    if (kinds.includes(what)) {
      void action();
    }
  });
}

function wantFrames() {
  const wanted = (listeners.get("frame")?.size ?? 0) > 0;
  if (wanted !== frames) {
    frames = wanted;
    if (source) {
      open();
    }
  }
}
