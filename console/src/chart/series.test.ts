import { describe, expect, it } from "vitest";
import { drawn, withGaps } from "./series";
import type { Point } from "@/api/types";

const MINUTE = 60_000;
const ones = (count: number) => Array.from({ length: count }, () => 1);
const good = (count: number) => Array.from({ length: count }, () => 0);

function gaps(times: number[]) {
  return withGaps(times, ones(times.length), good(times.length)).filter(([, value]) => value === null).length;
}

describe("gaps in a line", () => {
  it("are left open where a night is missing", () => {
    const before = Array.from({ length: 10 }, (_, i) => i * 10 * MINUTE);
    const after = before.map((time) => time + 14 * 60 * MINUTE);
    expect(gaps([...before, ...after])).toBe(1);
  });

  it("are not seen where coarse history meets fine live readings", () => {
    const history = Array.from({ length: 20 }, (_, i) => i * 10 * MINUTE);
    const live = Array.from({ length: 200 }, (_, i) => 190 * MINUTE + (i + 1) * 10_000);
    expect(gaps([...history, ...live])).toBe(0);
  });

  it("are made by bad readings too", () => {
    expect(withGaps([0, 1, 2], [5, 6, 7], [0, 2, 0])).toEqual([
      [0, 5],
      [1, null],
      [2, 7],
    ]);
  });

  it("need more than two readings", () => {
    expect(gaps([])).toBe(0);
    expect(gaps([0, 86_400_000])).toBe(0);
  });
});

describe("drawn", () => {
  it("reads quality codes from base64", () => {
    const series = { pointId: "p", unit: "", times: [1, 2], values: [3, 4], qualities: btoa("\u0000\u0002"), kept: 2 };
    expect(drawn({} as Point, series).qualities).toEqual([0, 2]);
  });
});
