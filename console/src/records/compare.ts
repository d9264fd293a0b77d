import { fixed } from "@/look/numbers";
import { said, t } from "@/language";
import type { Point, Summary } from "@/api/types";

/** A figure with its unit; a dash for none. */
export function number(value: number | null, point: Point): string {
  return value === null ? "–" : `${fixed(value, point.decimals)} ${point.unit}`.trim();
}

/** How much higher the mean is than it was, with its sign and in percent where that says something. */
export function difference(now: Summary, then: Summary | undefined, point: Point): string {
  if (now.mean === null || then?.mean == null) {
    return "–";
  }
  const by = now.mean - then.mean;
  const sign = by > 0 ? "+" : by < 0 ? "−" : "±";
  // Percent of a temperature or of what may lie below zero says nothing.
  const ratio = then.mean > 0 && now.mean >= 0 && !["°C", "°F", "K", "%"].includes(point.unit);
  return (
    `${sign}${fixed(Math.abs(by), point.decimals)} ${point.unit}`.trim() +
    (ratio ? ` (${sign}${fixed(Math.abs((by / then.mean) * 100), 0)} %)` : "")
  );
}

/** The shares of time in zones: "A 92 %, B 8 %". */
export function zonesOf(summary: Summary): string {
  const seconds = Object.entries(summary.secondsInZone).filter(([, time]) => time > 0);
  const all = seconds.reduce((sum, [, time]) => sum + time, 0);
  return seconds
    .map(([zone, time]) => {
      const percent = (time / all) * 100;
      return `${said(zone)} ${percent > 0 && percent < 1 ? t("under 1") : Math.round(percent)} %`;
    })
    .join(", ");
}

export function spanOf(hours: number): string {
  return hours < 48 ? `${hours} h` : t("{days} days", { days: Math.round(hours / 24) });
}
