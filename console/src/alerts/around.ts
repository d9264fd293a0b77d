import type { Alert } from "@/api/types";
import type { AlertBand } from "@/chart/lineOption";
import { bounded, HOUR, type TimeRange } from "@/chart/timeRange";

const LEAST = 3 * HOUR;

/**
 * The time in which one sees how an alert came and went: as long before as it lasted, but some hours at least, and half of
 * that after. One that applies still is seen up to now, and goes on.
 */
export function timeAround(alert: Alert): { hours: number; stretch?: TimeRange } {
  const from = Date.parse(alert.startedAt);
  const end = endOf(alert);
  const until = end ?? Date.now();
  const before = Math.max(LEAST, until - from);
  return end
    ? { hours: 6, stretch: bounded({ from: from - before, until: until + before / 2 }) }
    : { hours: (until - from + before) / HOUR };
}

/** When it was over: back to normal, or closed without that, as when its rule is removed. */
function endOf(alert: Alert): number | undefined {
  const end = alert.returnedAt ?? alert.closedAt;
  return end ? Date.parse(end) : undefined;
}

/** Alerts as bands in a chart. One that applies still has no end yet. */
export function bandsOf(alerts: Alert[]): AlertBand[] {
  return alerts.map((alert) => ({
    from: Date.parse(alert.raisedAt),
    until: endOf(alert) ?? Infinity,
    severity: alert.severity,
  }));
}

/** How the service is asked for alerts that a chart of a time shows: those raised in it, or up to a month before. */
export function alertsIn({ from, until }: TimeRange): string {
  return `since=${new Date(from - 30 * 24 * HOUR).toISOString()}&until=${new Date(until).toISOString()}`;
}
