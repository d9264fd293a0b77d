import { t } from "@/language";
import { onScopeDispose, ref } from "vue";
import { format } from "./format";
import { wallClock } from "./wallClock";

/** The moment, ticking once a second; one timer for the whole console. */
export const now = ref(Date.now());
window.setInterval(() => (now.value = Date.now()), 1000);

/** "12 s ago"; the same words as the command line uses. */
export function age(time: string | number | null, at: number): string {
  if (time === null) {
    return t("never");
  }
  const seconds = Math.max(0, Math.floor((at - new Date(time).getTime()) / 1000));
  return seconds < 90
    ? t("{seconds} s ago", { seconds })
    : seconds < 5400
      ? t("{minutes} min ago", { minutes: Math.round(seconds / 60) })
      : seconds < 172_800
        ? t("{hours} h ago", { hours: Math.round(seconds / 3600) })
        : t("{days} d ago", { days: Math.round(seconds / 86_400) });
}

/** The hour of the day of a moment, 0 to 23, of a site or ours. */
export function hourOf(time: string, timeZone?: string): number {
  return wallClock(Date.parse(time), timeZone)[3];
}

/** The name of a site's time zone with a space before it, where its clock shows something else than ours; else nothing. */
export function zoneName(time: string | number, timeZone: string | undefined): string {
  const date = new Date(time);
  const shown = (zone?: string) => wallClock(date.getTime(), zone).join();
  return timeZone === undefined || shown(timeZone) === shown()
    ? ""
    : " " +
        (format({ timeZone, timeZoneName: "short" }, "en-GB")
          .formatToParts(date)
          .find((part) => part.type === "timeZoneName")?.value ?? timeZone);
}

/**
 * A moment for people: the time today, else with its day, and with its year if that is not this one. A site's is given in
 * its own time zone, which is named where it differs from ours.
 */
export function moment(time: string | number, timeZone?: string): string {
  const date = new Date(time);
  const clock =
    format({ timeZone, hour: "2-digit", minute: "2-digit", second: "2-digit", hourCycle: "h23" }).format(date) +
    zoneName(time, timeZone);
  const dayOf = (one: Date) => format({ timeZone, dateStyle: "short" }, "en-GB").format(one);
  return dayOf(date) === dayOf(new Date()) ? clock : shortDay(time, timeZone) + ", " + clock;
}

/** A day of a site, or ours, in a list: with its year if that is not this one. */
export function shortDay(time: string | number, timeZone?: string, weekday = false): string {
  const date = new Date(time);
  const yearOf = (one: Date) => format({ timeZone, year: "numeric" }, "en-GB").format(one);
  return format({
    timeZone,
    day: "numeric",
    month: "short",
    ...(weekday ? { weekday: "short" } : {}),
    ...(yearOf(date) === yearOf(new Date()) ? {} : { year: "numeric" }),
  }).format(date);
}

/** A day for people, of a site or ours. */
export function day(time: string, timeZone?: string): string {
  return format({ timeZone, day: "numeric", month: "long", year: "numeric" }).format(new Date(time));
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
