import type { Outlet, Poll } from "@/api/types";
import { usePlaces } from "@/places/places";
import { button, mountIn, problem, serviceStandIn, type Call } from "@/testing";
import { flushPromises } from "@vue/test-utils";
import { createPinia, setActivePinia } from "pinia";
import { afterEach, describe, expect, it, vi } from "vitest";
import { requestOf, startOf } from "./outletForms";
import AskedPanel from "@/dashboards/panels/asked/AskedPanel.vue";
import OutletForm from "./OutletForm.vue";
import OutletList from "./OutletList.vue";
import PollSheet from "@/inlets/PollSheet.vue";

const SITE = { id: "s", kind: "site", name: "Farm", parentId: null, right: "edit" };
const OUTLET: Outlet = {
  id: "o",
  name: "Office",
  siteId: "s",
  siteName: "Farm",
  state: "down",
  reason: "office.example answers 503. It is tried again.",
  address: "office.example:8883, farm/{point}",
  destination: { kind: "mqtt", url: "mqtts://office.example", topic: "farm/{point}", username: "farm", retained: true },
  placeIds: ["s"],
  quantities: ["temperature"],
  readings: true,
  alerts: false,
  form: "senml",
  waiting: 12,
  oldestAt: new Date().toISOString(),
  passed: 3,
  dropped: 0,
  refused: 0,
  passedAt: null,
  secretNames: ["password"],
  lifeSignMinutes: null,
};
const POLL: Poll = {
  deviceId: "d",
  deviceName: "Barn unit",
  address: "2101",
  group: null,
  everySeconds: 10,
  paused: false,
  at: new Date().toISOString(),
  tookMillis: 6,
  rounds: 4,
  late: 0,
  problem: "",
  values: "fan=40",
  rows: [
    { channel: "fan", where: "analog-output:1", raw: "40.0", value: 40, settable: true },
    { channel: "air", where: "analog-input:1", raw: "", value: null, settable: false },
  ],
};
let calls: Call[];

async function begin(answers: Record<string, unknown>) {
  setActivePinia(createPinia());
  calls = serviceStandIn({ "GET places": [SITE], "GET limits": [], "GET points": [], ...answers });
  await usePlaces().load();
}
const bodyOf = (method: string, path: string) =>
  calls.find((call) => call.method === method && call.path === path)?.body;

afterEach(() => {
  document.body.innerHTML = "";
  vi.unstubAllGlobals();
});

describe("an outlet's form", () => {
  it("begins with the outlet as it is, and leaves its secrets alone", () => {
    const request = requestOf(startOf(OUTLET), "s");
    expect(request.destination).toEqual(OUTLET.destination);
    expect([request.form, request.quantities, request.secrets]).toEqual(["senml", ["temperature"], null]);
  });

  it("gives a secret the name that goes with the destination", () => {
    const draft = { ...startOf(), secret: "hush" };
    expect(requestOf(draft, "s").secrets).toEqual({ "signing-key": "hush" });
    expect(requestOf({ ...draft, kind: "mqtt" as const }, "s").secrets).toEqual({ password: "hush" });
    expect(requestOf({ ...draft, kind: "own-broker" as const }, "s").secrets).toBeNull();
  });

  it("says what the service refuses", async () => {
    await begin({ "POST outlets": problem(409, "There is an outlet called 'Office' already.") });
    const form = await mountIn(OutletForm);
    await form.find("#outlet-name").setValue("Office");
    await button(form, "Make it").trigger("click");
    await flushPromises();
    expect(form.text()).toContain("There is an outlet called");
  });
});

describe("outlets", () => {
  it("tell what waits and why, and are tried with the real answer shown", async () => {
    await begin({
      "GET outlets": [OUTLET],
      "POST outlets/o/try": { answer: "The broker took it as farm/trial." },
      "POST outlets/o/pause": {},
    });
    const list = await mountIn(OutletList);
    await flushPromises();
    expect(list.text()).toContain(OUTLET.address);
    expect(list.text()).toContain("answers 503");
    expect(list.text()).toContain("12");
    await button(list, "Try now").trigger("click");
    await flushPromises();
    expect(list.text()).toContain("The broker took it as farm/trial.");
    await button(list, "Pause").trigger("click");
    expect(calls.some((call) => call.path === "outlets/o/pause")).toBe(true);
  });

  it("have an empty state that says what they are for", async () => {
    await begin({ "GET outlets": [] });
    const list = await mountIn(OutletList);
    await flushPromises();
    expect(list.text()).toContain("No outlets yet");
  });
});

describe("a panel of devices that are asked", () => {
  const DEVICE = {
    id: "d",
    inletId: "i",
    placeId: "s",
    assignments: [{ channel: "fan", pointId: "p" }],
  };

  it("shows those that feed its points, and lets whoever may operate them change how often", async () => {
    await begin({
      "GET devices": [DEVICE, { ...DEVICE, id: "other", assignments: [] }],
      "GET inlets": [{ id: "i", kind: "modbus-tcp" }],
      "GET inlets/i/polls": [POLL, { ...POLL, deviceId: "other", deviceName: "Somebody else" }],
      "PUT devices/d/polling": {},
    });
    const panel = await mountIn(AskedPanel, { panel: {}, limits: new Map(), points: [{ id: "p" }], open: false });
    await flushPromises();
    await flushPromises();
    expect(panel.text()).toContain("Barn unit");
    expect(panel.text()).not.toContain("Somebody else");
    await button(panel, "Stop asking").trigger("click");
    await flushPromises();
    expect(bodyOf("PUT", "devices/d/polling")).toEqual({ paused: true, everySeconds: 10 });
  });

  it("says when nothing that is asked feeds its points", async () => {
    await begin({ "GET devices": [DEVICE], "GET inlets": [{ id: "i", kind: "modbus-tcp" }] });
    const panel = await mountIn(AskedPanel, { panel: {}, limits: new Map(), points: [{ id: "q" }], open: false });
    await flushPromises();
    expect(panel.text()).toContain("No device that is asked feeds these points.");
  });
});

describe("a device that is asked", () => {
  it("shows each channel as it was read, and has those set that can be", async () => {
    await begin({
      "GET inlets/i/polls": [POLL, { ...POLL, group: 60, everySeconds: 60, rows: [] }],
      "PUT devices/d/channels/fan": {},
    });
    const sheet = await mountIn(PollSheet, { inletId: "i", mayOperate: true, canLetGo: true });
    await flushPromises();
    expect(sheet.text()).toContain("60 s");
    await button(sheet, "Channels").trigger("click");
    expect(sheet.text()).toContain("analog-output:1");
    expect(sheet.text()).toContain("not read");
    await sheet.find("input[aria-label='New value of fan']").setValue("75");
    await sheet.find("input[aria-label='New value of fan']").trigger("change");
    await button(sheet, "Set").trigger("click");
    await flushPromises();
    expect(bodyOf("PUT", "devices/d/channels/fan")).toEqual({ value: 75 });
    await button(sheet, "Release (back to automatic control)").trigger("click");
    await flushPromises();
    expect(calls.filter((call) => call.path === "devices/d/channels/fan").at(-1)?.body).toEqual({ value: null });
  });
});
