import { format } from "@/look/format";
import { instantOf, wallClock, type WallClock } from "@/look/wallClock";
import type { TimeRange } from "./timeRange";

/** A moment that is written below a chart. */
export interface Tick {
  at: number;
  label: string;
}

const MINUTE = 60;
const HOUR = 60 * MINUTE;
const DAY = 24 * HOUR;

/** Steps from one tick to the next that people count in, in seconds, within a day. */
const WITHIN_A_DAY = [1, 5, 15, 30, MINUTE, 2 * MINUTE, 5 * MINUTE, 10 * MINUTE, 15 * MINUTE, 30 * MINUTE].concat(
  [1, 2, 3, 6, 12].map((hours) => hours * HOUR),
);
const DAYS = [1, 2, 7, 14];
const MONTHS = [1, 2, 3, 6];

/**
 * Round moments of a time by the calendar of a time zone, at most so many, in order. Hours are round on the clock of that
 * zone also where it is half an hour off the others, and on days on which it changes.
 */
export function ticks(range: TimeRange, most: number, timeZone?: string): Tick[] {
  const seconds = (range.until - range.from) / 1000 / Math.max(1, most);
  const inside = (moments: number[]) => moments.filter((at) => at >= range.from && at <= range.until);
  const step = WITHIN_A_DAY.find((one) => one >= seconds);
  if (step !== undefined) {
    return inside(withinDays(range, step, timeZone)).map((at) => ({ at, label: clockLabel(at, step, timeZone) }));
  }
  const days = DAYS.find((one) => one * DAY >= seconds);
  if (days !== undefined) {
    return inside(wholeDays(range, days, timeZone)).map((at) => ({ at, label: dayLabel(at, timeZone) }));
  }
  const months = MONTHS.find((one) => one * 30.4 * DAY >= seconds) ?? 12 * Math.ceil(seconds / (365 * DAY));
  return inside(wholeMonths(range, months, timeZone)).map((at) => ({ at, label: monthLabel(at, timeZone) }));
}

/** Days are gone through one by one, so that each begins with a tick. */
function withinDays(range: TimeRange, step: number, timeZone?: string): number[] {
  const found: number[] = [];
  const [year, month, first] = wallClock(range.from, timeZone);
  const midnight = (day: number) => instantOf([year, month, day, 0, 0, 0], timeZone);
  for (let day = first, begin = midnight(day); begin <= range.until; begin = midnight(++day)) {
    const end = Math.min(midnight(day + 1) - 1, range.until);
    found.push(
      ...(step < HOUR
        ? evenly(begin, Math.max(begin, range.from), end, step * 1000)
        : fullHours([year, month, day, 0, 0, 0], end, step / HOUR, timeZone)),
    );
  }
  return found;
}

function evenly(begin: number, from: number, end: number, step: number): number[] {
  const skipped = Math.ceil((from - begin) / step);
  return Array.from(
    { length: Math.max(0, Math.floor((end - begin) / step) + 1 - skipped) },
    (_, i) => begin + (skipped + i) * step,
  );
}

/** Hours that the clock shows: one that is left out in spring has no tick, one that comes twice has one. */
function fullHours([year, month, day]: WallClock, end: number, step: number, timeZone?: string): number[] {
  return Array.from({ length: 24 / step }, (_, i) => i * step)
    .map((hour) => ({ hour, at: instantOf([year, month, day, hour, 0, 0], timeZone) }))
    .filter(({ hour, at }) => at <= end && (hour === 0 || isHour(wallClock(at, timeZone), hour)))
    .map(({ at }) => at);
}

function isHour([, , , hour, minute]: WallClock, wanted: number): boolean {
  return hour === wanted && minute === 0;
}

/** Midnights; those of several days are counted from a Monday, so that weeks begin where people begin them. */
function wholeDays(range: TimeRange, step: number, timeZone?: string): number[] {
  const [year, month, day] = wallClock(range.from, timeZone);
  const MONDAY = Date.UTC(1970, 0, 5);
  const since = Math.round((Date.UTC(year, month - 1, day) - MONDAY) / (DAY * 1000));
  const back = ((since % step) + step) % step;
  return upTo(range.until, (i) => instantOf([year, month, day - back + i * step, 0, 0, 0], timeZone));
}

function wholeMonths(range: TimeRange, step: number, timeZone?: string): number[] {
  const [year, month] = wallClock(range.from, timeZone);
  const years = Math.max(1, step / 12);
  const first: WallClock = [
    step > 12 ? Math.floor(year / years) * years : year,
    step > 12 ? 1 : month - ((month - 1) % step),
    1,
    0,
    0,
    0,
  ];
  return upTo(range.until, (i) => instantOf([first[0], first[1] + i * step, 1, 0, 0, 0], timeZone));
}

function upTo(until: number, at: (i: number) => number): number[] {
  const found: number[] = [];
  for (let i = 0, next = at(0); next <= until; next = at(++i)) {
    found.push(next);
  }
  return found;
}

/** The time of the day; at midnight the day, so that one sees where it begins. */
function clockLabel(at: number, step: number, timeZone?: string): string {
  const [, , , hour, minute, second] = wallClock(at, timeZone);
  return hour + minute + second === 0
    ? dayLabel(at, timeZone)
    : format({
        timeZone,
        hour: "2-digit",
        minute: "2-digit",
        hourCycle: "h23",
        ...(step < MINUTE ? { second: "2-digit" } : {}),
      }).format(at);
}

function dayLabel(at: number, timeZone?: string): string {
  const [, month, day] = wallClock(at, timeZone);
  return month === 1 && day === 1
    ? format({ timeZone, year: "numeric" }).format(at)
    : format({ timeZone, day: "numeric", month: "short" }).format(at);
}

/** The month; in January the year. */
function monthLabel(at: number, timeZone?: string): string {
  return wallClock(at, timeZone)[1] === 1
    ? format({ timeZone, year: "numeric" }).format(at)
    : format({ timeZone, month: "short" }).format(at);
}
