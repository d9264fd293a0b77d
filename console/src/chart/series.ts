import { api } from "@/api/http";
import type { Point, Series } from "@/api/types";
import { inject, type InjectionKey } from "vue";

/** One point's readings as they are drawn. Quality is a code: 0 good, 1 uncertain, 2 bad. */
export interface Drawn {
  point: Point;
  times: number[];
  values: number[];
  qualities: number[];
}

export type SeriesSource = (pointId: string, from: number, until: number, buckets: number) => Promise<Series>;

/** Where charts get readings from; a shared page puts its own in place, because it has no account. */
export const SERIES_SOURCE: InjectionKey<SeriesSource> = Symbol("series source");

export function query(from: number, until: number, buckets: number): string {
  return `from=${new Date(from).toISOString()}&until=${new Date(until).toISOString()}&buckets=${buckets}`;
}

const fromService: SeriesSource = (pointId, from, until, buckets) =>
  api.get<Series>(`points/${pointId}/readings?${query(from, until, buckets)}`);

export function useSeriesSource(): SeriesSource {
  return inject(SERIES_SOURCE, fromService);
}

/** The service sends quality codes as base64 bytes. */
export function drawn(point: Point, series: Series): Drawn {
  const qualities =
    typeof series.qualities === "string"
      ? Array.from(atob(series.qualities), (c) => c.charCodeAt(0))
      : series.qualities;
  return { point, times: series.times, values: series.values, qualities };
}

function median(values: number[]): number {
  const sorted = [...values].sort((a, b) => a - b);
  return sorted[Math.floor(sorted.length / 2)] ?? Infinity;
}

/**
 * Pairs for the chart, with an empty one wherever readings are missing: a step that is four times longer than what is usual
 * just before and just after it. The neighbours decide, because one series may hold coarse history and fine live readings.
 */
export function withGaps(times: number[], values: number[], qualities: number[]): [number, number | null][] {
  const steps = times.slice(1).map((time, i) => time - (times[i] ?? time));
  const pairs: [number, number | null][] = [];
  times.forEach((time, i) => {
    const step = steps[i - 1];
    if (step !== undefined) {
      const usual = Math.max(median(steps.slice(Math.max(0, i - 6), i - 1)), median(steps.slice(i, i + 5)));
      const known = Number.isFinite(usual)
        ? usual
        : Math.min(median(steps.slice(Math.max(0, i - 6), i - 1)), median(steps.slice(i, i + 5)));
      if (step > 4 * known) {
        pairs.push([time - 1, null]);
      }
    }
    pairs.push([time, qualities[i] === 2 ? null : (values[i] ?? null)]);
  });
  return pairs;
}
