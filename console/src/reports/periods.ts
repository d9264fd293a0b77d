/** Over which periods reports are made; days, weeks and months are those of the site's calendar. */
export const PERIODS = [
  { id: "recent", name: "The last 7 days, up to now" },
  { id: "day", name: "Yesterday" },
  { id: "week", name: "Last week, Monday to Sunday" },
  { id: "month", name: "Last month" },
  { id: "year", name: "Last year" },
  { id: "own", name: "From … until …" },
] as const;
export type Period = (typeof PERIODS)[number]["id"];

/** Where the report is; undefined while the period is not known yet. */
export function reportAddress(of: string, period: Period, range: [Date, Date] | null): string | undefined {
  if (period === "own") {
    return range ? `${of}/report?from=${range[0].toISOString()}&until=${range[1].toISOString()}` : undefined;
  }
  return `${of}/report` + (period === "recent" ? "" : `?last=${period}`);
}
