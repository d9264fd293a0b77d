import type { Dashboard, LimitSet, Panel, Point } from "@/api/types";
import { usePlaces } from "@/places/places";
import { usePoints } from "@/points/points";
import { button, mountIn, problem, serviceStandIn, type Call } from "@/testing";
import { flushPromises } from "@vue/test-utils";
import { createPinia, setActivePinia } from "pinia";
import { afterEach, describe, expect, it, vi } from "vitest";
import DashboardGrid from "./DashboardGrid.vue";
import PanelForm from "./PanelForm.vue";
import ShareDialog from "./ShareDialog.vue";
import SharedPage from "./SharedPage.vue";

const panel = (part: Partial<Panel>): Panel => ({
  id: "x",
  kind: "value",
  title: "Level",
  pointIds: ["p"],
  assetId: null,
  range: null,
  text: null,
  x: 0,
  y: 0,
  w: 3,
  h: 2,
  ...part,
});
const POINT = {
  id: "p",
  name: "Level",
  placeId: "silo",
  path: ["Silo"],
  unit: "m",
  decimals: 2,
  limitSet: "l",
  latest: {
    time: new Date().toISOString(),
    value: 5.44,
    quality: "GOOD",
    severity: "normal",
    zone: "kept",
    headroomPercent: 55,
    nextZone: "over",
    nextBoundary: 10,
  },
} as unknown as Point;
const LIMITS = new Map<string, LimitSet>();
const DASHBOARD = {
  id: "d",
  name: "Glance",
  ownerName: "owner",
  version: 1,
  mayEdit: true,
  panels: [panel({})],
  points: [POINT],
  limitSets: [],
} as unknown as Dashboard;
let calls: Call[];

async function begin(answers: Record<string, unknown>) {
  setActivePinia(createPinia());
  calls = serviceStandIn({ "GET places": [], "GET limits": [], "GET points": [POINT], ...answers });
  await Promise.all([usePlaces().load(), usePoints().load()]);
}

afterEach(() => {
  document.body.innerHTML = "";
  vi.unstubAllGlobals();
});

describe("a dashboard", () => {
  it("shows values, text, and what cannot be seen", async () => {
    await begin({});
    const panels = [
      panel({}),
      panel({ id: "t", kind: "text", text: "Call the depot", pointIds: [] }),
      panel({ id: "g", title: "Gone", pointIds: ["other"] }),
    ];
    const grid = await mountIn(DashboardGrid, { panels, points: new Map([["p", POINT]]), limits: LIMITS });
    expect(grid.text()).toContain("5.44");
    expect(grid.text()).toContain("Call the depot");
    expect(grid.text()).toContain("Its points are gone, or you may not see them.");
  });

  it("leads to the point, but not where there is no account", async () => {
    await begin({});
    const props = { panels: [panel({})], points: new Map([["p", POINT]]), limits: LIMITS };
    expect((await mountIn(DashboardGrid, props)).find("a").attributes("href")).toBe("/points/p");
    expect((await mountIn(DashboardGrid, { ...props, open: true })).findAll("a")).toHaveLength(0);
  });
});

describe("the form of a panel", () => {
  it("needs points, and names the panel by them", async () => {
    await begin({});
    const form = await mountIn(PanelForm);
    expect(button(form, "Add").attributes("disabled")).toBeDefined();
    await form.findAllComponents({ name: "ElSelect" })[1]?.vm.$emit("update:modelValue", ["p"]);
    await button(form, "Add").trigger("click");
    expect(form.emitted("save")?.[0]?.[0]).toMatchObject({
      kind: "value",
      title: ": Level",
      pointIds: ["p"],
      w: 3,
      h: 2,
    });
  });

  it("keeps place and size of a panel that is changed", async () => {
    await begin({});
    const form = await mountIn(PanelForm, { panel: panel({ kind: "line", x: 6, y: 4, w: 6, h: 4, range: "P7D" }) });
    await form.find("#panel-title").setValue("A week");
    await button(form, "Change").trigger("click");
    expect(form.emitted("save")?.[0]?.[0]).toMatchObject({ title: "A week", x: 6, y: 4, w: 6, h: 4, range: "P7D" });
  });
});

describe("sharing", () => {
  it("shows a link once and lists it until it is withdrawn", async () => {
    const link = {
      id: "l1",
      dashboardId: "d",
      dashboardName: "Glance",
      note: "adviser",
      createdAt: "2026-03-01T08:00:00Z",
      until: null,
      link: null,
    };
    let open = [] as unknown[];
    await begin({
      "GET links": () => open,
      "POST dashboards/d/links": () => {
        open = [link];
        return { ...link, link: "http://pasture/shared/token" };
      },
      "DELETE links/l1": () => {
        open = [];
      },
    });
    const dialog = await mountIn(ShareDialog, { dashboard: DASHBOARD });
    await flushPromises();
    await dialog.find("#share-note").setValue("adviser");
    await dialog.find("form").trigger("submit");
    await flushPromises();
    expect((dialog.find("#shown-once").element as HTMLInputElement).value).toBe("http://pasture/shared/token");
    expect(calls.find((call) => call.method === "POST")?.body).toEqual({ note: "adviser", days: 30 });
    await button(dialog, "Withdraw").trigger("click");
    await flushPromises();
    expect(dialog.text()).not.toContain("Links that are open");
    expect(dialog.find("#shown-once").exists()).toBe(false);
  });

  it("opens for who has the link, and says so when it was withdrawn", async () => {
    await begin({ "GET shared/tok": DASHBOARD });
    const page = await mountIn(SharedPage, { token: "tok" });
    await flushPromises();
    expect(page.text()).toContain("Shared by owner to be looked at");
    expect(page.text()).toContain("5.44");

    await begin({
      "GET shared/tok": problem(410, "This link was withdrawn or has ended.", "Ask who gave it to you for a new one."),
    });
    const gone = await mountIn(SharedPage, { token: "tok" });
    await flushPromises();
    expect(gone.find("[role=alert]").text()).toContain("withdrawn");
    expect(gone.text()).not.toContain("Glance");
  });
});
