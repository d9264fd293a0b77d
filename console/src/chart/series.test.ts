import { describe, expect, it } from "vitest";
import { drawn, withGaps } from "./series";
import type { Point } from "@/api/types";

describe("gaps in a line", () => {
  it("are left open where the service says that nothing came", () => {
    const line = {
      times: [1, 2, 90, 91],
      values: [5, 6, 7, 8],
      qualities: [0, 0, 0, 0],
      gaps: [{ from: 2, until: 90 }],
    };
    expect(withGaps(line)).toEqual([
      [1, 5],
      [2, 6],
      [89, null],
      [90, 7],
      [91, 8],
    ]);
  });

  it("are made by bad readings too", () => {
    expect(withGaps({ times: [0, 1, 2], values: [5, 6, 7], qualities: [0, 2, 0], gaps: [] })).toEqual([
      [0, 5],
      [1, null],
      [2, 7],
    ]);
  });

  it("before the first reading need no mark", () => {
    const line = { times: [5], values: [1], qualities: [0], gaps: [{ from: 1, until: 5 }] };
    expect(withGaps(line)).toEqual([[5, 1]]);
  });
});

describe("drawn", () => {
  it("reads quality codes from base64", () => {
    const series = {
      pointId: "p",
      unit: "",
      times: [1, 2],
      values: [3, 4],
      qualities: btoa("\u0000\u0002"),
      kept: 2,
      gaps: [],
    };
    expect(drawn({} as Point, series).qualities).toEqual([0, 2]);
  });
});
