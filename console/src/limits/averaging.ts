import { t } from "@/language";
import type { Averaging, Formula } from "@/api/types";

/** What values come to over time, as people say it; the last value needs no stretch. */
export const RULES: Record<Averaging["rule"], string> = {
  last: t("last value"),
  mean: t("mean"),
  "energy-mean": t("energy mean"),
  minimum: t("lowest value"),
  maximum: t("highest value"),
};

export const LAST: Averaging = { rule: "last", minutes: 0 };

/** Stretches that limits and shifts ask for; others can be entered. */
export const STRETCHES = [10, 15, 60, 480, 600, 1440, 4320, 10080];

export function stretchWords(minutes: number): string {
  return minutes > 1440 && minutes % 1440 === 0
    ? `${minutes / 1440} d`
    : minutes % 60 === 0
      ? `${minutes / 60} h`
      : t("{minutes} min", { minutes });
}

/** "mean over 8 h" */
export function averagingWords(averaging: Averaging): string {
  return averaging.rule === "last"
    ? RULES.last
    : t("{rule} over {span}", { rule: RULES[averaging.rule], span: stretchWords(averaging.minutes) });
}

/** How the values of a point with a formula have been averaged: limits for means hold for means. */
export function averagingOf(formula: Formula | null): Averaging {
  return formula?.kind === "overTime" ? formula.averaging : LAST;
}

export function isSame(one: Averaging, other: Averaging): boolean {
  return one.rule === other.rule && one.minutes === other.minutes;
}
