import type { Point } from "@/api/types";
import { describe, expect, it } from "vitest";
import { boundaryOf, isRange, stateProblem, statesFor } from "./states";

const point = (quantity: string, words: Record<string, string> = {}) => ({ quantity, words }) as Point;
const range = (atLeast: number | null, below: number | null) => ({ name: "running", is: null, atLeast, below });

describe("states of a machine", () => {
  it("are the words of a point, by value", () => {
    const found = statesFor(point("other", { "2": "loaded", "0": "standing", "10": "over" }));
    expect(found.map((one) => [one.name, one.is])).toEqual([
      ["standing", 0],
      ["loaded", 2],
      ["over", 10],
    ]);
    expect(found.some(isRange)).toBe(false);
  });

  it("are off and running of a switch, and ranges of what is measured", () => {
    expect(statesFor(point("switch")).map((one) => one.is)).toEqual([0, 1]);
    expect(statesFor(point("current")).every(isRange)).toBe(true);
  });

  it("need a name and a range that some value is in", () => {
    expect(stateProblem(range(2, null))).toBeUndefined();
    expect(stateProblem(range(null, 2))).toBeUndefined();
    expect(stateProblem(range(null, null))).toContain("running");
    expect(stateProblem(range(2, 2))).toContain("less than");
    expect(stateProblem({ ...range(2, 3), name: " " })).toContain("name");
    expect(stateProblem({ name: "off", is: 0, atLeast: null, below: null })).toBeUndefined();
  });

  it("are divided where hardly any time was spent", () => {
    const bins = (seconds: number[]) =>
      seconds.map((of, i) => ({ from: 10 * i, until: 10 * (i + 1), seconds: of, severity: undefined }));
    expect(boundaryOf(bins([900, 40, 1, 0, 0, 2, 500, 700]))).toBe(40);
    expect(boundaryOf(bins([0, 0, 0, 500, 0, 400])), "what is empty below everything divides nothing").toBe(45);
    expect(boundaryOf(bins([500, 0, 1])), "a spike is no state").toBeUndefined();
    expect(boundaryOf(bins([500, 300, 400]))).toBeUndefined();
    expect(boundaryOf([])).toBeUndefined();
  });
});
