import { t } from "@/language";
import type { Severity } from "@/api/types";

const ORDER: Severity[] = ["normal", "advisory", "warning", "critical"];

/** 0 for normal to 3 for critical: also the number of rails of the fence. */
export function rank(severity: Severity): number {
  return ORDER.indexOf(severity);
}

/** Why a value is not judged, in a word. */
export function unjudged(latest: { quality: string }): string {
  return latest.quality === "BAD" ? t("sensor fault") : t("no limits");
}

/** The worst of what is judged; null if nothing is. */
export function worstJudged(severities: Iterable<Severity | null | undefined>): Severity | null {
  const judged = [...severities].filter((severity) => severity !== null && severity !== undefined);
  return judged.length ? worst(judged) : null;
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
