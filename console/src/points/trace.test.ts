import { describe, expect, it } from "vitest";
import { calibrationWords, highlight } from "./trace";

describe("a calibration in words", () => {
  it.each([
    [null, "none: the channel speaks the point's unit"],
    [{ kind: "two-point", raw1: 4, value1: 0, raw2: 20, value2: 8 }, "4 reads as 0, 20 as 8"],
    [
      { kind: "current-loop", low: 0, high: 8, faultBelow: null, faultAbove: null },
      "4 mA reads as 0, 20 mA as 8; 3.6 mA and less, 21 mA and more are faults",
    ],
    [{ kind: "table", raw: [0, 2], values: [0, 500] }, "0 reads as 0, 2 reads as 500"],
    [
      {
        kind: "steps",
        steps: [
          { kind: "linear", scale: 2, offset: 1 },
          { kind: "clamp", low: 0, high: 100 },
        ],
      },
      "× 2 + 1, then kept between 0 and 100",
    ],
  ])("%j", (calibration, words) => expect(calibrationWords(calibration)).toBe(words));
});

describe("the values of a frame", () => {
  it("mark the channel itself and not one whose name begins alike", () =>
    expect(highlight("temp=1 temp-2=3", "temp").map((part) => part.own)).toEqual([true, false]));
});
