import type { AlertState, Condition, Hold, Rule } from "@/api/types";

/** The states of an alert (IEC 62682) as people say them. */
export const STATES: Record<AlertState, string> = {
  normal: "over",
  "on-delay": "not held long enough yet",
  unacknowledged: "not acknowledged",
  acknowledged: "acknowledged",
  returned: "back to normal, not acknowledged",
};

export function span(seconds: number): string {
  return seconds % 3600 === 0 && seconds > 0
    ? seconds / 3600 + " h"
    : seconds % 60 === 0 && seconds > 0
      ? seconds / 60 + " min"
      : seconds + " s";
}

/** A rule's condition in words. */
export function conditionWords(condition: Condition, unit: string): string {
  switch (condition.kind) {
    case "above":
    case "below":
      return `${condition.kind} ${condition.limit} ${unit}`.trim();
    case "outside":
      return `outside ${condition.low} to ${condition.high} ${unit}`.trim();
    case "in-zone":
      return `in a zone that is ${condition.atLeast} or worse`;
    case "silent":
      return `silent for ${span(condition.seconds)}`;
    case "faulty":
      return "impossible: the sensor is at fault";
    case "device-says":
      return `said by the device, until it says 0 or is silent for ${span(condition.silentSeconds)}`;
  }
}

export function holdWords(hold: Hold): string {
  return hold.kind === "reports"
    ? hold.count === 1
      ? "at once"
      : `in ${hold.count} reports in a row`
    : hold.seconds === 0
      ? "at once"
      : `for ${span(hold.seconds)}`;
}

export function ruleWords(rule: Rule, unit: string): string {
  const held = rule.condition.kind === "silent" ? "" : ", " + holdWords(rule.hold);
  return conditionWords(rule.condition, unit) + held;
}
