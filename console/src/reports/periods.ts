import { recipientWords } from "@/alerts/recipients";
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

const OFTEN: Record<string, string> = { day: "Each day", week: "Each Monday", month: "On the first of each month" };

/** When a report is sent, and to whom. */
export function scheduleWords(schedule: { period: string; at: string; recipients: string[] }): string {
  const to = schedule.recipients.map(recipientWords).join(", ");
  return `${OFTEN[schedule.period] ?? schedule.period} at ${schedule.at.slice(0, 5)} to ${to}`;
}
