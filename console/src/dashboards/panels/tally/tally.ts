import { t } from "@/language";
import type { Point, Severity, Statistic } from "@/api/types";

const WORST_FIRST: Severity[] = ["critical", "warning", "advisory", "normal"];

/** How many points are in which state. Each counts once: what is not known now is not counted as it once was. */
export function tally(points: Point[], stale: (point: Point) => boolean) {
  const count = (test: (point: Point) => boolean) => points.filter(test).length;
  const unknown = (point: Point) => !point.latest || point.latest.quality === "BAD" || stale(point);
  return {
    bySeverity: WORST_FIRST.map((severity) => ({
      severity,
      count: count((point) => !unknown(point) && point.latest?.severity === severity),
    })),
    others: [
      { name: t("no limits"), count: count((point) => !unknown(point) && point.latest?.severity === null) },
      {
        name: t("stale"),
        count: count((point) => point.latest !== null && point.latest.quality !== "BAD" && stale(point)),
      },
      { name: t("sensor fault"), count: count((point) => point.latest?.quality === "BAD") },
      { name: t("nothing yet"), count: count((point) => point.latest === null) },
    ].filter((other) => other.count > 0),
  };
}

/** What the newest usable values come to; undefined where units differ or there is none. */
export function over(points: Point[], statistic: Statistic): { value: number; used: number } | undefined {
  const values = points.flatMap((point) => (point.latest && point.latest.quality !== "BAD" ? point.latest.value : []));
  if (!values.length || new Set(points.map((point) => point.unit)).size > 1) {
    return undefined;
  }
  const sum = values.reduce((a, b) => a + b, 0);
  const value = {
    sum: () => sum,
    mean: () => sum / values.length,
    minimum: () => values.reduce((a, b) => Math.min(a, b)),
    maximum: () => values.reduce((a, b) => Math.max(a, b)),
  }[statistic]();
  return { value, used: values.length };
}
