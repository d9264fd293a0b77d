import type { Dashboard, LimitSet, Panel, Point } from "@/api/types";
import { usePlaces } from "@/places/places";
import { usePoints } from "@/points/points";
import { button, mountIn, problem, serviceStandIn, type Call } from "@/testing";
import { flushPromises, type VueWrapper } from "@vue/test-utils";
import { createPinia, setActivePinia } from "pinia";
import { afterEach, describe, expect, it, vi } from "vitest";
import DashboardGrid from "./DashboardGrid.vue";
import DashboardPage from "./DashboardPage.vue";
import NewDashboardForm from "./NewDashboardForm.vue";
import PanelForm from "./PanelForm.vue";
import ShareDialog from "./ShareDialog.vue";
import SharedPage from "./SharedPage.vue";

const panel = (part: object): Panel =>
  ({
    id: "x",
    kind: "value",
    title: "Level",
    pointIds: ["p"],
    selection: null,
    look: null,
    range: null,
    x: 0,
    y: 0,
    w: 3,
    h: 2,
    ...part,
  }) as Panel;
const POINT = {
  id: "p",
  name: "Level",
  placeId: "silo",
  path: ["Silo"],
  quantity: "level",
  quantityTitle: "level",
  tags: ["winter watch"],
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
const pointsOf = (of: Panel) => (of.pointIds.includes("p") ? [POINT] : []);
const LIMITS = new Map<string, LimitSet>();
const DASHBOARD = {
  id: "d",
  name: "Glance",
  ownerName: "owner",
  version: 1,
  mayEdit: true,
  panels: [panel({})],
  shown: { x: ["p"] },
  points: [POINT],
  limitSets: [],
} as unknown as Dashboard;
let calls: Call[];

async function begin(answers: Record<string, unknown>) {
  setActivePinia(createPinia());
  calls = serviceStandIn({ "GET places": [], "GET limits": [], "GET points": [POINT], ...answers });
  await Promise.all([usePlaces().load(), usePoints().load()]);
}

/** Chooses in the list of that name. */
async function choose(form: VueWrapper, name: string, value: unknown) {
  const list = form.findAllComponents({ name: "ElSelect" }).find((one) => one.attributes("aria-label") === name);
  if (!list) {
    throw new Error(`no list is called "${name}"`);
  }
  await list.vm.$emit("update:modelValue", value);
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
    const grid = await mountIn(DashboardGrid, { panels, pointsOf, limits: LIMITS });
    expect(grid.text()).toContain("5.44");
    expect(grid.text()).toContain("Call the depot");
    expect(grid.text()).toContain("Its points are gone, or you may not see them.");
  });

  it("leads to the point, but not where there is no account", async () => {
    await begin({});
    const props = { panels: [panel({})], pointsOf, limits: LIMITS };
    expect((await mountIn(DashboardGrid, props)).find("a").attributes("href")).toBe("/points/p");
    expect((await mountIn(DashboardGrid, { ...props, open: true })).findAll("a")).toHaveLength(0);
  });
});

describe("the page of a dashboard", () => {
  const other = { ...POINT, id: "q", name: "Other level", placeId: "tank", path: ["Tank"] } as Point;

  it("is narrowed to one of its places, so that one dashboard serves ten barns", async () => {
    await begin({
      "GET places": [
        { id: "silo", kind: "asset", name: "Silo", parentId: null },
        { id: "tank", kind: "asset", name: "Tank", parentId: null },
      ],
      "GET points": [POINT, other],
      "GET dashboards/d": { ...DASHBOARD, panels: [panel({ kind: "bars", pointIds: ["p", "q"] })] },
    });
    const page = await mountIn(DashboardPage, { id: "d" });
    await flushPromises();
    expect(page.findAll("tbody tr")).toHaveLength(2);
    await choose(page, "Only this place", "tank");
    await flushPromises();
    expect(page.findAll("tbody tr").map((row) => row.find("th").text())).toEqual(["Other level"]);
  });

  it("puts what somebody else saved meanwhile together with one's own changes", async () => {
    const theirs = { ...DASHBOARD, version: 2, panels: [panel({}), panel({ id: "n", title: "Theirs", y: 2 })] };
    let saved = false;
    await begin({
      "GET dashboards/d": () => (saved ? theirs : DASHBOARD),
      "PUT dashboards/d": (call: Call) =>
        (call.body as { version: number }).version === 1
          ? problem(409, "Somebody saved another version of this dashboard meanwhile.")
          : { ...theirs, version: 3 },
    });
    const page = await mountIn(DashboardPage, { id: "d" });
    await flushPromises();
    await button(page, "Edit").trigger("click");
    await page.find("input[aria-label='Name of the dashboard']").setValue("Mine");
    saved = true;
    await button(page, "Save").trigger("click");
    await flushPromises();
    expect(page.find("[role=status]").text()).toContain("The changes of both are together now.");
    await button(page, "Save").trigger("click");
    await flushPromises();
    expect(calls.at(-1)?.body).toMatchObject({ name: "Mine", version: 2, panels: [{ id: "x" }, { id: "n" }] });
  });
});

