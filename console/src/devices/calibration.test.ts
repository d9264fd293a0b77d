import type { Calibration, Device, Point } from "@/api/types";
import { onLive } from "@/api/live";
import { usePoints } from "@/points/points";
import { button, mountIn, serviceStandIn, type Call } from "@/testing";
import { flushPromises } from "@vue/test-utils";
import { createPinia, setActivePinia } from "pinia";
import { afterEach, describe, expect, it, vi } from "vitest";
import AssignForm from "./AssignForm.vue";
import CalibrateForm from "./CalibrateForm.vue";
import { calibrationOf, draftOf, hasSettled, rawOf } from "./calibration";

vi.mock("@/api/live", async (original) => ({
  ...(await original<typeof import("@/api/live")>()),
  onLive: vi.fn(),
  onChanged: vi.fn(),
}));

const CALIBRATIONS: Calibration[] = [
  { kind: "linear", scale: 2, offset: -1 },
  { kind: "two-point", raw1: 3120, value1: 0, raw2: 1410, value2: 100 },
  { kind: "table", raw: [0, 1.5, 3], values: [0, 820, 2400] },
  { kind: "current-loop", low: 0, high: 8, faultBelow: 3.8, faultAbove: null },
  { kind: "clamp", low: 0, high: 100 },
  { kind: "invert", low: 0, high: 1 },
  { kind: "steps", steps: [{ kind: "linear", scale: 2, offset: 0 }] },
];

describe("a calibration in a form", () => {
  it.each(CALIBRATIONS)("comes back as it was: %j", (calibration) => {
    expect(calibrationOf(draftOf(calibration))).toEqual(calibration);
  });

  it("is the model's where there is none", () => {
    expect(calibrationOf(draftOf(null))).toBeNull();
  });
});

describe("raw numbers", () => {
  it("are read from the values of a frame", () => {
    expect(rawOf("air=21.5 wet=3120", "wet")).toBe(3120);
    expect(rawOf("air=21.5 wet=3120", "et")).toBeUndefined();
    expect(rawOf("air=on", "air")).toBeUndefined();
  });

  it.each([
    [[], false],
    [[3120, 3120], false],
    [[3120, 3120, 3120], true],
    [[3120, 2000, 1500, 1450, 1412, 1410], false],
    [[3120, 2000, 1500, 1412, 1411, 1410], true],
    [[0, 0, 0], true],
  ])("have settled or not: %j", (raws, settled) => expect(hasSettled(raws)).toBe(settled));
});

const DEVICE = {
  id: "d",
  name: "Probe",
  assignments: [{ id: "a", channel: "wet", pointId: "p", pointName: "Soil", calibration: CALIBRATIONS[1] }],
} as unknown as Device;

let calls: Call[];
async function farm() {
  setActivePinia(createPinia());
  calls = serviceStandIn({
    "GET places": [{ id: "f", name: "Farm", right: "edit", parentId: null, kind: "site" }],
    "GET limits": [],
    "GET points": [{ id: "p", name: "Soil", unit: "%", placeId: "f", path: ["Farm"] } as unknown as Point],
    "GET frames?device=d&limit=20": [],
    "POST devices/d/assignments": DEVICE,
  });
  await usePoints().load();
}
afterEach(() => {
  document.body.innerHTML = "";
  vi.unstubAllGlobals();
});

describe("the assignment of a channel", () => {
  it("keeps its calibration when it is saved unchanged", async () => {
    await farm();
    const form = await mountIn(AssignForm, { device: DEVICE, channel: "wet" });
    await button(form, "Save").trigger("click");
    await flushPromises();
    expect(calls.find((call) => call.method === "POST")?.body).toMatchObject({ calibration: CALIBRATIONS[1] });
  });
});

describe("a calibration in two known conditions", () => {
  it("takes a raw number in each and holds from now on", async () => {
    await farm();
    const form = await mountIn(CalibrateForm, { device: DEVICE, channel: "wet", title: "Soil" });
    const heard = vi
      .mocked(onLive)
      .mock.calls.filter(([name]) => name === "frame")
      .at(-1)?.[1] as (frame: unknown) => void;
    const frame = (raw: number) =>
      heard({ deviceId: "d", accepted: true, time: "2026-03-01T08:00:00Z", values: `air=20 wet=${raw}` });
    expect(button(form, "Calibrate from now on").attributes("disabled")).toBeDefined();
    frame(3120);
    await flushPromises();
    expect(form.text()).toContain("not settled yet");
    frame(3121);
    frame(3120);
    await flushPromises();
    expect(form.text()).toContain("settled");
    expect(form.text()).not.toContain("not settled yet");
    await button(form, "Take this raw number").trigger("click");
    frame(1410);
    await flushPromises();
    await button(form, "Take this raw number").trigger("click");
    const values = form.findAllComponents({ name: "ElInputNumber" });
    values[0]?.vm.$emit("update:modelValue", 0);
    values[1]?.vm.$emit("update:modelValue", 100);
    frame(2265);
    await flushPromises();
    expect(form.text()).toContain("then reads as 50 %");
    await button(form, "Calibrate from now on").trigger("click");
    await flushPromises();
    const made = calls.find((call) => call.method === "POST")?.body as { from: string; calibration: unknown };
    expect(made.calibration).toEqual({ kind: "two-point", raw1: 3120, value1: 0, raw2: 1410, value2: 100 });
    expect(made.from).toMatch(/^20/);
  });
});
