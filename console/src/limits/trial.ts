import { said, t } from "@/language";
/** How the time was divided between zones: "A 82 %, B 18 %"; what is less than half a percent is "below 1 %". */
export function shares(secondsInZone: Record<string, number>): string {
  const zones = Object.entries(secondsInZone);
  const all = zones.reduce((sum, [, seconds]) => sum + seconds, 0);
  return all === 0
    ? t("no readings")
    : zones
        .map(([zone, seconds]) => {
          const percent = Math.round((seconds / all) * 100);
          return `${said(zone)} ${percent === 0 ? t("below 1") : percent} %`;
        })
        .join(", ");
}

export function alerts(count: number): string {
  return t("{n} alert | {n} alerts", { n: count });
}

export function times(count: number): string {
  return t("once | {n} times", { n: count });
}