describe("the form of a panel", () => {
  it("needs points, and names the panel by them", async () => {
    await begin({});
    const form = await mountIn(PanelForm);
    expect(button(form, "Add").attributes("disabled")).toBeDefined();
    await choose(form, "Points", ["p"]);
    await button(form, "Add").trigger("click");
    expect(form.emitted("save")?.[0]?.[0]).toMatchObject({
      kind: "value",
      title: "Silo: Level",
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

  it("offers what a place has, and counts what is selected", async () => {
    await begin({ "GET places": [{ id: "silo", kind: "asset", assetKind: "silo", name: "Silo", parentId: null }] });
    const form = await mountIn(PanelForm);
    await form.find("input[type=checkbox]").setValue(true);
    expect(form.text()).toContain("1 point now.");
    await choose(form, "Only with this tag", "winter watch");
    expect(form.text()).toContain("1 point now.");
    await choose(form, "Only this quantity", "temperature");
    expect(form.text()).toContain("0 points now.");
    await button(form, "Add").trigger("click");
    expect(form.emitted("save")?.[0]?.[0]).toMatchObject({
      pointIds: [],
      selection: { placeId: "silo", tag: "winter watch", quantity: "temperature" },
    });
  });

  it("keeps points and title when another kind is chosen, and drops what only the other had", async () => {
    await begin({});
    const form = await mountIn(PanelForm, { panel: panel({ kind: "vessel", shape: "cone" }) });
    await choose(form, "Kind", "bars");
    await button(form, "Change").trigger("click");
    const saved = form.emitted("save")?.[0]?.[0] as object;
    expect(saved).toMatchObject({ kind: "bars", pointIds: ["p"], title: "Level" });
    expect(saved).not.toHaveProperty("shape");
  });

  it("reads words for values, and says which line it cannot read", async () => {
    await begin({});
    const form = await mountIn(PanelForm, { panel: panel({}) });
    await form.find("#panel-words").setValue("0 = shut\n1.0 = open");
    await button(form, "Change").trigger("click");
    expect(form.emitted("save")?.[0]?.[0]).toMatchObject({ look: { words: { "0": "shut", "1": "open" } } });
    await form.find("#panel-words").setValue("open is 1");
    expect(form.find("[role=alert]").text()).toContain("Cannot read 'open is 1'");
  });
});

describe("a new dashboard", () => {
  it("is made for a purpose at a place, named by both", async () => {
    await begin({
      "GET places": [{ id: "silo", kind: "asset", assetKind: "silo", name: "Silo", parentId: null }],
      "POST dashboards": DASHBOARD,
    });
    const form = await mountIn(NewDashboardForm);
    await form.find("input[value=cold-chain]").setValue(true);
    await button(form, "Make it").trigger("click");
    await flushPromises();
    expect(calls.find((call) => call.method === "POST")?.body).toEqual({
      name: "Cold chain: Silo",
      siteId: null,
      purpose: "cold-chain",
      placeId: "silo",
    });
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
      opened: 3,
      lastOpenedAt: new Date().toISOString(),
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
    expect(calls.find((call) => call.method === "POST")?.body).toEqual({ note: "adviser", days: 30, passcode: null });
    expect(dialog.text()).toContain("opened 3 times, last");
    await button(dialog, "Withdraw").trigger("click");
    await flushPromises();
    expect(dialog.text()).not.toContain("Links that are open");
    expect(dialog.find("#shown-once").exists()).toBe(false);
  });

  it("asks for the passcode of a link, and opens with it", async () => {
    await begin({
      "GET shared/tok": problem(403, "This link has a passcode.", "Enter it.", "urn:open-pasture:problem:passcode"),
      "POST shared/tok/passcode": "",
    });
    const page = await mountIn(SharedPage, { token: "tok" });
    await flushPromises();
    expect(page.find("h1").text()).toBe("This dashboard opens with a passcode");
    expect(page.find("[role=alert]").exists()).toBe(false);
    await page.find("#passcode").setValue("cow & calf");
    await page.find("form").trigger("submit");
    await flushPromises();
    expect(calls.find((call) => call.method === "POST")?.body).toEqual({ passcode: "cow & calf" });
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
