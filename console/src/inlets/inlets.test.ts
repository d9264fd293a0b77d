import type { Inlet, Place, Stranger } from "@/api/types";
import { usePlaces } from "@/places/places";
import { button, mountIn, problem, serviceStandIn, type Call } from "@/testing";
import { flushPromises } from "@vue/test-utils";
import { createPinia, setActivePinia } from "pinia";
import { afterEach, describe, expect, it, vi } from "vitest";
import AdmitForm from "./AdmitForm.vue";
import { fill, requestOf, sourceOf, startOf } from "./inletForms";
import InletForm from "./InletForm.vue";
import InletList from "./InletList.vue";
import InletPage from "./InletPage.vue";

const SITE = { id: "s", kind: "site", name: "Farm", parentId: null, right: "manage" } as unknown as Place;
const INLET: Inlet = {
  id: "i",
  name: "Weather bridge",
  kind: "tcp",
  siteId: "s",
  siteName: "Farm",
  address: "TCP port 4001",
  state: "up",
  reason: "1 sender is connected.",
  received: 7,
  refused: 1,
  lost: 2,
  thinned: 0,
  replaced: 0,
  lastAt: new Date().toISOString(),
  devices: 1,
  strangers: 1,
  refusals: [{ time: new Date().toISOString(), sender: "192.0.2.7:5000", reason: "it is no JSON" }],
  settings: {
    source: { kind: "tcp", port: 4001 },
    framing: { kind: "lines", end: null },
    contents: {
      form: "text",
      address: "column:0",
      separator: ";",
      each: null,
      payload: null,
      encoding: null,
      time: null,
      signal: null,
    },
    keepEverySeconds: null,
  },
};
const STRANGER: Stranger = {
  address: "WS4",
  firstHeard: new Date().toISOString(),
  lastHeard: new Date().toISOString(),
  count: 3,
  newest: "WS4;8.4;1013",
  proposal: {
    layout: { format: "line", separator: ";", messages: [] },
    channels: [
      { name: "value_1", title: "Value 1", quantity: "other", unit: "" },
      { name: "value_2", title: "Value 2", quantity: "other", unit: "" },
    ],
    example: "value_1=8.4 value_2=1013",
  },
};
let calls: Call[];

async function begin(answers: Record<string, unknown>) {
  setActivePinia(createPinia());
  calls = serviceStandIn({ "GET places": [SITE], "GET limits": [], "GET points": [], "GET models": [], ...answers });
  await usePlaces().load();
}

afterEach(() => {
  document.body.innerHTML = "";
  vi.unstubAllGlobals();
});

describe("an inlet's form", () => {
  it("asks for what it was filled with, and for nothing where nothing is", () => {
    const draft = startOf();
    draft.name = "Loft relay";
    draft.kind = "http-inbox";
    fill(draft, "beacons");
    expect(requestOf(draft, "s")).toEqual({
      name: "Loft relay",
      siteId: "s",
      source: { kind: "http-inbox" },
      framing: { kind: "whole" },
      contents: {
        form: "json",
        address: "json:$.mac",
        separator: null,
        each: "$.heard[*]",
        payload: "json:$.data",
        encoding: "hex",
        time: null,
        signal: "json:$.rssi",
      },
      keepEverySeconds: null,
    });
  });

  it("begins with the inlet as it is", () => {
    const draft = startOf(INLET);
    expect(draft.framing).toBe('{"kind":"lines"}');
    expect(sourceOf(draft)).toEqual({ kind: "tcp", port: 4001 });
    const hubs = startOf({
      ...INLET,
      settings: { ...INLET.settings!, source: { kind: "http-inbox", tellsSensors: true } },
    });
    expect(sourceOf(hubs)).toEqual({ kind: "http-inbox", tellsSensors: true });
    const here = startOf({
      ...INLET,
      settings: {
        ...INLET.settings!,
        source: { kind: "bacnet-ip", port: 0, bind: "127.0.0.1", lookAt: ["192.0.2.7"] },
      },
    });
    expect(sourceOf(here)).toMatchObject({ port: 0, bind: "127.0.0.1", lookAt: ["192.0.2.7"] });
    expect(requestOf(draft, "s").contents?.address).toBe("column:0");
  });

  it("says that a framing is no JSON", () => {
    const draft = startOf(INLET);
    draft.framing = "lines";
    expect(() => requestOf(draft, "s")).toThrow("The framing is no JSON");
  });

  it("shows the address of an inbox once", async () => {
    await begin({ "POST inlets": { inlet: { ...INLET, kind: "http-inbox" }, token: "secret" } });
    const form = await mountIn(InletForm);
    await form.find("#inlet-name").setValue("Loft relay");
    await button(form, "Make it").trigger("click");
    await flushPromises();
    expect((form.find("#shown-once").element as HTMLInputElement).value).toContain("/in/secret");
  });

  it("says what the service refuses", async () => {
    await begin({ "POST inlets": problem(409, "There is an inlet called 'Weather bridge' already.") });
    const form = await mountIn(InletForm);
    await form.find("#inlet-name").setValue("Weather bridge");
    await button(form, "Make it").trigger("click");
    await flushPromises();
    expect(form.text()).toContain("There is an inlet called");
  });
});

