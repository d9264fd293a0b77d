import { api } from "@/api/http";
import type { Gap, Point, Series } from "@/api/types";
import { read, readBy } from "@/look/units";
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

export type SeriesSource = (pointId: string, from: number, until: number, buckets: number) => Promise<Series>;

/** Under which address a point's readings are; a shared page puts its own in place, because it has no account. */
export const POINT_PATH: InjectionKey<(pointId: string) => string> = Symbol("address of a point");

export function usePointPath(): (pointId: string) => string {
  return inject(POINT_PATH, (pointId: string) => `points/${pointId}`);
}

function query(from: number, until: number, buckets: number): string {
  return `from=${new Date(from).toISOString()}&until=${new Date(until).toISOString()}&buckets=${buckets}`;
}

export function useSeriesSource(): SeriesSource {
  const path = usePointPath();
  return (pointId, from, until, buckets) => api.get<Series>(`${path(pointId)}/readings?${query(from, until, buckets)}`);
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
    pairs.push([time, line.qualities[i] === 2 ? null : (line.values[i] ?? null)]);
  });
  return pairs;
}
