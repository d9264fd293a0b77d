import type { Point } from "@/api/types";
import PointRows from "@/points/PointRows.vue";
import { mountIn } from "@/testing";
import { createPinia, setActivePinia } from "pinia";
import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import { nextTick } from "vue";

const points = (many: number) =>
  Array.from({ length: many }, (_, i) => ({
    id: "p" + i,
    number: i,
    name: `Point ${i}`,
    path: ["Farm", i % 2 ? "North barn" : "South barn"],
    quantityTitle: "temperature",
    tags: [],
    released: true,
    latest: null,
    words: {},
  })) as unknown as Point[];

beforeEach(() => setActivePinia(createPinia()));
afterEach(() => vi.restoreAllMocks());

/** Where the rows begin on the page, and how high they all are, while one scrolls. */
function scrolled(top: number, height: number) {
  vi.spyOn(HTMLTableSectionElement.prototype, "getBoundingClientRect").mockReturnValue({ top, height } as DOMRect);
  window.dispatchEvent(new Event("scroll"));
  return new Promise((done) => window.requestAnimationFrame(() => void nextTick(() => done(undefined))));
}

const names = (rows: Awaited<ReturnType<typeof mountIn>>) => rows.findAll("tbody a").map((link) => link.text());

describe("a list of thousands", () => {
  it("draws the rows near what is seen, and space for the others", async () => {
    const rows = await mountIn(PointRows, { points: points(2_000) });
    expect(rows.findAll("tbody tr").length).toBeLessThan(100);
    expect(names(rows)[0]).toBe("Point 0");
    expect(rows.find("table").attributes("aria-rowcount")).toBe("2001");
    await scrolled(-56 * 1_000, 56 * 2_000);
    expect(names(rows)[0]).toBe("Point 980");
    expect(rows.find(".space").attributes("style")).toContain(`${56 * 980}px`);
    await scrolled(-56 * 5_000, 56 * 2_000);
    expect(names(rows).at(-1)).toBe("Point 1999");
  });

  it("finds a row by words of its name and place", async () => {
    const rows = await mountIn(PointRows, { points: points(2_000) });
    await rows.find("input").setValue("south 1998");
    expect(names(rows)).toEqual(["Point 1998"]);
    await rows.find("input").setValue("south 1999");
    expect(rows.text()).toContain("No point has that");
  });

  it("is drawn whole, without a field to find in, while it is short", async () => {
    const rows = await mountIn(PointRows, { points: points(30) });
    expect(rows.findAll("tbody tr")).toHaveLength(30);
    expect(rows.find("input").exists()).toBe(false);
    expect((await mountIn(PointRows, { points: points(100) })).findAll("tbody tr")).toHaveLength(100);
  });
});
