import type { Panel } from "@/api/types";
import { describe, expect, it } from "vitest";
import { merged } from "./merge";

const panel = (id: string, y: number, part: object = {}): Panel =>
  ({
    id,
    kind: "dial",
    title: id,
    pointIds: ["p"],
    selection: null,
    range: null,
    look: null,
    x: 0,
    y,
    w: 3,
    h: 2,
    ...part,
  }) as Panel;
const BASE = [panel("a", 0), panel("b", 2), panel("c", 4)];
const ids = (panels: Panel[]) => panels.map((one) => one.id).sort();

describe("two versions of a dashboard", () => {
  it("are put together without loss where different panels were touched", () => {
    const mine = [panel("a", 0, { title: "mine" }), panel("b", 2), panel("c", 4), panel("d", 6)];
    const theirs = [panel("a", 0), panel("b", 2, { title: "theirs" }), panel("e", 6)];
    const { panels, both } = merged(BASE, mine, theirs);
    expect(ids(panels)).toEqual(["a", "b", "d", "e"]);
    expect(panels.find((one) => one.id === "a")?.title).toBe("mine");
    expect(panels.find((one) => one.id === "b")?.title).toBe("theirs");
    expect(both).toEqual([]);
  });

  it("keep mine of what both changed, and say so", () => {
    const { panels, both } = merged(BASE, [panel("a", 0, { title: "mine" })], [panel("a", 0, { title: "theirs" })]);
    expect(panels.map((one) => one.title)).toEqual(["mine"]);
    expect(both).toEqual(["mine"]);
  });

  it("keep what one changed and the other removed", () => {
    expect(ids(merged(BASE, [], [panel("a", 0, { title: "theirs" })]).panels)).toEqual(["a"]);
    expect(ids(merged(BASE, [panel("b", 2, { h: 3 })], []).panels)).toEqual(["b"]);
    expect(merged(BASE, [], []).panels).toEqual([]);
  });

  it("are the same whoever wrote nulls or left them out", () => {
    const written = { ...panel("a", 0), look: undefined } as unknown as Panel;
    expect(merged([panel("a", 0)], [written], [panel("a", 0, { title: "theirs" })]).both).toEqual([]);
  });

  it("never lay panels on one another", () => {
    const { panels } = merged([], [panel("m", 0), panel("n", 2)], [panel("t", 0), panel("u", 1)]);
    expect(ids(panels)).toEqual(["m", "n", "t", "u"]);
    for (const a of panels) {
      for (const b of panels) {
        expect(a === b || a.y >= b.y + b.h || b.y >= a.y + a.h || a.x >= b.x + b.w || b.x >= a.x + a.w).toBe(true);
      }
    }
  });
});
