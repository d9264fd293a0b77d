import type { Panel } from "@/api/types";

export const COLUMNS = 12;
export const ROW_HEIGHT = 80;

/** Hours of an ISO 8601 duration such as PT6H, P7D; a day where none is set. */
export function hoursOf(range: string | null): number {
  const match = /^P(?:(\d+)D)?(?:T(?:(\d+)H)?)?$/.exec(range ?? "");
  const hours = match ? Number(match[1] ?? 0) * 24 + Number(match[2] ?? 0) : 0;
  return hours || 24;
}

export function durationOf(hours: number): string {
  return hours % 24 === 0 ? `P${hours / 24}D` : `PT${hours}H`;
}

/** In reading order: what a phone shows from top to bottom. */
export function inReadingOrder(panels: Panel[]): Panel[] {
  return [...panels].sort((a, b) => a.y - b.y || a.x - b.x);
}

/** The first free row below everything. */
export function bottom(panels: Panel[]): number {
  return Math.max(0, ...panels.map((panel) => panel.y + panel.h));
}

/** A size that suits a kind of panel. */
export function usualSize(kind: Panel["kind"]): { w: number; h: number } {
  return {
    asked: { w: 8, h: 4 },
    value: { w: 3, h: 2 },
    line: { w: 6, h: 4 },
    directions: { w: 9, h: 3 },
    alerts: { w: 6, h: 3 },
    text: { w: 4, h: 2 },
  }[kind];
}
