import { fixed } from "@/look/numbers";
import { t } from "@/language";
/** An amount of data as people say it. */
export function bytes(amount: number): string {
  const units = ["B", "kB", "MB", "GB", "TB"];
  let value = amount;
  let unit = 0;
  while (value >= 1000 && unit < units.length - 1) {
    value /= 1000;
    unit++;
  }
  return `${value >= 100 || unit === 0 ? Math.round(value) : fixed(value, 1)} ${units[unit]}`;
}

/** A number with thin spaces between thousands. */
export function count(amount: number): string {
  return Math.round(amount)
    .toString()
    .replace(/\B(?=(\d{3})+$)/g, "\u202f");
}

/** Days in the largest unit that says enough. */
export function span(days: number): string {
  if (days < 60) {
    return t("{days} days", { days: Math.round(days) });
  }
  return days < 725
    ? t("{months} months", { months: Math.round(days / 30.44) })
    : t("{years} years", { years: Math.round(days / 365.25) });
}

export function keptFor(days: number): string {
  return days === 0 ? t("for ever") : span(days);
}
