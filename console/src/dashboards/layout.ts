import { t } from "@/language";
import type { Panel } from "@/api/types";

export const COLUMNS = 12;
export const ROW_HEIGHT = 80;

/** Hours of an ISO 8601 duration such as PT6H, PT15M, P7D; a day where none is set. */
export function hoursOf(range: string | null): number {
  const match = /^P(?:(\d+)D)?(?:T(?:(\d+)H)?(?:(\d+)M)?)?$/.exec(range ?? "");
  const hours = match ? Number(match[1] ?? 0) * 24 + Number(match[2] ?? 0) + Number(match[3] ?? 0) / 60 : 0;
  return hours || 24;
}

/** A length of time as people say it: "8 h", "15 min", "7 d". */
export function spanWords(range: string | null): string {
  const hours = hoursOf(range);
  return hours < 1 || (hours % 1 !== 0 && hours < 10)
    ? t("{minutes} min", { minutes: Math.round(hours * 60) })
    : hours >= 48 && hours % 24 === 0
      ? `${hours / 24} d`
      : `${Math.round(hours * 10) / 10} h`;
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

/** An id for a panel that is new. */
export function freshId(): string {
  return crypto.randomUUID?.() ?? `panel-${Date.now()}-${Math.round(Math.random() * 1e6)}`;
}

/** With panels that lie on one another moved below all others, in their order. */
export function apart(panels: Panel[]): Panel[] {
  const placed: Panel[] = [];
  for (const panel of panels) {
    placed.push(placed.some((other) => overlap(panel, other)) ? { ...panel, y: bottom(panels.concat(placed)) } : panel);
  }
  return placed;
}

function overlap(a: Panel, b: Panel): boolean {
  return a.x < b.x + b.w && b.x < a.x + a.w && a.y < b.y + b.h && b.y < a.y + a.h;
}

/** The same once more, so that changing one leaves the other as it is. */
export function copyOf<T extends Panel | Panel[]>(panels: T): T {
  return JSON.parse(JSON.stringify(panels)) as T;
}
