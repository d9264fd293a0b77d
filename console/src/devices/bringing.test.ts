import type { Command, Commissioning, Device, DeviceModel, Place, Point, Workbench } from "@/api/types";
import { usePlaces } from "@/places/places";
import { usePoints } from "@/points/points";
import { button, mountIn, problem, serviceStandIn, type Call } from "@/testing";
import { flushPromises } from "@vue/test-utils";
import { createPinia, setActivePinia } from "pinia";
import { afterEach, describe, expect, it, vi } from "vitest";
import CommandSheet from "./CommandSheet.vue";
import CommissioningSheet from "./CommissioningSheet.vue";
import DeviceForm from "./DeviceForm.vue";
import ManyDevicesForm from "./ManyDevicesForm.vue";
import { months, span } from "./power";
import { useSession } from "@/shell/session";
import WorkbenchRoom from "@/models/WorkbenchRoom.vue";

const PUMP = { id: "pump", kind: "asset", name: "Whey pump", parentId: null, right: "manage" } as unknown as Place;
const POINT = {
  id: "p",
  number: 4,
  name: "Axial",
  unit: "mm/s",
  decimals: 2,
  placeId: "pump",
  path: [],
  released: true,
  latest: null,
};
const DEVICE = {
  id: "d",
  name: "Pump sender",
  modelName: "Sender",
  placeId: "pump",
  batteryPercent: 50,
  assignments: [{ id: "a", channel: "axial", pointId: "p", pointName: "Axial" }],
} as unknown as Device;
const MODEL = {
  id: "m",
  name: "Sender",
  layout: { messages: [] },
  channels: [],
  power: {
    chemistry: "lithium-thionyl-chloride",
    cells: 1,
    capacityMah: 2600,
    restMicroamps: 12,
    reportMicroampHours: 20,
  },
  settings: [
    { name: "interval", title: "Report interval", unit: "s", min: 10, max: 3600, usualInterval: true },
    { name: "range", title: "Range", unit: "g", min: 1, max: 16, inConfigurationMode: true },
  ],
} as unknown as DeviceModel;
const COMMAND: Command = {
  id: 7,
  counter: null,
  deviceId: "d",
  deviceName: "Pump sender",
  wantedAt: new Date().toISOString(),
  person: "tech",
  what: "Report interval = 30 s",
  setting: "interval",
  value: 30,
  port: 10,
  payload: "01001e",
  confirmed: true,
  state: "wanted",
  tries: 0,
  changedAt: new Date().toISOString(),
  reason: "waits until the device listens",
};
let calls: Call[];

async function begin(answers: Record<string, unknown>) {
  setActivePinia(createPinia());
  calls = serviceStandIn({
    "GET places": [PUMP],
    "GET limits": [],
    "GET points": [POINT as unknown as Point],
    "GET models": [MODEL],
    ...answers,
  });
  await usePlaces().load();
  await usePoints().load();
}

afterEach(() => {
  document.body.innerHTML = "";
  vi.unstubAllGlobals();
});

describe("what an interval costs", () => {
  it("is told before it is changed, from what is left", () => {
    const power = MODEL.power!;
    expect(months(power, 100, 1200)).toBe("the 100 % that are left would last about 4 years");
    expect(months(power, null, 30)).toBe("a full battery would last about 45 days");
    expect(months({ ...power, chemistry: "mains" }, 100, 30)).toBe("");
    expect(months({ ...power, capacityMah: null }, 100, 30)).toBe("");
  });

  it("is said in days, months or years", () => {
    expect([span(0.01), span(1), span(7.4), span(40)]).toEqual([
      "about 1 days",
      "about 30 days",
      "about 7 months",
      "about 3 years",
    ]);
  });
});

