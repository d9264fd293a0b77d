import type { Point } from "@/api/types";

/** The name of a point with its place before it. */
export function labelOf(point: Point): string {
  return `${point.path.at(-1) ?? ""}: ${point.name}`;
}

/** The name of a point among others: with its place before it, unless all are of one place. */
export function nameAmong(point: Point, all: Point[]): string {
  return all.some((other) => other.placeId !== point.placeId) ? labelOf(point) : point.name;
}

/** The ids of points as one text, by which a change of which points there are is seen. */
export function idsOf(points: Point[]): string {
  return points.map((point) => point.id).join();
}