describe("inlets", () => {
  it("are listed with what waits to be admitted, without the ports of gateways", async () => {
    await begin({ "GET inlets": [{ ...INLET, id: null, name: "Port of masts" }, INLET] });
    const list = await mountIn(InletList);
    await flushPromises();
    expect(list.text()).toContain("Weather bridge");
    expect(list.text()).toContain("1 to admit");
    expect(list.text()).not.toContain("Port of masts");
  });

  it("have an empty state that says what to do first", async () => {
    await begin({ "GET inlets": [] });
    const list = await mountIn(InletList);
    await flushPromises();
    expect(list.text()).toContain("No inlets yet");
  });

  it("are paused, and tell what was tried", async () => {
    await begin({
      "GET inlets/i": INLET,
      "GET inlets/i/strangers": [STRANGER],
      "GET devices": [],
      "GET frames?inlet=i&limit=20": [],
      "POST inlets/i/pause": {},
      "POST inlets/i/try": {
        message: "WS4;8.4",
        parts: [
          {
            address: "WS4",
            deviceId: null,
            deviceName: null,
            payload: "WS4;8.4",
            values: "",
            problem: "No device.",
            proposal: null,
          },
        ],
      },
    });
    const page = await mountIn(InletPage, { id: "i" });
    await flushPromises();
    expect(page.text()).toContain("WS4;8.4;1013");
    expect(page.text()).toContain("1 refused, 2 that made no frame");
    await button(page, "Pause").trigger("click");
    await button(page, "Try it").trigger("click");
    await flushPromises();
    expect(calls.map((call) => `${call.method} ${call.path}`)).toContain("POST inlets/i/pause");
    expect(page.text()).toContain("No device.");
  });
});

describe("admitting a device", () => {
  it("makes a model from the numbers that are wanted", async () => {
    await begin({ "POST models": { id: "m" }, "POST devices": { id: "d" } });
    const form = await mountIn(AdmitForm, { inletId: "i", siteId: "s", address: "WS4", proposal: STRANGER.proposal });
    await flushPromises();
    await form.findComponent({ name: "ElRadioGroup" }).vm.$emit("update:modelValue", true);
    await flushPromises();
    await form.find("#admit-model-name").setValue("Mast");
    await form.findAll("input[type=checkbox]")[1]?.setValue(false);
    await button(form, "Register").trigger("click");
    await flushPromises();
    const made = calls.find((call) => call.method === "POST" && call.path === "models")?.body as {
      channels: unknown[];
      layout: unknown;
    };
    expect(made.channels).toEqual([{ name: "value_1", title: "Value 1", quantity: "other", unit: "" }]);
    expect(made.layout).toEqual(STRANGER.proposal?.layout);
    expect(calls.find((call) => call.method === "POST" && call.path === "devices")?.body).toMatchObject({
      inletId: "i",
      address: "WS4",
      modelId: "m",
    });
  });
});
