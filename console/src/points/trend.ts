import { fixed } from "@/look/numbers";
import { t } from "@/language";
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
  return (value > 0 ? "+" : "") + fixed(value, Math.min(digits, 6));
}

/** How fast a point changes, with its interval. */
export function rateWords(trend: Trend, unit: string): string {
  const { perDay, lowPerDay, highPerDay } = trend;
  return perDay === null || lowPerDay === null || highPerDay === null
    ? ""
    : t("{slope} {unit} per day ({low} to {high})", {
        slope: slope(perDay),
        unit: unit,
        low: slope(lowPerDay),
        high: slope(highPerDay),
      }).replace("  ", " ");
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
      ? t("{n} day or later | {n} days or later", { n: from })
      : from === until
        ? ""
        : t("{from} to {until}", { from, until });
  return t("in about {n} day{range} | in about {n} days{range}", { n: at, range: range ? ` (${range})` : "" });
}
