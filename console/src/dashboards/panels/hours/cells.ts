import type { LimitSet, Severity, Statistic, Summary } from "@/api/types";
import { hourOf, shortDay } from "@/look/clock";
import { worstJudged } from "@/look/severity";
import { figure, worst } from "../summaries";

/** One hour of one day. */
export interface Cell {
  hour: number;
  value: number;
  severity: Severity | null;
}

/** A day with its 24 hours, those without readings empty. The hour that comes twice when clocks go back is one cell. */
export interface DayRow {
  day: string;
  cells: (Cell | undefined)[];
}

/** Rows for days of the site, the newest first. */
export function rowsOf(
  summaries: Summary[],
  statistic: Statistic,
  set: LimitSet | undefined,
  timeZone: string | undefined,
): DayRow[] {
  const rows = new Map<string, DayRow>();
  for (const summary of summaries) {
    const value = figure(summary, statistic);
    if (value === null || value === undefined) {
      continue;
    }
    const day = shortDay(summary.from, timeZone, true);
    const row = rows.get(day) ?? { day, cells: Array.from<undefined>({ length: 24 }) };
    const hour = hourOf(summary.from, timeZone);
    const before = row.cells[hour];
    row.cells[hour] = {
      hour,
      value: before ? joined(before.value, value, statistic) : value,
      severity: worstJudged([before?.severity, worst(summary, set)]),
    };
    rows.set(day, row);
  }
  return [...rows.values()].reverse();
}

function joined(one: number, other: number, statistic: Statistic): number {
  return statistic === "minimum"
    ? Math.min(one, other)
    : statistic === "maximum"
      ? Math.max(one, other)
      : (one + other) / 2;
}
