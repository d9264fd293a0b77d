import type { LimitSet, Point } from "@/api/types";

/** The limits that hold for a point, if they are in its unit. */
export function limitsOf(point: Point | undefined, limits: Map<string, LimitSet>): LimitSet | undefined {
  const set = limits.get(point?.limitSet ?? "");
  return set && set.unit === point?.unit ? set : undefined;
}

/** The limits of several points, if the same hold for all of them. */
export function limitsOfAll(points: Point[], limits: Map<string, LimitSet>): LimitSet | undefined {
  return new Set(points.map((point) => point.limitSet)).size === 1 ? limitsOf(points[0], limits) : undefined;
}
