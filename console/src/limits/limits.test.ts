import type { LimitSet } from "@/api/types";
import { usePlaces } from "@/places/places";
import { button, mountIn, serviceStandIn, type Call } from "@/testing";
import { flushPromises } from "@vue/test-utils";
import { createPinia, setActivePinia } from "pinia";
import { afterEach, describe, expect, it, vi } from "vitest";
import LimitForm from "./LimitForm.vue";
import { shares } from "./trial";

const SET = {
  id: "own",
  title: "Own pump",
  quantity: "vibration-velocity",
  unit: "mm/s",
  zones: [
    { label: "A", severity: "normal", from: null, to: 3.2 },
    { label: "D", severity: "critical", from: 3.2, to: null },
  ],
} as unknown as LimitSet;
const TRIAL = {
  since: "",
  until: "",
  points: [
    {
      pointId: "p",
      number: 4,
      name: "Axial",
      path: ["Creamery", "Pump"],
      zoneNow: "A",
      zoneThen: "D",
      severityThen: "critical",
      secondsInZone: { A: 990, D: 10 },
      crossings: 2,
    },
  ],
  rules: [{ ruleId: "r", name: "Pump shakes", times: 1, timesThen: 4 }],
};

afterEach(() => {
  document.body.innerHTML = "";
  vi.unstubAllGlobals();
});

describe("a limit set that is tried", () => {
  async function form(used: number): Promise<{ calls: Call[]; view: Awaited<ReturnType<typeof mountIn>> }> {
    setActivePinia(createPinia());
    const calls = serviceStandIn({ "POST limits/trial": TRIAL, "GET limits/own": SET });
    usePlaces().places = [
      { id: "site", kind: "site", name: "Creamery", right: "edit", parentId: null },
    ] as unknown as ReturnType<typeof usePlaces>["places"];
    const view = await mountIn(LimitForm, { set: SET, used });
    return { calls, view };
  }

  it("says how points and rules would stand, before anything is saved", async () => {
    const { calls, view } = await form(1);
    await view.find("input[aria-label='Boundary to D']").setValue("2.5");
    await view.find("input[aria-label='Boundary to D']").trigger("change");
    await button(view, "Test on the last 30 days").trigger("click");
    await flushPromises();
    const call = calls.find((one) => one.path === "limits/trial");
    expect(call?.body).toMatchObject({
      placeId: null,
      days: 30,
      limitSet: { id: "own", zones: [{ to: 2.5 }, { from: 2.5 }] },
    });
    expect(view.text()).toContain("A 99 %, D 1 %");
    expect(view.text()).toContain("1 alert with the limits as they are, 4 with this set");
    expect(calls.some((one) => one.method === "PUT")).toBe(false);
  });

  it("is tried at a place where it holds for nothing yet", async () => {
    const { calls, view } = await form(0);
    await button(view, "Test on the last 30 days").trigger("click");
    await flushPromises();
    expect(calls.find((one) => one.path === "limits/trial")?.body).toMatchObject({ placeId: "site" });
  });
});

describe("shares of the time", () => {
  it("are told in percent, and a short time is not nothing", () => {
    expect(shares({ A: 99_999, D: 1 })).toBe("A 100 %, D below 1 %");
    expect(shares({})).toBe("no readings");
  });
});
