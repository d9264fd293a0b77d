import { fixed } from "@/look/numbers";
import { t } from "@/language";
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
  return values
    ? t("{low} to {high} {unit}", {
        low: fixed(values.low, decimals),
        high: fixed(values.high, decimals),
        unit: baseline.unit,
      })
    : t("unknown");
}

/** How a point is beside its baseline, in one sentence. */
export function comparisonWords(baseline: Baseline, decimals: number): string {
  const now = baseline.now;
  if (!now) {
    return "";
  }
  const apart = Math.abs(now.difference);
  const way = now.difference > 0 ? t("above") : t("below");
  const off =
    Number(apart.toFixed(decimals)) === 0
      ? t("as in '{name}'", { name: baseline.name })
      : t("{difference} {unit} {way} the median of '{name}'", {
          difference: fixed(apart, decimals),
          unit: baseline.unit,
          way: way,
          name: baseline.name,
        });
  const share =
    now.percentOfLimit == null
      ? ""
      : t(", {percent} % of the warning limit", { percent: fixed(Math.abs(now.percentOfLimit), 0) });
  const verdict = now.significant
    ? t("This is a significant change (more than 25 %, ISO 20816-1).")
    : now.usual
      ? t("This is in the normal range.")
      : t("This is outside the normal range.");
  return t("Now {value} {unit}: {off}{share}. {verdict}", {
    value: fixed(now.value, decimals),
    unit: baseline.unit,
    off,
    share,
    verdict,
  });
}
