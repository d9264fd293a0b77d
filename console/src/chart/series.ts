import { api } from "@/api/http";
import type { Gap, Point, Series, Summary } from "@/api/types";
import { read, readBy, summaryAsRead } from "@/look/units";
import { rangeQuery, type TimeRange } from "./timeRange";
import { inject, type InjectionKey } from "vue";

/** One point's readings as they are drawn. Quality is a code: 0 good, 1 uncertain, 2 bad. */
export interface Drawn {
  point: Point;
  times: number[];
  values: number[];
  qualities: number[];
  gaps: Gap[];
  /** Of a line that is drawn later than it was, so that it lies on another: when it was. */
  earlier?: string;
}

/** The code of a reading that cannot be used. */
export const BAD = 2;

export type SeriesSource = (point: Point, range: TimeRange, buckets: number) => Promise<Drawn>;

/** Under which address a point's readings are; a shared page puts its own in place, because it has no account. */
export const POINT_PATH: InjectionKey<(pointId: string) => string> = Symbol("address of a point");

export function usePointPath(): (pointId: string) => string {
  return inject(POINT_PATH, (pointId: string) => `points/${pointId}`);
}

/** Fetches the readings of a point as they are drawn. */
export function useSeriesSource(): SeriesSource {
  const path = usePointPath();
  return async (point, range, buckets) =>
    drawn(point, await api.get<Series>(`${path(point.id)}/readings?${rangeQuery(range)}&buckets=${buckets}`));
}

/** What the readings of a point come to by the calendar of its site, as they are read. */
export async function summariesOf(
  path: string,
  point: Point,
  period: "hour" | "day" | "week" | "month",
  range: TimeRange,
): Promise<Summary[]> {
  const found = await api.get<Summary[]>(`${path}/summaries?period=${period}&${rangeQuery(range)}`);
  return found.map((one) => summaryAsRead(one, point));
}

/** The service sends quality codes as base64 bytes, and values as they are kept. */
export function drawn(point: Point, series: Series): Drawn {
  const qualities =
    typeof series.qualities === "string"
      ? Array.from(atob(series.qualities), (c) => c.charCodeAt(0))
      : series.qualities;
  const by = readBy(point);
  const values = by ? series.values.map((value) => read(by, value)) : series.values;
  return { point, times: series.times, values, qualities, gaps: series.gaps };
}

/** A line drawn so many milliseconds later than it was. */
export function later(line: Drawn, millis: number, earlier: string): Drawn {
  return {
    ...line,
    times: line.times.map((time) => time + millis),
    gaps: line.gaps.map((gap) => ({ from: gap.from + millis, until: gap.until + millis })),
    earlier,
  };
}

/** Pairs for the chart, with an empty one in each gap and for each bad reading, so that no line is drawn there. */
export function withGaps(line: Omit<Drawn, "point">): [number, number | null][] {
  const pairs: [number, number | null][] = [];
  let gap = 0;
  line.times.forEach((time, i) => {
    while (gap < line.gaps.length && (line.gaps[gap]?.until ?? 0) <= time) {
      const until = line.gaps[gap++]?.until ?? 0;
      if (i > 0) {
        pairs.push([until - 1, null]);
      }
    }
    pairs.push([time, line.qualities[i] === BAD ? null : (line.values[i] ?? null)]);
  });
  return pairs;
}

/** The value of a line at a moment: between two readings in proportion, never beyond the first and the last. */
export function between(line: Drawn, time: number): number | undefined {
  const after = line.times.findIndex((one, i) => one >= time && line.qualities[i] !== BAD);
  if (after < 0) {
    return undefined;
  }
  const [at, value] = [line.times[after] ?? 0, line.values[after] ?? 0];
  if (at === time) {
    return value;
  }
  let before = after - 1;
  while (before >= 0 && line.qualities[before] === BAD) {
    before--;
  }
  if (before < 0) {
    return undefined;
  }
  const [from, old] = [line.times[before] ?? 0, line.values[before] ?? 0];
  return old + ((value - old) * (time - from)) / (at - from);
}
