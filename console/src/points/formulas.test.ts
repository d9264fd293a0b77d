import type { Formula, Recipe } from "@/api/types";
import { describe, expect, it } from "vitest";
import { emptyFormula, freeName, isComplete, mayHaveInterval } from "./formulas";

const TANK: Recipe = {
  recipe: "tank-lying",
  title: "Contents of a lying cylinder",
  inputs: [{ name: "level", quantity: "level" }],
  parameters: [
    { name: "diameter", title: "Diameter", unit: "m", usual: null, lowest: 0.001, highest: 1000 },
    { name: "endDepth", title: "Depth of each end", unit: "m", usual: 0, lowest: 0, highest: 100 },
  ],
  results: ["volume", "fill"],
  total: false,
  looksBack: false,
};

function tank(inputs: Record<string, string>, parameters: Record<string, number>): Formula {
  return { kind: "prepared", recipe: "tank-lying", inputs, parameters, withinMinutes: null, everyMinutes: null };
}

describe("formulas", () => {
  it("are complete when every input and each number without a usual value is there", () => {
    expect(isComplete(null, [TANK])).toBe(true);
    expect(isComplete(tank({ level: "p1" }, { diameter: 2 }), [TANK])).toBe(true);
    expect(isComplete(tank({}, { diameter: 2 }), [TANK])).toBe(false);
    expect(isComplete(tank({ level: "p1" }, { endDepth: 0.2 }), [TANK])).toBe(false);
    expect(isComplete(tank({ level: "p1" }, { diameter: 2 }), [])).toBe(false);
  });

  it("start with nothing chosen", () => {
    expect(emptyFormula("measured", "barn")).toBeNull();
    for (const source of ["prepared", "written"] as const) {
      expect(isComplete(emptyFormula(source, "barn"), [TANK])).toBe(false);
    }
    expect(isComplete(emptyFormula("over", "barn"), [TANK])).toBe(true);
  });

  it("have readings at an interval unless they add up or look back", () => {
    const written = (text: string) => mayHaveInterval({ ...tank({}, {}), kind: "written", text } as Formula, []);
    expect([
      written("a - b"),
      written("known(previous, 0) + a"),
      written("a - a.before"),
      written("levels(a, 1, 2)"),
    ]).toEqual([true, false, false, false]);
    expect(mayHaveInterval(tank({}, {}), [TANK])).toBe(true);
    expect(mayHaveInterval(tank({}, {}), [{ ...TANK, looksBack: true }])).toBe(false);
  });

  it("give each input a letter of its own", () => {
    expect(freeName({})).toBe("a");
    expect(freeName({ a: "1", b: "2", d: "3" })).toBe("c");
  });
});
