import { t } from "@/language";
import type { DataHealth } from "@/api/types";

export type Finding = DataHealth["findings"][number];

/** A length of time, to two places at most. */
export function length(seconds: number): string {
  return seconds >= 2 * 86_400
    ? t("{days} days", { days: Math.round(seconds / 86_400) })
    : seconds >= 2 * 3_600
      ? `${Math.round(seconds / 3_600)} h`
      : seconds >= 60
        ? t("{minutes} min", { minutes: Math.round(seconds / 60) })
        : `${seconds} s`;
}

/** What is wrong, in a few words. */
export function findingWords(finding: Finding): string {
  switch (finding.kind) {
    case "gap":
      return t("gap of {length} | {n} gaps, the longest {length}", {
        n: finding.times,
        length: length(finding.longestSeconds),
      });
    case "stuck":
      return t("value stuck for {length} | value stuck {n} times, the longest {length}", {
        n: finding.times,
        length: length(finding.longestSeconds),
      });
    case "impossible":
      return t("{n} impossible value | {n} impossible values", { n: finding.times });
    case "spike":
      return t("{n} spike | {n} spikes", { n: finding.times });
    case "jump":
      return t("{n} jump | {n} jumps", { n: finding.times });
  }
}

/** What to look at first, for the kind of finding. */
export const CAUSES: Record<Finding["kind"], string> = {
  gap: t("Look at the gateway, the battery and the radio signal."),
  stuck: t("Look at the probe: it may be frozen, stuck or disconnected."),
  impossible: t("Look at the wiring and the scaling of the channel."),
  spike: t("Look for a loose contact or interference."),
  jump: t("Was the sensor moved, replaced or calibrated? If so, record a new baseline."),
};
