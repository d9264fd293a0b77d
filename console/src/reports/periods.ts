import { t } from "@/language";
import { recipientWords } from "@/alerts/recipients";
/** Over which periods reports are made; days, weeks and months are those of the site's calendar. */
export const PERIODS = [
  { id: "recent", name: t("The last 7 days, up to now") },
  { id: "day", name: t("Yesterday") },
  { id: "week", name: t("Last week, Monday to Sunday") },
  { id: "month", name: t("Last month") },
  { id: "year", name: t("Last year") },
  { id: "own", name: t("From … until …") },
] as const;
export type Period = (typeof PERIODS)[number]["id"];

/** Where the report is; undefined while the period is not known yet. */
export function reportAddress(of: string, period: Period, range: [Date, Date] | null): string | undefined {
  if (period === "own") {
    return range ? `${of}/report?from=${range[0].toISOString()}&until=${range[1].toISOString()}` : undefined;
  }
  return `${of}/report` + (period === "recent" ? "" : `?last=${period}`);
}

const OFTEN: Record<string, string> = {
  day: t("Each day"),
  week: t("Each Monday"),
  month: t("On the first of each month"),
};

/** When a report is sent, and to whom. */
export function scheduleWords(schedule: { period: string; at: string; recipients: string[] }): string {
  const to = schedule.recipients.map(recipientWords).join(", ");
  return t("{often} at {time} to {to}", {
    often: OFTEN[schedule.period] ?? schedule.period,
    time: schedule.at.slice(0, 5),
    to: to,
  });
}
