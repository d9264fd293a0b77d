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
  const from = percent === null ? "a full battery" : `the ${Math.round(percent)} % that are left`;
  return `${from} would last ${span(left)}`;
}

/** Months in words. */
export function span(left: number): string {
  return left >= 24
    ? `about ${Math.round(left / 12)} years`
    : left >= 2
      ? `about ${Math.round(left)} months`
      : `about ${Math.max(1, Math.round(left * 30.4))} days`;
}

/** How long a device stays in its configuration mode, in words. */
export function modeLasts(model?: DeviceModel): string {
  const seconds = model?.configurationMode?.lastsSeconds;
  return seconds
    ? `It leaves it by itself after ${seconds >= 120 ? Math.round(seconds / 60) + " minutes" : seconds + " seconds"}.`
    : "It stays in it until somebody ends it.";
}
