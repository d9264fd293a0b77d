import { format } from "./format";

/** What a clock on a wall shows: year, month 1 to 12, day 1 to 31, hour 0 to 23, minute, second. */
export type WallClock = [year: number, month: number, day: number, hour: number, minute: number, second: number];

const PARTS = ["year", "month", "day", "hour", "minute", "second"] as const;

/** What a clock in a time zone shows at a moment; without a zone, one where this browser is. */
export function wallClock(at: number, timeZone?: string): WallClock {
  const parts = format(
    {
      timeZone,
      calendar: "gregory",
      numberingSystem: "latn",
      hourCycle: "h23",
      year: "numeric",
      month: "numeric",
      day: "numeric",
      hour: "numeric",
      minute: "numeric",
      second: "numeric",
    },
    "en-GB",
  ).formatToParts(at);
  return PARTS.map((name) => Number(parts.find((part) => part.type === name)?.value)) as WallClock;
}

/** The moment as if the clock were one of UTC; what is beyond a month or a day is carried on, as in "the 32nd". */
function asUtc([year, month, day, hour, minute, second]: WallClock): number {
  const date = new Date(0);
  date.setUTCFullYear(year, month - 1, day);
  return date.setUTCHours(hour, minute, second);
}

/**
 * The moment at which a clock in a time zone shows something, in milliseconds since 1970. Of an hour that comes twice it is
 * the first; an hour that is left out in spring begins when it would have ended.
 */
export function instantOf(clock: WallClock, timeZone?: string): number {
  const wanted = asUtc(clock);
  const ahead = (at: number) => asUtc(wallClock(at, timeZone)) - at;
  // The clock's distance from UTC a day before and a day after: only a change between them makes two answers.
  const DAY = 86_400_000;
  const answers = [ahead(wanted - DAY), ahead(wanted + DAY)].map((distance) => wanted - distance);
  const right = answers.filter((at) => at + ahead(at) === wanted);
  return right.length ? Math.min(...right) : Math.max(...answers);
}
