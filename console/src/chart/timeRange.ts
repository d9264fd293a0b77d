import { t } from "@/language";
import { moment, zoneName } from "@/look/clock";
import { inject, type InjectionKey, type Ref } from "vue";

/** A stretch of time that is looked at: its two ends in milliseconds since 1970. */
export interface TimeRange {
  from: number;
  until: number;
}

/** What a page looks at: a stretch that somebody chose, or, as long as nobody did, the last hours up to now. */
export interface PageRange {
  chosen: Readonly<Ref<TimeRange | undefined>>;
  show: (range: TimeRange) => void;
}

export const PAGE_RANGE: InjectionKey<PageRange> = Symbol("time that the page looks at");

export const HOUR = 3_600_000;
/** Shorter is never shown: readings have milliseconds, and charts need two different ends. */
const SHORTEST = 1000;
const LONGEST = 10 * 366 * 24 * HOUR;

/** The last hours up to now. */
export function lastHours(hours: number): TimeRange {
  const until = Date.now();
  return { from: until - hours * HOUR, until };
}

/** What is looked at here: the stretch that is chosen for the page, else one of its own, else the last hours. */
export function useTimeRange(hours: () => number, own: () => TimeRange | undefined = () => undefined) {
  const page = inject(PAGE_RANGE, undefined);
  const chosen = () => page?.chosen.value ?? own();
  return {
    page,
    chosen,
    current: () => chosen() ?? lastHours(hours()),
    /** Changes when something else is to be looked at, but not because time passes. */
    key: () => keyOf(chosen(), hours()),
  };
}

/** The clock of the site, where all points are at sites with the same one; else undefined, for this browser's. */
export function oneZone(points: { timeZone: string }[]): string | undefined {
  const zones = new Set(points.map((point) => point.timeZone));
  return zones.size === 1 ? [...zones][0] : undefined;
}

/** As the service is asked for it. */
export function rangeQuery({ from, until }: TimeRange): string {
  return `from=${new Date(from).toISOString()}&until=${new Date(until).toISOString()}`;
}

export function keyOf(chosen: TimeRange | undefined, hours: number): string {
  return chosen ? `${chosen.from}-${chosen.until}` : String(hours);
}

/** Within what can be looked at: not the future, and neither no time nor centuries. */
export function bounded({ from, until }: TimeRange): TimeRange {
  const end = Math.min(Date.now(), Math.max(from, until));
  const begin = Math.min(Math.min(from, until), end - SHORTEST);
  return { from: Math.round(Math.max(begin, end - LONGEST, 0)), until: Math.round(end) };
}

/** Moved by a part of its own length, but not beyond now. */
export function moved({ from, until }: TimeRange, part: number): TimeRange {
  const by = Math.min((until - from) * part, Date.now() - until);
  return bounded({ from: from + by, until: until + by });
}

/** Longer or shorter by a factor, so that one moment stays where it is. */
export function stretched({ from, until }: TimeRange, factor: number, about: number): TimeRange {
  return bounded({ from: about - (about - from) * factor, until: about + (until - about) * factor });
}

/** In words: from when to when, on the clock of a time zone. */
export function words({ from, until }: TimeRange, timeZone?: string): string {
  const short = (at: number) => {
    const text = moment(at, timeZone).replace(zoneName(at, timeZone), "");
    return until - from > 10 * 60_000 ? text.replace(/:\d\d$/, "") : text;
  };
  return t("{from} to {until}{zone}", {
    from: short(from),
    until: short(until),
    zone: zoneName(until, timeZone),
  });
}
