import { fixed } from "@/look/numbers";
import { said, t } from "@/language";
import type { Point } from "@/api/types";
import { asRead } from "./units";

/** Three usual intervals and half a minute without a reading; a day where no device says how often it reports. */
export function isStale(point: Point, at: number): boolean {
  if (!point.latest) {
    return false;
  }
  const patience = point.intervalSeconds === null ? 86_400 : point.intervalSeconds * 3 + 30;
  return at - new Date(point.latest.time).getTime() > patience * 1000;
}

/** A zone as it is said: short labels need the word. */
export function zoneWords(label: string): string {
  return label.length <= 2 ? t("zone {label}", { label }) : said(label);
}

/** A number with the point's decimals; a dash for unknown, which is not zero. */
export function format(value: number | null | undefined, decimals: number): string {
  return value === null || value === undefined ? "–" : fixed(value, decimals);
}

/** The word that stands for a value, if one does: "1" and "1.0" are one number. */
export function wordFor(value: number | null | undefined, words: Record<string, string> | undefined) {
  return Object.entries(words ?? {}).find(([number]) => Number(number) === value)?.[1];
}

/** The newest value as its point has it written: a word, or a number without its unit. */
export function shown(point: Point): string {
  const { latest, decimals } = asRead(point);
  return wordFor(point.latest?.value, point.words) ?? format(latest?.value, decimals);
}

/** The unit behind {@link shown}: a word has none, and neither has nothing. */
export function shownUnit(point: Point): string {
  return point.latest && wordFor(point.latest.value, point.words) === undefined ? asRead(point).unit : "";
}

/** What needs attention first: severity, then least headroom; then sensors at fault; points without limits come last. */
export function byHeadroom(a: Point, b: Point): number {
  return attention(a) - attention(b);
}

const WEIGHT = { critical: 0, warning: 1000, advisory: 2000, normal: 3000 };

function attention(point: Point): number {
  const latest = point.latest;
  if (latest?.quality === "BAD") {
    return 4_000;
  }
  return latest?.severity && latest.headroomPercent !== null
    ? WEIGHT[latest.severity] + latest.headroomPercent + wayLeft(latest.value, latest.nextBoundary)
    : 10_000;
}

/** Tells those apart that have the same headroom, such as the whole of it: how far the boundary is, as a small number. */
function wayLeft(value: number, boundary: number | null): number {
  const away = boundary === null ? 1 : Math.abs(boundary - value) / (Math.abs(boundary) + Math.abs(value) || 1);
  return away / 1000;
}
