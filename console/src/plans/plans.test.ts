import type { Plan } from "@/api/types";
import { usePlaces } from "@/places/places";
import { usePoints } from "@/points/points";
import { mountIn, serviceStandIn } from "@/testing";
import { flushPromises } from "@vue/test-utils";
import { createPinia, setActivePinia } from "pinia";
import { beforeEach, describe, expect, it } from "vitest";
import PlanEditor from "./PlanEditor.vue";
import PlanPicture from "./PlanPicture.vue";
import { moved } from "./plans";

const PLAN: Plan = {
  placeId: "hall",
  name: "Whey room",
  picture: "abc",
  width: 800,
  height: 400,
  marks: [
    { kind: "point", id: "p", name: "Air", x: 0.25, y: 0.5, severity: null },
    { kind: "place", id: "pump", name: "Whey pump", x: 0.75, y: 0.5, severity: "warning" },
  ],
};

it("keeps a mark within the picture", () => {
  expect(moved({ x: 0.99, y: 0.01 }, 0.05, -0.05)).toEqual({ x: 1, y: 0 });
  expect(moved({ x: 0.1, y: 0.2 }, 0.01, 0.01)).toEqual({ x: 0.11, y: 0.21 });
});

describe("a picture with marks", () => {
  beforeEach(() => {
    setActivePinia(createPinia());
  });

  const point = { id: "p", name: "Air", unit: "°C", decimals: 1, words: {}, latest: { value: 12.34, severity: null } };

  it("shows values where they are measured, and how places are", async () => {
    const points = new Map([["p", point]]) as never;
    const view = await mountIn(PlanPicture, { plan: PLAN, source: "/x", points });
    const marks = view.findAll(".mark");
    expect(marks.map((mark) => mark.attributes("style"))).toEqual(["left: 25%; top: 50%;", "left: 75%; top: 50%;"]);
    expect(marks[0]?.text()).toContain("12.3 °C");
    expect(marks[1]?.text()).toContain("warning");
    expect(marks[1]?.attributes("href")).toBe("/places/pump");
  });

  it("leads nowhere without an account", async () => {
    const view = await mountIn(PlanPicture, { plan: PLAN, source: "/x", points: new Map(), open: true });
    expect(view.findAll("a")).toHaveLength(0);
  });

  it("is marked by keys alone", async () => {
    const calls = serviceStandIn({
      "GET places": [],
      "GET points": [],
      "GET limits": [],
      "PUT places/hall/plan": PLAN,
    });
    usePlaces();
    usePoints();
    const view = await mountIn(PlanEditor, { plan: PLAN, source: "/x" });
    const [air, pump] = view.findAll("button.mark");
    await air?.trigger("keydown", { key: "ArrowRight" });
    await air?.trigger("keydown", { key: "ArrowUp", shiftKey: true });
    await pump?.trigger("keydown", { key: "Delete" });
    await view
      .findAll("button")
      .find((button) => button.text() === "Save")
      ?.trigger("click");
    await flushPromises();
    expect(calls.filter((call) => call.method === "PUT").map((call) => call.body)).toEqual([
      { marks: [{ kind: "point", id: "p", x: 0.26, y: 0.45 }] },
    ]);
  });
});
