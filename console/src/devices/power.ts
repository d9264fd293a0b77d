import { t } from "@/language";
import type { DeviceModel, Power } from "@/api/types";

const HOURS_A_MONTH = 730.5;

/** What an interval costs, before it is changed: the same sum as the service makes; nothing where too little is known. */
export function months(power: Power, percent: number | null, intervalSeconds: number): string {
  const { capacityMah, restMicroamps, reportMicroampHours, chemistry } = power;
  if (chemistry === "mains" || capacityMah == null || restMicroamps == null || reportMicroampHours == null) {
    return "";
  }
  const anHour = restMicroamps + (3_600 / intervalSeconds) * reportMicroampHours;
  const left = (capacityMah * 1_000 * (percent ?? 100)) / 100 / anHour / HOURS_A_MONTH;
  const from =
    percent === null ? t("a full battery") : t("the {percent} % that are left", { percent: Math.round(percent) });
  return t("{from} would last {span}", { from, span: span(left) });
}

/** Months in words. */
export function span(left: number): string {
  return left >= 24
    ? t("about {years} years", { years: Math.round(left / 12) })
    : left >= 2
      ? t("about {months} months", { months: Math.round(left) })
      : t("about {max} days", { max: Math.max(1, Math.round(left * 30.4)) });
}

/** How long a device stays in its configuration mode, in words. */
export function modeLasts(model?: DeviceModel): string {
  const seconds = model?.configurationMode?.lastsSeconds;
  return seconds
    ? t("It leaves it by itself after {span}.", {
        span:
          seconds >= 120
            ? t("{minutes} minutes", { minutes: Math.round(seconds / 60) })
            : t("{seconds} seconds", { seconds }),
      })
    : t("It stays in it until somebody ends it.");
}