describe("settings and commands", () => {
  it("shows wanted and kept values, the cost of an interval, and the warning of the configuration mode", async () => {
    await begin({
      "GET devices/d/commands": [COMMAND, { ...COMMAND, id: 6, value: 1200, state: "acknowledged" }],
      "POST devices/d/commands": COMMAND,
    });
    const sheet = await mountIn(CommandSheet, { device: DEVICE, model: MODEL });
    await flushPromises();
    expect(sheet.text()).toContain("1200 s");
    expect(sheet.text()).toMatch(/30 s\s*wanted/);
    expect(sheet.text()).toContain("which drains the battery");
    const field = sheet.findAllComponents({ name: "ElInputNumber" })[0]!;
    await field.vm.$emit("update:modelValue", 60);
    await flushPromises();
    expect(sheet.text()).toContain("the 50 % that are left would last");
    await sheet.find("form").trigger("submit");
    await flushPromises();
    expect(calls.find((call) => call.method === "POST")?.body).toEqual({ setting: "interval", value: 60 });
  });

  it("takes back what waits, and tries again what failed", async () => {
    await begin({
      "GET devices/d/commands": [
        COMMAND,
        { ...COMMAND, id: 5, state: "failed", reason: "not acknowledged after 3 tries" },
      ],
      "DELETE commands/7": undefined,
      "POST devices/d/commands": COMMAND,
    });
    const sheet = await mountIn(CommandSheet, { device: DEVICE, model: MODEL });
    await flushPromises();
    await button(sheet, "Take back").trigger("click");
    await button(sheet, "Try again").trigger("click");
    await flushPromises();
    expect(calls.some((call) => call.method === "DELETE" && call.path === "commands/7")).toBe(true);
    expect(calls.find((call) => call.method === "POST")?.body).toEqual({ setting: "interval", value: 30 });
  });
});

describe("a device on its way in", () => {
  const step = (id: string, state: string, words = "", todo = "") => ({ id, title: id, state, words, todo, at: null });
  const check = {
    id: "c",
    pointId: "p",
    pointName: "Axial",
    unit: "mm/s",
    from: new Date().toISOString(),
    until: new Date(Date.now() + 600_000).toISOString(),
    person: "tech",
    worked: null,
    note: "",
    running: true,
    before: 2,
    lowest: 2,
    highest: 9.5,
  };
  const view = (more: object): Commissioning =>
    ({
      deviceId: "d",
      done: false,
      checks: [],
      steps: [step("gateway", "done"), step("decoder", "done")],
      ...more,
    }) as Commissioning;

  it("says where it stops and what to do", async () => {
    await begin({
      "GET devices/d/commissioning": view({
        steps: [step("key", "failed", "The key is wrong.", "Compare all 32 digits.")],
      }),
    });
    const sheet = await mountIn(CommissioningSheet, { device: DEVICE });
    await flushPromises();
    expect(sheet.text()).toContain("stops here");
    expect(sheet.text()).toContain("Compare all 32 digits.");
  });

  it("watches the value while the sensor is provoked, and records what was seen", async () => {
    await begin({
      "GET devices/d/commissioning": view({}),
      "POST devices/d/checks": view({ checks: [check] }),
      "POST checks/c/result": view({ checks: [{ ...check, running: false, worked: true }] }),
    });
    const sheet = await mountIn(CommissioningSheet, { device: DEVICE });
    await flushPromises();
    await button(sheet, "Provoke and check").trigger("click");
    await flushPromises();
    expect(sheet.text()).toContain("since then from 2 mm/s to 9.5 mm/s");
    expect(sheet.text()).toMatch(/(10:0\d|9:5\d) left/);
    await button(sheet, "It answers").trigger("click");
    await flushPromises();
    expect(calls.at(-1)?.body).toEqual({ worked: true, note: "" });
    expect(sheet.text()).toContain("Checks so far");
  });
});

