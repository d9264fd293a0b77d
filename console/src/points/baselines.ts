import type { Baseline, Point } from "@/api/types";
import { read, readBy, readDifference } from "@/look/units";

/** A baseline in the unit that its point is read in. */
export function baselineAsRead(baseline: Baseline, point: Point): Baseline {
  const by = readBy(point);
  const { values, now } = baseline;
  return by
    ? {
        ...baseline,
        unit: by.to,
        values: values && {
          ...values,
          median: read(by, values.median),
          low: read(by, values.low),
          high: read(by, values.high),
        },
        now: now && { ...now, value: read(by, now.value), difference: readDifference(by, now.difference) },
      }
    : baseline;
}

/** The range of a baseline in which values are normal. */
export function rangeWords(baseline: Baseline, decimals: number): string {
  const values = baseline.values;
  return values ? `${values.low.toFixed(decimals)} to ${values.high.toFixed(decimals)} ${baseline.unit}` : "unknown";
}

/** How a point is beside its baseline, in one sentence. */
export function comparisonWords(baseline: Baseline, decimals: number): string {
  const now = baseline.now;
  if (!now) {
    return "";
  }
  const apart = Math.abs(now.difference);
  const way = now.difference > 0 ? "above" : "below";
  const off =
    Number(apart.toFixed(decimals)) === 0
      ? `as in '${baseline.name}'`
      : `${apart.toFixed(decimals)} ${baseline.unit} ${way} the median of '${baseline.name}'`;
  const share = now.percentOfLimit == null ? "" : `, ${Math.abs(now.percentOfLimit).toFixed(0)} % of the warning limit`;
  const verdict = now.significant
    ? "This is a significant change (more than 25 %, ISO 20816-1)."
    : now.usual
      ? "This is in the normal range."
      : "This is outside the normal range.";
  return `Now ${now.value.toFixed(decimals)} ${baseline.unit}: ${off}${share}. ${verdict}`;
}
