import type { Point, Trend } from "@/api/types";
import { read, readBy, readDifference } from "@/look/units";

/** A trend in the unit that its point is read in. */
export function trendAsRead(trend: Trend, point: Point): Trend {
  const by = readBy(point);
  const rate = (value: number | null) => (value === null ? null : readDifference(by, value));
  return by
    ? {
        ...trend,
        perDay: rate(trend.perDay),
        lowPerDay: rate(trend.lowPerDay),
        highPerDay: rate(trend.highPerDay),
        boundary: trend.boundary === null ? null : Number(read(by, trend.boundary).toPrecision(4)),
      }
    : trend;
}

/** Enough digits for a slope, whatever its size. */
export function slope(value: number): string {
  const digits = value === 0 ? 0 : Math.max(0, 1 - Math.floor(Math.log10(Math.abs(value))));
  return (value > 0 ? "+" : "") + value.toFixed(Math.min(digits, 6));
}

/** How fast a point changes, with its interval. */
export function rateWords(trend: Trend, unit: string): string {
  const { perDay, lowPerDay, highPerDay } = trend;
  return perDay === null || lowPerDay === null || highPerDay === null
    ? ""
    : `${slope(perDay)} ${unit} per day (${slope(lowPerDay)} to ${slope(highPerDay)})`.replace("  ", " ");
}

function daysUntil(at: string, now: number): number {
  return Math.max(0, Math.round((Date.parse(at) - now) / 86_400_000));
}

/** When the next zone is reached, with what the interval says of it. */
export function aheadWords(trend: Trend, now: number): string {
  if (!trend.reachedAt) {
    return "";
  }
  const at = daysUntil(trend.reachedAt, now);
  const from = trend.earliest ? daysUntil(trend.earliest, now) : at;
  const until = trend.latest ? daysUntil(trend.latest, now) : undefined;
  const range =
    until === undefined
      ? `${from} ${from === 1 ? "day" : "days"} or later`
      : from === until
        ? ""
        : `${from} to ${until}`;
  return `in about ${at} ${at === 1 ? "day" : "days"}` + (range ? ` (${range})` : "");
}
