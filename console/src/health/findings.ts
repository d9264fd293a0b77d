import type { DataHealth } from "@/api/types";
import { plural } from "@/look/words";

export type Finding = DataHealth["findings"][number];

/** A length of time, to two places at most. */
export function length(seconds: number): string {
  return seconds >= 2 * 86_400
    ? `${Math.round(seconds / 86_400)} days`
    : seconds >= 2 * 3_600
      ? `${Math.round(seconds / 3_600)} h`
      : seconds >= 60
        ? `${Math.round(seconds / 60)} min`
        : `${seconds} s`;
}

/** What is wrong, in a few words. */
export function findingWords(finding: Finding): string {
  switch (finding.kind) {
    case "gap":
      return finding.times === 1
        ? `gap of ${length(finding.longestSeconds)}`
        : `${finding.times} gaps, the longest ${length(finding.longestSeconds)}`;
    case "stuck":
      return finding.times === 1
        ? `value stuck for ${length(finding.longestSeconds)}`
        : `value stuck ${finding.times} times, the longest ${length(finding.longestSeconds)}`;
    case "impossible":
      return plural(finding.times, "impossible value");
    case "spike":
      return plural(finding.times, "spike");
    case "jump":
      return plural(finding.times, "jump");
  }
}

/** What to look at first, for the kind of finding. */
export const CAUSES: Record<Finding["kind"], string> = {
  gap: "Look at the gateway, the battery and the radio signal.",
  stuck: "Look at the probe: it may be frozen, stuck or disconnected.",
  impossible: "Look at the wiring and the scaling of the channel.",
  spike: "Look for a loose contact or interference.",
  jump: "Was the sensor moved, replaced or calibrated? If so, record a new baseline.",
};
