/** A calibration in words. */
export function calibrationWords(calibration: Record<string, unknown> | null): string {
  if (!calibration) {
    return "none: the channel speaks the point's unit";
  }
  const c = calibration as Record<string, number>;
  switch (calibration.kind) {
    case "linear":
      return `× ${c.scale} + ${c.offset}`;
    case "two-point":
      return `${c.raw1} reads as ${c.value1}, ${c.raw2} as ${c.value2}`;
    case "current-loop":
      return `4 mA reads as ${c.low}, 20 mA as ${c.high}; ${c.faultBelow ?? 3.6} mA and less, ${c.faultAbove ?? 21} mA and more are faults`;
    case "table":
      return (calibration.raw as number[])
        .map((raw, i) => `${raw} reads as ${(calibration.values as number[])[i]}`)
        .join(", ");
    case "clamp":
      return `kept between ${c.low} and ${c.high}`;
    case "invert":
      return `mirrored between ${c.low} and ${c.high}`;
    case "steps":
      return (
        (calibration.steps as Record<string, unknown>[]).map(calibrationWords).join(", then ") || calibrationWords(null)
      );
    default:
      return JSON.stringify(calibration);
  }
}

/** The values of a frame ("a=1 b=2") with the one of a channel marked. */
export function highlight(values: string, channel: string): { text: string; own: boolean }[] {
  return values.split(" ").map((text) => ({ text, own: text.startsWith(channel + "=") }));
}
