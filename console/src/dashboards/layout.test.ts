import { describe, expect, it } from "vitest";
import type { Panel } from "@/api/types";
import { bottom, durationOf, hoursOf, inReadingOrder } from "./layout";

const panel = (id: string, x: number, y: number, h = 2) => ({ id, x, y, w: 3, h }) as Panel;

describe("a dashboard's layout", () => {
  it("is read row by row on a phone", () =>
    expect(inReadingOrder([panel("c", 0, 4), panel("b", 8, 0), panel("a", 0, 0)]).map((one) => one.id)).toEqual([
      "a",
      "b",
      "c",
    ]));

  it("puts a new panel below everything", () => {
    expect(bottom([])).toBe(0);
    expect(bottom([panel("a", 0, 0, 4), panel("b", 6, 3, 2)])).toBe(5);
  });

  it.each([
    ["PT6H", 6],
    ["P7D", 168],
    ["P1DT12H", 36],
    [null, 24],
    ["rubbish", 24],
  ])("reads the range %s", (range, hours) => expect(hoursOf(range)).toBe(hours));

  it.each([1, 24, 36, 168])("writes %i hours so that they read back", (hours) =>
    expect(hoursOf(durationOf(hours))).toBe(hours),
  );
});
