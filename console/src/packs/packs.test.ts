import type { PackPlan, Place, Point, ShippedPack } from "@/api/types";
import { usePlaces } from "@/places/places";
import { usePoints } from "@/points/points";
import { button, mountIn, problem, serviceStandIn, type Call } from "@/testing";
import { flushPromises } from "@vue/test-utils";
import { createPinia, setActivePinia } from "pinia";
import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import { fateWords, kindWords } from "./fates";
import ImportPackForm from "./ImportPackForm.vue";
import MakePackForm from "./MakePackForm.vue";
import PacksRoom from "./PacksRoom.vue";

const CHURN = { id: "churn", kind: "asset", name: "Churn", parentId: "dairy", right: "edit", assetKind: "pump" };
const PLACES = [
  { id: "dairy", kind: "site", name: "Dairy", parentId: null, right: "edit" },
  CHURN,
] as unknown as Place[];
const HEAT = { id: "t", name: "Heat", placeId: "churn", path: ["Dairy", "Churn"], quantity: "temperature" };
const SHIPPED: ShippedPack = {
  id: "shipped-pump",
  name: "Pump",
  about: "For pumps.",
  assetKind: "pump",
  rules: ["Bearing hot"],
  dashboards: [],
  limitSets: [],
};
const part = (key: string, fate: PackPlan["parts"][number]["fate"], why = "") => ({ key, name: key, fate, why });
const plan = (more: Partial<PackPlan>): PackPlan => ({
  id: null,
  packId: "shipped-pump",
  name: "Pump",
  about: "",
  siteId: "dairy",
  again: false,
  possible: true,
  places: [],
  points: [],
  parts: [],
  ...more,
});
const NEEDED = { key: "machine", name: "Machine", kind: "asset", assetKind: "pump", within: null, limitSets: [] };

let calls: Call[];

async function dairy(answers: Record<string, unknown>) {
  setActivePinia(createPinia());
  calls = serviceStandIn({
    "GET places": PLACES,
    "GET limits": [],
    "GET points": [HEAT as unknown as Point],
    ...answers,
  });
  await Promise.all([usePlaces().load(), usePoints().load()]);
}

beforeEach(() => (document.body.innerHTML = ""));
afterEach(() => vi.unstubAllGlobals());

describe("importing a pack", () => {
  const open = plan({
    possible: false,
    places: [{ needed: NEEDED, placeId: null }],
    parts: [part("rule/hot", "impossible", "Select a place for 'Machine'.")],
  });
  const chosen = plan({ places: [{ needed: NEEDED, placeId: "churn" }], parts: [part("rule/hot", "new")] });

  it("takes the asset for which it was opened, shows what happens, and imports it", async () => {
    await dairy({
      "POST packs/plan": (call: Call) =>
        (call.body as { places: Record<string, string> }).places.machine === "churn" ? chosen : open,
      "POST packs": plan({ id: "i", parts: [part("rule/hot", "new")] }),
    });
    const form = await mountIn(ImportPackForm, { shipped: SHIPPED, placeId: "churn" });
    await flushPromises();
    expect(document.body.textContent).toContain("will be added");
    await button(form, "Import 1 part").trigger("click");
    await flushPromises();
    const made = calls.find((call) => call.method === "POST" && call.path === "packs");
    expect(made?.body).toMatchObject({ shipped: "shipped-pump", places: { machine: "churn" }, file: null });
    expect(document.body.textContent).toContain("Result");
    expect(document.body.textContent).toContain("added");
  });

  it("says what is missing and cannot be pressed until it is chosen", async () => {
    await dairy({ "POST packs/plan": open });
    const form = await mountIn(ImportPackForm, { shipped: SHIPPED });
    await flushPromises();
    expect(document.body.textContent).toContain("Select a place for 'Machine'.");
    expect(button(form, "Import").attributes("disabled")).toBeDefined();
  });

  it("keeps what was changed here unless it is wanted as in the pack", async () => {
    await dairy({
      "POST packs/plan": (call: Call) =>
        plan({
          parts: [part("rule/hot", (call.body as { replace: string[] }).replace.length ? "updated" : "changed-here")],
        }),
    });
    const form = await mountIn(ImportPackForm, { shipped: SHIPPED });
    await flushPromises();
    expect(document.body.textContent).toContain("changed here, stays");
    await form.findComponent({ name: "ElCheckbox" }).find("input").setValue(true);
    await flushPromises();
    expect(document.body.textContent).toContain("will be updated");
  });

  it("says why a file cannot be read", async () => {
    await dairy({ "POST packs/plan": problem(400, "The file is not a pack.", "Correct it and try again.") });
    await mountIn(ImportPackForm, { shipped: SHIPPED });
    await flushPromises();
    expect(document.body.textContent).toContain("The file is not a pack.");
  });
});

describe("making a pack", () => {
  it("needs a name and something in it", async () => {
    await dairy({
      "GET rules": [{ id: "r", name: "Too warm" }],
      "GET dashboards": [],
      "GET models": [],
    });
    const form = await mountIn(MakePackForm, {});
    await flushPromises();
    expect(button(form, "Download pack").attributes("disabled")).toBeDefined();
  });
});

describe("the room", () => {
  it("lists what was imported and offers what ships, the kind of the asset first", async () => {
    await dairy({
      "GET packs": [
        {
          id: "i",
          packId: "p",
          name: "Cold",
          siteId: "dairy",
          placeIds: ["churn"],
          rules: 2,
          dashboards: 1,
          limitSets: 0,
          deviceModels: 0,
        },
      ],
      "GET packs/shipped": [{ ...SHIPPED, id: "other", name: "Barn", assetKind: "barn" }, SHIPPED],
    });
    const room = await mountIn(PacksRoom, {}, "/packs?asset=churn");
    await flushPromises();
    expect(room.text()).toContain("2 rules, 1 dashboard");
    expect(room.findAll("h3").map((one) => one.text())).toEqual(["Pump", "Barn"]);
  });
});

describe("words for parts", () => {
  it("say what happens before and after", () => {
    expect(fateWords(part("rule/x", "new"))).toBe("will be added");
    expect(fateWords(part("rule/x", "new"), true)).toBe("added");
    expect(kindWords("limit-set/cold")).toBe("Limit set");
  });
});
