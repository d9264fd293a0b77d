import { t } from "@/language";
import type { LoggedEvent } from "@/api/types";

/** The kinds of events, as they are called one by one and together. */
export const KINDS: Record<string, { name: string; plural: string }> = {
  alert: { name: t("alert"), plural: t("alerts and their steps") },
  note: { name: t("note"), plural: t("notes on alerts") },
  logbook: { name: t("logbook"), plural: t("logbook entries") },
  notice: { name: t("notice"), plural: t("mails and text messages") },
  command: { name: t("command"), plural: t("commands to devices") },
  correction: { name: t("correction"), plural: t("corrections of readings") },
  change: { name: t("change"), plural: t("changes and sign-ins (owners)") },
};

/** Stands for all kinds, changes and sign-ins among them. */
export const EVERYTHING = "everything";

/** Unless somebody asks for them, changes and sign-ins do not bury what happened to machines. */
export function withKinds(asked: string): string {
  const query = new URLSearchParams(asked);
  const kind = query.get("kind");
  query.delete("kind");
  if (kind !== EVERYTHING) {
    query.set(
      "kind",
      kind ??
        Object.keys(KINDS)
          .filter((one) => one !== "change")
          .join(","),
    );
  }
  return query.toString();
}

/** The page of what an event is about; undefined where there is none. */
export function leadsTo(event: LoggedEvent): string | undefined {
  return event.alertId
    ? `/alerts/${event.alertId}`
    : event.deviceId
      ? `/fleet/devices/${event.deviceId}`
      : event.pointId
        ? `/points/${event.pointId}`
        : undefined;
}
