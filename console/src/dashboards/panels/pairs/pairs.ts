import { fixed } from "@/look/numbers";
import { t } from "@/language";
import { BAD, between, type Drawn } from "@/chart/series";

/** What two points were at one time. */
export interface Pair {
  time: number;
  x: number;
  y: number;
}

/**
 * A pair for each reading of the second point at which the first is known: between two of its readings in proportion, but
 * not across a gap, nor beyond its first and its last.
 */
export function pairsOf(across: Drawn, up: Drawn): Pair[] {
  return up.times.flatMap((time, i) => {
    const y = up.values[i];
    const x = across.gaps.some((gap) => gap.from < time && time < gap.until) ? undefined : between(across, time);
    return x === undefined || y === undefined || up.qualities[i] === BAD ? [] : [{ time, x, y }];
  });
}

/** How closely both go together, from -1 to 1 (Pearson); undefined for too few, or where one never changes. */
export function correlation(pairs: Pair[]): number | undefined {
  const n = pairs.length;
  const mean = (of: (pair: Pair) => number) => pairs.reduce((sum, pair) => sum + of(pair), 0) / n;
  const [x, y] = [mean((pair) => pair.x), mean((pair) => pair.y)];
  const sum = (of: (pair: Pair) => number) => pairs.reduce((all, pair) => all + of(pair), 0);
  const both = sum((pair) => (pair.x - x) * (pair.y - y));
  const spread = Math.sqrt(sum((pair) => (pair.x - x) ** 2) * sum((pair) => (pair.y - y) ** 2));
  return n < 3 || !(spread > 0) || !Number.isFinite(spread) ? undefined : Math.max(-1, Math.min(1, both / spread));
}

/** The same in words. */
export function closeness(pairs: Pair[]): string {
  const r = correlation(pairs);
  if (r === undefined) {
    return t("Too few values to say how they go together.");
  }
  const how =
    Math.abs(r) >= 0.8 ? t("closely together") : Math.abs(r) >= 0.4 ? t("loosely together") : t("their own ways");
  return t("They go {how}{way} (r = {r}).", {
    how: how,
    way: r < -0.4 ? t(", one up as the other goes down") : "",
    r: fixed(r, 2).replace("-", "−"),
  });
}
