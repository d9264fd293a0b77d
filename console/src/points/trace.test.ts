import { describe, expect, it } from "vitest";
import { calibrationWords, highlight } from "./trace";

describe("a calibration in words", () => {
  it.each([
    [null, "none: the channel speaks the point's unit"],
    [{ kind: "two-point", raw1: 4, value1: 0, raw2: 20, value2: 8 }, "4 reads as 0, 20 as 8"],
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
