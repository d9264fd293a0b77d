import type { Point } from "@/api/types";

/** The name of a point among others: with its place before it, unless all are of one place. */
export function nameAmong(point: Point, all: Point[]): string {
  return all.some((other) => other.placeId !== point.placeId)
    ? `${point.path.at(-1) ?? ""}: ${point.name}`
    : point.name;
}
