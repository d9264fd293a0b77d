import { t } from "@/language";
import { inject, type InjectionKey, type Ref } from "vue";

/** An earlier time with which what is drawn is compared. */
export type Before = "none" | "before" | "day" | "week" | "year";

export const BEFORES: Record<Before, string> = {
  none: t("nothing"),
  before: t("the time before"),
  day: t("the day before"),
  week: t("the week before"),
  year: t("the year before"),
};

/** How many hours earlier that is, for a range of so many hours. */
export function hoursEarlier(before: Before, hours: number): number {
  return { none: 0, before: hours, day: 24, week: 7 * 24, year: 365 * 24 }[before];
}

export function isBefore(text: unknown): text is Before {
  return typeof text === "string" && text in BEFORES;
}

/** What all charts of a page are compared with. */
export const COMPARED: InjectionKey<Ref<Before>> = Symbol("compared with");

export function useCompared(): Ref<Before> | undefined {
  return inject(COMPARED, undefined);
}
