import type { Calibration } from "@/api/types";

/** What a person enters of a calibration, one field for each number that some kind needs. */
export interface CalibrationDraft {
  kind: "none" | "linear" | "two-point" | "table" | "current-loop" | "clamp" | "invert" | "steps";
  scale: number;
  offset: number;
  raw1: number;
  value1: number;
  raw2: number;
  value2: number;
  low: number;
  high: number;
  /** Lines of two numbers each. */
  table: string;
  /** What this form does not edit stays as it is. */
  whole?: Calibration;
}

/** A draft of what is there, so that nothing is lost when the form is saved. */
export function draftOf(calibration: Calibration | null | undefined): CalibrationDraft {
  const draft: CalibrationDraft = {
    kind: "none",
    scale: 1,
    offset: 0,
    raw1: 0,
    value1: 0,
    raw2: 1,
    value2: 1,
    low: 0,
    high: 100,
    table: "",
  };
  if (!calibration) {
    return draft;
  }
  draft.kind = calibration.kind;
  draft.whole = calibration;
  switch (calibration.kind) {
    case "table":
      draft.table = calibration.raw.map((raw, i) => `${raw} ${calibration.values[i]}`).join("\n");
      return draft;
    case "steps":
      return draft;
    default:
      return Object.assign(draft, calibration);
  }
}

/** The pairs of a table as they can be read so far. */
export function pairs(text: string): [number, number][] {
  return text
    .split("\n")
    .map((line) =>
      line
        .trim()
        .split(/[\s;]+/)
        .map((number) => Number(number.replace(",", "."))),
    )
    .filter((row): row is [number, number] => row.length === 2 && row.every(Number.isFinite));
}

/** The calibration of a draft; null for the model's. */
export function calibrationOf(draft: CalibrationDraft): Calibration | null {
  const { kind, low, high } = draft;
  switch (kind) {
    case "none":
      return null;
    case "linear":
      return { kind, scale: draft.scale, offset: draft.offset };
    case "two-point":
      return { kind, raw1: draft.raw1, value1: draft.value1, raw2: draft.raw2, value2: draft.value2 };
    case "table": {
      const rows = pairs(draft.table);
      return { kind, raw: rows.map((row) => row[0]), values: rows.map((row) => row[1]) };
    }
    case "current-loop": {
      const before = draft.whole?.kind === "current-loop" ? draft.whole : undefined;
      return { kind, low, high, faultBelow: before?.faultBelow ?? null, faultAbove: before?.faultAbove ?? null };
    }
    case "clamp":
    case "invert":
      return { kind, low, high };
    case "steps":
      return draft.whole ?? null;
  }
}

/** The number that a frame ("a=1 b=2") has for a channel; undefined if it has none. */
export function rawOf(values: string, channel: string): number | undefined {
  const text = values.split(" ").find((pair) => pair.startsWith(channel + "="));
  const number = Number(text?.slice(channel.length + 1));
  return text && Number.isFinite(number) ? number : undefined;
}

/**
 * Whether the newest raw numbers have come to rest: the last three differ by less than a fiftieth of all that was seen,
 * or by less than a thousandth of their size.
 */
export function hasSettled(raws: number[]): boolean {
  if (raws.length < 3) {
    return false;
  }
  const last = raws.slice(-3);
  const spread = Math.max(...last) - Math.min(...last);
  const seen = Math.max(...raws) - Math.min(...raws);
  return spread <= Math.max(seen / 50, Math.max(...last.map(Math.abs)) / 1000);
}
