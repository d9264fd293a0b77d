import { t } from "@/language";
/** Steps that are done stay ticked for so long: a round that was left is begun anew the next day. */
const KEPT_MS = 12 * 3_600_000;

/** Which steps of a panel are done, as this browser knows it. */
export function kept(panelId: string, steps: number, at: number): boolean[] {
  try {
    const found = JSON.parse(localStorage.getItem("round " + panelId) ?? "{}") as { at?: number; done?: boolean[] };
    return found.done?.length === steps && at - (found.at ?? 0) < KEPT_MS
      ? found.done
      : Array<boolean>(steps).fill(false);
  } catch {
    return Array<boolean>(steps).fill(false);
  }
}

export function keep(panelId: string, done: boolean[], at: number) {
  localStorage.setItem("round " + panelId, JSON.stringify({ at, done }));
}

/** What is written into the logbook: what was done, and what was not. */
export function entryOf(title: string, steps: string[], done: boolean[], remark: string): string {
  const left = steps.filter((_, at) => !done[at]);
  const count = steps.length - left.length;
  return [
    `${title}: ${left.length ? t("{count} of {steps} steps done.", { count, steps: steps.length }) : t("all steps done.")}`,
    ...left.map((step) => t("Not done: {step}", { step })),
    ...(remark.trim() ? [remark.trim()] : []),
  ].join("\n");
}
