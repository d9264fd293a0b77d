import type { Panel } from "@/api/types";
import { ROW_HEIGHT } from "./layout";

/** How long each dashboard of a wall stands, in seconds. */
export const STANDS = [10, 20, 30, 60, 120, 300];
export const USUAL = 30;
const SMALLEST = 0.5;
const LARGEST = 2.5;

/** The address of a wall that shows dashboards in turn. */
export function wallAddress(boards: string[], seconds: number): { path: string; query: Record<string, string> } {
  return { path: "/dashboards/wall", query: { boards: boards.join(","), seconds: String(seconds) } };
}

/** The seconds of an address; what is none, or too hasty to read, counts as the usual. */
export function secondsOf(text: unknown): number {
  const seconds = Number(text);
  return Number.isFinite(seconds) && seconds >= 5 && seconds <= 3600 ? seconds : USUAL;
}

/** How much larger panels are drawn so that all of them fill the height of a screen; never so small that nobody reads them. */
export function zoomFor(panels: Panel[], height: number): number {
  const rows = Math.max(1, ...panels.map((panel) => panel.y + panel.h));
  return Math.min(LARGEST, Math.max(SMALLEST, height / (rows * ROW_HEIGHT)));
}
