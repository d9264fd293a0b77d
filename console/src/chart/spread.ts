import type { Distribution, LimitSet, Point, Severity, UnitChange } from "@/api/types";
import { read, readBy } from "@/look/units";

/** The time in one class of values. */
export interface Bin {
  from: number;
  until: number;
  seconds: number;
  severity: Severity | undefined;
}

/** The classes as they are read, with the severity of the zone in which the middle of each lies. */
export function binsOf(distribution: Distribution, point: Point, limits: LimitSet | undefined): Bin[] {
  return classes(distribution, readBy(point), limits);
}

/** The classes as they are kept. */
export function keptBinsOf(distribution: Distribution): Bin[] {
  return classes(distribution, undefined, undefined);
}

function classes(distribution: Distribution, by: UnitChange | undefined, limits: LimitSet | undefined): Bin[] {
  const edge = (i: number) => {
    const kept = distribution.lowest + i * distribution.step;
    return tidied(by ? read(by, kept) : kept);
  };
  return distribution.seconds.map((seconds, i) => {
    const [from, until] = [edge(i), edge(i + 1)];
    return { from, until, seconds, severity: severityAt((from + until) / 2, limits) };
  });
}

/** Without the dust of adding up tenths. */
function tidied(value: number): number {
  return Number(value.toPrecision(9));
}

function severityAt(value: number, limits: LimitSet | undefined): Severity | undefined {
  return limits?.zones.find((zone) => value < (zone.to ?? Infinity))?.severity;
}

/** Values of the duration curve as they are read, by the per cent of the time for which they were exceeded. */
export function curveOf(distribution: Distribution, point: Point): [percent: number, value: number][] {
  const by = readBy(point);
  return distribution.exceeded.map((value, percent) => [percent, by ? read(by, value) : value]);
}
