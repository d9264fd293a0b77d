import type { Panel } from "@/api/types";
import { describe, expect, it } from "vitest";
import { secondsOf, wallAddress, zoomFor } from "./wall";

const rows = (...heights: number[]) => heights.map((h, at) => ({ y: at * 3, h }) as Panel);

describe("a wall", () => {
  it.each([
    ["60", 60],
    ["", 30],
    ["1", 30],
    ["soon", 30],
    ["1e9", 30],
    [undefined, 30],
    ["5", 5],
  ])("stands %s for so many seconds", (text, seconds) => expect(secondsOf(text)).toBe(seconds));

  it("draws panels as large as the height allows, and never too small to read", () => {
    expect(zoomFor(rows(3, 3), 960)).toBe(2);
    expect(zoomFor(rows(3), 10_000)).toBe(2.5);
    expect(zoomFor(rows(3, 97), 800)).toBe(0.5);
    expect(zoomFor([], 0)).toBe(0.5);
  });

  it("keeps what it shows in its address", () => {
    expect(wallAddress(["a", "b"], 60)).toEqual({ path: "/dashboards/wall", query: { boards: "a,b", seconds: "60" } });
  });
});
