import { api } from "@/api/http";
import type { Latest, LimitSet, Panel, Point, Summary, UnitChange, Units } from "@/api/types";
import { shallowRef } from "vue";

const changes = shallowRef(new Map<string, UnitChange>());

/** Under which a point or a set of limits that is read in another unit has the way there, so that it is not gone twice. */
const READ_BY = Symbol("how it is read");
type Read<T> = T & { [READ_BY]?: UnitChange };

const key = (quantity: string, unit: string) => quantity + "|" + unit;

/** What holds from now on. Forms are not concerned: limits and rules are written in the unit of their point. */
export function useUnitsOf(mine: Units | undefined) {
  changes.value = new Map((mine?.changes ?? []).map((one) => [key(one.quantity, one.from), one]));
}

export async function loadUnits() {
  useUnitsOf(await api.get<Units>("session/units"));
}

/** Whether anything is read in another unit than it is kept in. */
export function readsOtherUnits(): boolean {
  return changes.value.size > 0;
}

/** The way of a point that came from {@link asRead}. */
export function readBy(point: Point): UnitChange | undefined {
  return (point as Read<Point>)[READ_BY];
}

/** A kept value of something that is read. */
export function read(by: UnitChange | undefined, value: number): number {
  return by ? value * by.factor + by.offset : value;
}

/** How far two kept values are apart. */
export function readDifference(by: UnitChange | undefined, value: number): number {
  return by ? value * by.factor : value;
}

/**
 * Nobody knows whether a formula that somebody wrote gives a temperature or a difference of two, and words stand for the
 * values that are kept: these points are read as they are kept.
 */
function wayOf(point: Point): UnitChange | undefined {
  const by = changes.value.get(key(point.quantity, point.unit));
  const unclear = (by?.offset && point.formula?.kind === "written") || Object.keys(point.words ?? {}).length;
  return unclear ? undefined : by;
}

/** A point as it is read: its unit, its decimals and its newest value. */
export function asRead(point: Point): Point {
  const by = readBy(point) ? undefined : wayOf(point);
  return by
    ? ({
        ...point,
        unit: by.to,
        decimals: Math.min(9, Math.max(0, point.decimals + by.moreDecimals)),
        latest: point.latest && latestAsRead(point.latest, by),
        [READ_BY]: by,
      } as Point)
    : point;
}

/** A judged value. */
export function latestAsRead(latest: Latest, by: UnitChange | undefined): Latest {
  return by
    ? {
        ...latest,
        value: read(by, latest.value),
        nextBoundary: latest.nextBoundary === null ? null : bound(by, latest.nextBoundary),
      }
    : latest;
}

/** Limits as they are read. */
export function limitsAsRead(set: LimitSet): LimitSet {
  const by = (set as Read<LimitSet>)[READ_BY] ? undefined : changes.value.get(key(set.quantity, set.unit));
  const end = (value: number | null | undefined) => (value == null ? value : bound(by, value));
  return by
    ? ({
        ...set,
        unit: by.to,
        zones: set.zones.map((zone) => ({ ...zone, from: end(zone.from), to: end(zone.to) })),
        [READ_BY]: by,
      } as LimitSet)
    : set;
}

/** All sets of limits as they are read, by id. */
export function allAsRead(sets: Map<string, LimitSet>): Map<string, LimitSet> {
  return readsOtherUnits() ? new Map([...sets].map(([id, set]) => [id, limitsAsRead(set)])) : sets;
}

/** A bound with no more digits than people would write: 4.5 mm/s is 0.177 in/s. */
function bound(by: UnitChange | undefined, value: number): number {
  const one = read(by, value);
  return Number(one.toPrecision(Math.abs(one) < 1 ? 3 : 4));
}

/** What readings of a point come to. */
export function summaryAsRead(summary: Summary, point: Point): Summary {
  const by = readBy(point);
  const one = (value: number | null) => (value === null ? null : read(by, value));
  return by
    ? { ...summary, min: one(summary.min), max: one(summary.max), mean: one(summary.mean), last: one(summary.last) }
    : summary;
}

/** A panel whose ends of scale and switching value are as they are read, if all its points are read alike. */
export function panelAsRead<P extends Panel>(panel: P, points: Point[]): P {
  const by = points[0] && readBy(points[0]);
  if (!by || points.some((point) => readBy(point)?.from !== by.from || readBy(point)?.to !== by.to)) {
    return panel;
  }
  const end = (value: number | null | undefined) => (value == null ? value : read(by, value));
  const own = panel.look?.decimals;
  const decimals = own == null ? own : Math.min(9, Math.max(0, own + by.moreDecimals));
  const look = "look" in panel && panel.look ? { ...panel.look } : undefined;
  return {
    ...panel,
    ...(look ? { look: { ...look, decimals, lowest: end(look.lowest), highest: end(look.highest) } } : {}),
    ...("onFrom" in panel ? { onFrom: end(panel.onFrom) } : {}),
  };
}
