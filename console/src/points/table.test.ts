import type { PointRow, PointRowView } from "@/api/types";
import { button, mountIn, serviceStandIn, type Call } from "@/testing";
import { flushPromises } from "@vue/test-utils";
import { createPinia, setActivePinia } from "pinia";
import { afterEach, describe, expect, it, vi } from "vitest";
import PointTablePage from "./PointTablePage.vue";
import { filled, found, typed, undoing, wished } from "./table";

const row = (id: string, name: string, tags = "") => ({ id, cells: { name, tags } }) as unknown as PointRow;
const ROWS = [row("p1", "Pump 1 axial", "a"), row("p2", "Pump 1 radial"), row("p3", "Air")];

describe("a table of points", () => {
  afterEach(() => vi.unstubAllGlobals());

  it("keeps in its draft only what differs", () => {
    const draft = typed(new Map(), ROWS[0]!, "tags", "a, b");
    expect(wished(draft)).toEqual({ rows: [{ id: "p1", cells: { tags: "a, b" } }] });
    expect(typed(draft, ROWS[0]!, "tags", "a").size).toBe(0);
  });

  it("fills a column of the rows that are found, or a part of each cell", () => {
    const pumps = found(ROWS, new Map(), "pump");
    expect(pumps).toHaveLength(2);
    expect([...filled(new Map(), pumps, "name", "Pump 1", "Pump 7").values()]).toEqual([
      { name: "Pump 7 axial" },
      { name: "Pump 7 radial" },
    ]);
    expect([...filled(new Map(), ROWS, "tags", "", "a").keys()]).toEqual(["p2", "p3"]);
  });

  it("takes back what was changed, and nothing else", () => {
    const done = [
      { id: "p1", name: "x", changed: [{ field: "tags", before: "a", after: "b" }], problem: null },
      { id: "p2", name: "y", changed: [], problem: null },
    ] as PointRowView[];
    expect(undoing(done)).toEqual({ rows: [{ id: "p1", cells: { tags: "a" } }] });
  });

  it("shows what would change before it does, and undoes it after", async () => {
    setActivePinia(createPinia());
    const plan = [
      {
        id: "p1",
        name: "Pump 1 axial",
        changed: [{ field: "name", before: "Pump 1 axial", after: "P" }],
        problem: null,
      },
    ];
    const calls: Call[] = serviceStandIn({
      "GET points/table?place=site": ROWS,
      "GET points": [],
      "PUT points/table?dryRun=true": plan,
      "PUT points/table": plan,
    });
    const page = await mountIn(PointTablePage, { id: "site" });
    await flushPromises();
    await page.find("input[aria-label='Name: Pump 1 axial']").setValue("P");
    await button(page, "See what changes").trigger("click");
    await flushPromises();
    expect(page.text()).toContain("Change 1 point");
    expect(calls.some((call) => call.path === "points/table")).toBe(false);
    await button(page, "Change 1 point").trigger("click");
    await flushPromises();
    expect(calls.find((call) => call.path === "points/table")?.body).toEqual({
      rows: [{ id: "p1", cells: { name: "P" } }],
    });
    await button(page, "Undo").trigger("click");
    await flushPromises();
    expect(calls.filter((call) => call.path === "points/table").at(-1)?.body).toEqual({
      rows: [{ id: "p1", cells: { name: "Pump 1 axial" } }],
    });
  });
});
