import type { LoggedEvent } from "@/api/types";

/** The kinds of events, as they are called one by one and together. */
export const KINDS: Record<string, { name: string; plural: string }> = {
  alert: { name: "alert", plural: "alerts and their steps" },
  note: { name: "note", plural: "notes on alerts" },
  notice: { name: "notice", plural: "mails and text messages" },
  command: { name: "command", plural: "commands to devices" },
  correction: { name: "correction", plural: "corrections of readings" },
  change: { name: "change", plural: "changes and sign-ins (owners)" },
};

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
