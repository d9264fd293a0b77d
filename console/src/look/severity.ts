import type { Severity } from "@/api/types";

const ORDER: Severity[] = ["normal", "advisory", "warning", "critical"];

/** 0 for normal to 3 for critical: also the number of rails of the fence. */
export function rank(severity: Severity): number {
  return ORDER.indexOf(severity);
}

export function worst(severities: Iterable<Severity>): Severity {
  let found: Severity = "normal";
  for (const severity of severities) {
    if (rank(severity) > rank(found)) {
      found = severity;
    }
  }
  return found;
}
