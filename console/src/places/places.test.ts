import type { LimitSet, Place, Point } from "@/api/types";
import { usePoints } from "@/points/points";
import { button, mountIn, problem, serviceStandIn, type Call } from "@/testing";
import { flushPromises, mount } from "@vue/test-utils";
import { createPinia, setActivePinia } from "pinia";
import { afterEach, describe, expect, it, vi } from "vitest";
import AssetDirections from "./AssetDirections.vue";
import PlaceForm from "./PlaceForm.vue";
import PlacePage from "./PlacePage.vue";
import PlacesRoom from "./PlacesRoom.vue";
import { usePlaces } from "./places";
import ZoneColumn from "./ZoneColumn.vue";

const place = (id: string, kind: Place["kind"], parentId: string | null, right: Place["right"] = "edit") =>
  ({
    id,
    kind,
    name: id,
    parentId,
    right,
    assetKind: null,
    limitSets: [],
    zone: "Europe/London",
    openAlerts: 0,
    points: 0,
  }) as unknown as Place;
const zone = (label: string, severity: string, from: number | null, to: number | null) => ({
  label,
  severity,
  from,
  to,
  meaning: "",
});
const PUMP_LIMITS = {
  id: "l",
  title: "Pumps",
  source: { document: "ISO 10816-7", edition: "2009", clause: "" },
  unit: "mm/s",
  zones: [
    zone("A", "normal", null, 3.2),
    zone("B", "normal", 3.2, 5.1),
    zone("C", "warning", 5.1, 8.5),
    zone("D", "critical", 8.5, null),
  ],
} as unknown as LimitSet;
const point = (id: string, direction: string, value: number, severity: string, headroom: number) =>
  ({
    id,
    name: direction + " vibration",
    direction,
    placeId: "pump",
    path: ["site", "pump"],
    quantity: "vibration-velocity",
    quantityTitle: "vibration velocity",
    unit: "mm/s",
    decimals: 2,
    limitSet: "l",
    released: true,
    intervalSeconds: 10,
    latest: {
      time: new Date().toISOString(),
      value,
      quality: "GOOD",
      severity,
      zone: severity === "normal" ? "B" : "C",
      headroomPercent: headroom,
      nextBoundary: 5.1,
      nextZone: "C",
    },
  }) as unknown as Point;
let calls: Call[];

async function begin(answers: Record<string, unknown>, places: Place[], points: Point[] = []) {
  setActivePinia(createPinia());
  calls = serviceStandIn({ "GET places": places, "GET limits": [PUMP_LIMITS], "GET points": points, ...answers });
  await Promise.all([usePlaces().load(), usePoints().load()]);
}

afterEach(() => {
  document.body.innerHTML = "";
  vi.unstubAllGlobals();
});

describe("the directions of a machine", () => {
  it("stand side by side, and the worst is said to decide, never the mean", async () => {
    setActivePinia(createPinia());
    const directions = await mountIn(AssetDirections, {
      points: [point("p1", "axial", 6.4, "warning", 60), point("p2", "horizontal", 3.4, "normal", 12)],
      limits: PUMP_LIMITS,
    });
    const deciding = directions.find(".decides");
    expect(deciding.text()).toContain("axial");
    expect(deciding.text()).toContain("this direction decides");
    expect(directions.text().match(/this direction decides/g)).toHaveLength(1);
    expect(directions.text()).toContain("C from 5.1 mm/s");
  });

  it("have none that decides where there are no limits", async () => {
    setActivePinia(createPinia());
    const directions = await mountIn(AssetDirections, { points: [point("p1", "axial", 6.4, "normal", 60)] });
    expect(directions.find(".decides").exists()).toBe(false);
  });
});

describe("the column of zones", () => {
  it("has a zone for each, a rail between them, and the needle at the value", () => {
    const column = mount(ZoneColumn, { props: { limits: PUMP_LIMITS, value: 8.5, top: 11 } });
    expect(column.findAll(".zone")).toHaveLength(4);
    expect(column.findAll(".rail")).toHaveLength(3);
    const needle = column.find(".needle").attributes("transform");
    const border = column.findAll(".rail")[2]?.attributes("d");
    expect(Number(needle?.match(/0 ([\d.]+)/)?.[1])).toBeCloseTo(Number(border?.match(/M0 ([\d.]+)/)?.[1]), 5);
  });

  it("keeps the needle inside whatever the value", () => {
    const y = (value: number) =>
      Number(
        mount(ZoneColumn, { props: { limits: PUMP_LIMITS, value, top: 11 } })
          .find(".needle")
          .attributes("transform")
          ?.match(/0 ([\d.]+)/)?.[1],
      );
    expect(y(1000)).toBe(0);
    expect(y(-5)).toBe(132);
  });
});