describe("a label's code", () => {
  it("fills the form, and needs no key where it was loaded beforehand", async () => {
    await begin({
      "POST labels/read": {
        joinEui: "02ab540000000001",
        devEui: "02ab540000000101",
        serialNumber: "S-42",
        deviceId: null,
        keyIsListed: true,
        modelId: "m",
      },
      "POST devices": { id: "d" },
    });
    const form = await mountIn(DeviceForm);
    await flushPromises();
    await form.find("#device-code").setValue("LW:D0:02AB540000000001:02AB540000000101:ABCD0001");
    await form.find("#device-code").trigger("change");
    await flushPromises();
    expect(form.text()).toContain("Its key was loaded beforehand");
    await button(form, "Bring it in").trigger("click");
    await flushPromises();
    expect(calls.find((call) => call.path === "devices")?.body).toMatchObject({
      name: "S-42",
      devEui: "02ab540000000101",
      modelId: "m",
      appKey: null,
    });
  });

  it("that was misread is said in the service's words", async () => {
    await begin({ "POST labels/read": problem(400, "the code's checksum does not fit: it was misread, or mistyped") });
    const form = await mountIn(DeviceForm);
    await form.find("#device-code").setValue("LW:D0:x");
    await form.find("#device-code").trigger("change");
    await flushPromises();
    expect(form.text()).toContain("checksum does not fit");
  });
});

describe("many devices at once", () => {
  it("can be taken only after a dry run", async () => {
    await begin({
      "POST devices/import?dryRun=true": {
        accepted: 2,
        refused: 1,
        problems: [{ line: 4, reason: "there is no place 'Moon'" }],
        dryRun: true,
      },
      "POST devices/import?dryRun=false": { accepted: 2, refused: 1, problems: [], dryRun: false },
    });
    const form = await mountIn(ManyDevicesForm);
    await form.find("textarea").setValue("name,dev eui");
    expect(button(form, "Take").attributes("disabled")).toBeDefined();
    await button(form, "Dry run").trigger("click");
    await flushPromises();
    expect(form.text()).toContain("line 4: there is no place 'Moon'");
    await button(form, "Take 2").trigger("click");
    await flushPromises();
    expect(form.text()).toContain("2 are taken");
  });
});

describe("the decoder workbench", () => {
  const RESULT: Workbench = {
    same: 0,
    different: 1,
    failed: 1,
    frames: [
      {
        frameId: 2,
        time: new Date().toISOString(),
        deviceName: "Pump sender",
        port: 2,
        payload: "00d7",
        live: "t=215",
        draft: "t=21.5",
        problem: null,
        parts: [{ channel: "t", bytes: [0, 1] }],
      },
      {
        frameId: 1,
        time: new Date().toISOString(),
        deviceName: "Pump sender",
        port: 9,
        payload: "ff",
        live: null,
        draft: null,
        problem: "the layout describes no message on port 9",
        parts: [],
      },
    ],
  };

  it("shows draft beside live, and which bytes a channel comes from", async () => {
    await begin({ "GET models/m/versions": [], "POST workbench": RESULT, "PUT models/m": { ...MODEL, version: 2 } });
    useSession().person = { id: "o", name: "owner", email: "", owner: true, grants: [] };
    const room = await mountIn(WorkbenchRoom);
    await flushPromises();
    expect(room.text()).toContain("1 otherwise");
    expect(room.findAll(".bytes .owned")).toHaveLength(2);
    expect(room.findAll("tbody td").map((cell) => cell.text())).toEqual(["t", "21.5", "215", "0, 1"]);
    await room.findAll(".frames button")[1]!.trigger("click");
    expect(room.text()).toContain("no message on port 9");
    await button(room, "Save as version 2").trigger("click");
    await flushPromises();
    expect(calls.find((call) => call.method === "PUT")?.body).toMatchObject({ id: "m", script: null });
  });

  it("tries nothing for who may not, and says who may", async () => {
    await begin({ "GET models/m/versions": [] });
    const room = await mountIn(WorkbenchRoom);
    await flushPromises();
    expect(calls.some((call) => call.path === "workbench")).toBe(false);
    expect(room.text()).toContain("tried by owners");
    expect(room.find("[role=alert]").exists()).toBe(false);
  });

  it("says what is wrong with a layout before it asks", async () => {
    await begin({ "GET models/m/versions": [], "POST workbench": RESULT });
    useSession().person = { id: "o", name: "owner", email: "", owner: true, grants: [] };
    const room = await mountIn(WorkbenchRoom);
    await flushPromises();
    await room.find("textarea").setValue("{ no json");
    await button(room, "Try").trigger("click");
    await flushPromises();
    expect(room.text()).toContain("The layout is no JSON");
  });
});
