import type { CalibrationStretch, Command } from "@/api/types";
import { describe, expect, it } from "vitest";
import { doingMarks, doingsOf } from "./doings";

const AT = Date.parse("2026-03-01T12:00:00Z");
const HOUR = 3_600_000;
const range = { from: AT, until: AT + 24 * HOUR };
const command = (hours: number, state: string, what = "Interval: 30 s") =>
  ({ changedAt: new Date(AT + hours * HOUR).toISOString(), state, what, person: "ann" }) as Command;
const stretch = (hours: number | null, by = "tom") =>
  ({
    from: hours === null ? null : new Date(AT + hours * HOUR).toISOString(),
    deviceName: "Pump sender",
    calibration: { kind: "linear", scale: 2, offset: 0 },
    by,
  }) as unknown as CalibrationStretch;

describe("what was done to a point", () => {
  it("is lettered by time, from calibrations and commands in sight", () => {
    const found = doingsOf(
      [stretch(null), stretch(3), stretch(-1)],
      [command(5, "acknowledged"), command(1, "sent"), command(2, "failed"), command(4, "wanted"), command(30, "sent")],
      range,
    );
    expect(found.map((one) => [one.label, one.text, one.by])).toEqual([
      ["a", "Interval: 30 s, sent", "ann"],
      ["b", "Pump sender, calibration: × 2 + 0", "tom"],
      ["c", "Interval: 30 s, acknowledged", "ann"],
    ]);
    expect(doingMarks(found).map((mark) => mark.id)).toEqual([-1, -2, -3]);
  });

  it("is the newest dozen where there was more", () => {
    const many = Array.from({ length: 20 }, (_, i) => command(i, "sent", "No. " + i));
    const found = doingsOf([], many, range);
    expect(found).toHaveLength(12);
    expect(found.at(-1)?.text).toBe("No. 19, sent");
  });
});