describe("the tree of places", () => {
  it("shows what is below what", async () => {
    await begin(
      {},
      [place("site", "site", null), place("room", "area", "site"), place("pump", "asset", "room")],
      [point("p1", "axial", 6, "warning", 70)],
    );
    const room = await mountIn(PlacesRoom);
    expect(room.findAll(".place").map((one) => one.find(".name").text())).toEqual(["site", "room", "pump"]);
    expect(room.findAll(".warning").length).toBeGreaterThanOrEqual(3);
  });

  it("tells who has no rights that it is no fault", async () => {
    await begin({}, []);
    expect((await mountIn(PlacesRoom)).text()).toContain("Nobody has given you a right on a site yet.");
  });
});

describe("the form of a place", () => {
  it("makes an asset where one may edit", async () => {
    await begin({ "POST assets": {} }, [place("site", "site", null)]);
    const form = await mountIn(PlaceForm, { parent: "site" });
    await form.find("#place-name").setValue("Whey pump");
    await form.find("#place-word").setValue("pump");
    await button(form, "Add").trigger("click");
    await flushPromises();
    expect(calls.find((call) => call.method === "POST")).toMatchObject({
      path: "assets",
      body: { name: "Whey pump", parentId: "site", kind: "pump", limitSets: [] },
    });
  });

  it("takes speed and bearings of a machine that turns", async () => {
    await begin({ "POST assets": {} }, [place("site", "site", null)]);
    const form = await mountIn(PlaceForm, { parent: "site" });
    await form.find("#place-name").setValue("Separator");
    await button(form, "Speed and bearings of a rotating machine …").trigger("click");
    await form.find("#place-rpm").setValue("1490,5");
    await button(form, "Add bearing").trigger("click");
    await button(form, "Add bearing").trigger("click");
    await button(form, "Remove bearing 1").trigger("click");
    await button(form, "Add").trigger("click");
    await flushPromises();
    expect(calls.find((call) => call.method === "POST")?.body).toMatchObject({
      rotation: {
        rpm: 1490.5,
        speedPointId: null,
        bearings: [{ name: "bearing 2", elements: 9, elementDiameterMm: 8, pitchDiameterMm: 39, contactDegrees: 0 }],
      },
    });
  });

  it("changes a site without losing its position", async () => {
    const site = { ...place("site", "site", null, "manage"), latitude: 54.2, longitude: -2.3 };
    await begin({ "PUT sites/site": {} }, [site]);
    const form = await mountIn(PlaceForm, { place: site });
    await form.find("#place-name").setValue("Dairy");
    await button(form, "Save").trigger("click");
    await flushPromises();
    expect(calls.find((call) => call.method === "PUT")?.body).toEqual({
      name: "Dairy",
      zone: "Europe/London",
      latitude: 54.2,
      longitude: -2.3,
    });
  });

  it("says why it was refused", async () => {
    await begin(
      { "POST assets": problem(403, "You may not make assets here.", "Ask who manages the site for the right.") },
      [place("site", "site", null)],
    );
    const form = await mountIn(PlaceForm, { parent: "site" });
    await form.find("#place-name").setValue("x");
    await button(form, "Add").trigger("click");
    await flushPromises();
    expect(form.find("[role=alert]").text()).toBe(
      "You may not make assets here. Ask who manages the site for the right.",
    );
  });
});

describe("the page of a place", () => {
  it("is made by itself: directions, points, limits with their source", async () => {
    await begin(
      { "GET alerts?state=all&limit=20&place=pump": [] },
      [place("site", "site", null), place("pump", "asset", "site")],
      [point("p1", "axial", 6.4, "warning", 60), point("p2", "horizontal", 3.4, "normal", 12)],
    );
    const page = await mountIn(PlacePage, { id: "pump" });
    expect(page.find("h1").text()).toBe("pump");
    expect(page.text()).toContain("this direction decides");
    expect(page.text()).toContain("ISO 10816-7 2009");
    expect(page.text()).toContain("The published document is authoritative.");
  });

  it("says that there is no such place, or that one may not see it", async () => {
    await begin({ "GET alerts?state=all&limit=20&place=nowhere": [] }, [place("site", "site", null)]);
    expect((await mountIn(PlacePage, { id: "nowhere" })).text()).toContain(
      "There is no such place, or you may not see it",
    );
  });
});
