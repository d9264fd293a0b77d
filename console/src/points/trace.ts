import { t } from "@/language";
/** A calibration in words. */
export function calibrationWords(calibration: Record<string, unknown> | null): string {
  if (!calibration) {
    return t("none: the channel speaks the point's unit");
  }
  const c = calibration as Record<string, number>;
  switch (calibration.kind) {
    case "linear":
      return `× ${c.scale} + ${c.offset}`;
    case "two-point":
      return t("{raw1} reads as {value1}, {raw2} as {value2}", {
        raw1: c.raw1,
        value1: c.value1,
        raw2: c.raw2,
        value2: c.value2,
      });
    case "current-loop":
      return t("4 mA reads as {low}, 20 mA as {high}; {faultBelow} mA and less, {faultAbove} mA and more are faults", {
        low: c.low,
        high: c.high,
        faultBelow: c.faultBelow ?? 3.6,
        faultAbove: c.faultAbove ?? 21,
      });
    case "table":
      return (calibration.raw as number[])
        .map((raw, i) => t("{raw} reads as {value}", { raw: raw, value: (calibration.values as number[])[i] }))
        .join(", ");
    case "clamp":
      return t("kept between {low} and {high}", { low: c.low, high: c.high });
    case "invert":
      return t("mirrored between {low} and {high}", { low: c.low, high: c.high });
    case "steps":
      return (
        (calibration.steps as Record<string, unknown>[]).map(calibrationWords).join(`${t(", then")} `) ||
        calibrationWords(null)
      );
    default:
      return JSON.stringify(calibration);
  }
}

/** The values of a frame ("a=1 b=2") with the one of a channel marked. */
export function highlight(values: string, channel: string): { text: string; own: boolean }[] {
  return values.split(" ").map((text) => ({ text, own: text.startsWith(channel + "=") }));
}
