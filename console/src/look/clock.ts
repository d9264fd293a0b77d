import { onScopeDispose, ref } from "vue";

/** The moment, ticking once a second; one timer for the whole console. */
export const now = ref(Date.now());
window.setInterval(() => (now.value = Date.now()), 1000);

/** "12 s ago"; the same words as the command line uses. */
export function age(time: string | number | null, at: number): string {
  if (time === null) {
    return "never";
  }
  const seconds = Math.max(0, Math.floor((at - new Date(time).getTime()) / 1000));
  return seconds < 90
    ? seconds + " s ago"
    : seconds < 5400
      ? Math.round(seconds / 60) + " min ago"
      : seconds < 172_800
        ? Math.round(seconds / 3600) + " h ago"
        : Math.round(seconds / 86_400) + " d ago";
}

/** A moment for people: the time today, else with its day. */
export function moment(time: string | number): string {
  const date = new Date(time);
  const today = date.toDateString() === new Date().toDateString();
  const clock = date.toLocaleTimeString(undefined, {
    hour: "2-digit",
    minute: "2-digit",
    second: "2-digit",
    hourCycle: "h23",
  });
  return today ? clock : date.toLocaleDateString(undefined, { day: "numeric", month: "short" }) + ", " + clock;
}

/** A day for people. */
export function day(time: string): string {
  return new Date(time).toLocaleDateString(undefined, { day: "numeric", month: "long", year: "numeric" });
}

/** Does something again and again while the page that asked is open. */
export function every(seconds: number, action: () => void) {
  const timer = window.setInterval(action, seconds * 1000);
  onScopeDispose(() => window.clearInterval(timer));
}

/** The same, but only while somebody sees it. */
export function everySeen(seconds: number, action: () => void) {
  every(seconds, () => {
    if (!document.hidden) {
      action();
    }
  });
}
