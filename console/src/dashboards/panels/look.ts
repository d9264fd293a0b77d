import { said } from "@/language";
import { fixed } from "@/look/numbers";
import type { LimitSet, Look, Point } from "@/api/types";
import { boundaries, fixedScale } from "@/chart/lineOption";
import { wordFor } from "@/look/reading";
import { rank } from "@/look/severity";

/** The words for a point's values on a panel: the panel's own, else the point's. */
export function wordsFor(point: Point, look: Look | null): Record<string, string> {
  return Object.keys(look?.words ?? {}).length ? (look?.words ?? {}) : point.words;
}

/** A number with the panel's decimals, or the word that stands for it; a dash for unknown, which is not zero. */
export function digits(value: number | null | undefined, point: Point, look: Look | null): string {
  return value === null || value === undefined
    ? "–"
    : (wordFor(value, wordsFor(point, look)) ?? fixed(value, look?.decimals ?? point.decimals));
}

/** The same with the unit, which a word has none of. */
export function withUnit(value: number | null | undefined, point: Point, look: Look | null): string {
  const text = digits(value, point, look);
  return value === null || value === undefined || wordFor(value, wordsFor(point, look)) !== undefined || !point.unit
    ? text
    : `${text} ${point.unit}`;
}

export interface Scale {
  lowest: number;
  highest: number;
}

/**
 * The ends of a scale that stays the same whatever the readings do: the panel's, else by the limits, else by the unit, else
 * by the value. A single boundary says nothing of the other end, so the scale begins at zero, or well below the boundary.
 */
export function scaleOf(
  look: Look | null,
  set: LimitSet | undefined,
  point: Point | undefined,
  value = point?.latest?.value ?? 0,
): Scale {
  const usual = byLimits(set) ?? byValue(point, value);
  const lowest = look?.lowest ?? usual.lowest;
  return { lowest, highest: Math.max(look?.highest ?? usual.highest, lowest + 1e-9) };
}

function byLimits(set: LimitSet | undefined): Scale | undefined {
  const fixed = set && fixedScale(set, 0);
  const bounds = set ? boundaries(set).map((one) => one.value) : [];
  const only = bounds.length === 1 ? bounds[0] : undefined;
  return fixed && only !== undefined
    ? only > 0
      ? { lowest: Math.min(0, fixed.min), highest: Math.max(fixed.max, only * 1.5) }
      : { lowest: only - Math.max(Math.abs(only) / 2, 5), highest: Math.max(fixed.max, 0) }
    : fixed && { lowest: fixed.min, highest: fixed.max };
}

function byValue(point: Point | undefined, value: number): Scale {
  return point?.unit === "%"
    ? { lowest: 0, highest: 100 }
    : { lowest: Math.min(0, -roundUp(-value)), highest: roundUp(Math.max(value * 1.2, 1)) };
}

/** The next of 1, 2, 5, 10, 20 ... that is not less. */
function roundUp(value: number): number {
  if (value <= 0) {
    return 0;
  }
  const power = 10 ** Math.floor(Math.log10(value));
  return ([1, 2, 5, 10].find((step) => step * power >= value) ?? 10) * power;
}

/** Where a value lies on a scale, 0 to 1; what lies beyond is at the end. */
export function share(value: number, { lowest, highest }: Scale): number {
  return Math.min(1, Math.max(0, (value - lowest) / (highest - lowest)));
}

/** Boundaries of limits that lie on a scale, with where. */
export function marks(set: LimitSet | undefined, scale: Scale): { at: number; value: number; name: string }[] {
  return set
    ? boundaries(set)
        .filter(({ value }) => value > scale.lowest && value < scale.highest)
        .map(({ value, name }) => ({ at: share(value, scale), value, name }))
    : [];
}

/** Zones of limits as parts of a scale, each from 0 to 1. */
export function zones(set: LimitSet | undefined, scale: Scale) {
  return (set?.zones ?? [])
    .map((zone) => ({
      label: said(zone.label),
      severity: zone.severity,
      from: share(zone.from ?? scale.lowest, scale),
      to: share(zone.to ?? scale.highest, scale),
    }))
    .filter((zone) => zone.to > zone.from);
}

/** The zone in which a value lies. A value on a boundary is in the less severe zone, unless the zone above begins with it. */
export function zoneOf(value: number, set: LimitSet | undefined): LimitSet["zones"][number] | undefined {
  return set?.zones.find((zone, i) => {
    const above = set.zones[i + 1];
    const endsHere = above && value === zone.to && !above.fromIncluded && rank(above.severity) >= rank(zone.severity);
    return value < (zone.to ?? Infinity) || endsHere;
  });
}
