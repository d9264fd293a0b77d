import type { Device, Frame, Gateway, Place } from "@/api/types";
import { usePlaces } from "@/places/places";
import { button, mountIn, problem, serviceStandIn, type Call } from "@/testing";
import { flushPromises } from "@vue/test-utils";
import { createPinia, setActivePinia } from "pinia";
import { afterEach, describe, expect, it, vi } from "vitest";
import DeviceForm from "./DeviceForm.vue";
import DeviceList from "./DeviceList.vue";
import FrameCard from "@/frames/FrameCard.vue";
import GatewayList from "@/gateways/GatewayList.vue";
import ModelList from "@/models/ModelList.vue";

const SITE = { id: "s", kind: "site", name: "Creamery", parentId: null, right: "manage" } as unknown as Place;
const PUMP = { id: "pump", kind: "asset", name: "Whey pump", parentId: "s", right: "edit" } as unknown as Place;
const MODEL = { id: "m", name: "Sender", description: "", intervalSeconds: 10, channels: [], layout: { messages: [] } };
let calls: Call[];

async function begin(answers: Record<string, unknown>) {
  setActivePinia(createPinia());
  calls = serviceStandIn({
    "GET places": [SITE, PUMP],
    "GET limits": [],
    "GET points": [],
    "GET models": [MODEL],
    ...answers,
  });
  await usePlaces().load();
}

afterEach(() => {
  document.body.innerHTML = "";
  vi.unstubAllGlobals();
});

describe("bringing a device in", () => {
  async function filled(answers: Record<string, unknown>) {
    await begin(answers);
    const form = await mountIn(DeviceForm);
    await flushPromises();
    await form.find("#device-name").setValue("Pump sender");
    await form.findComponent({ name: "ElSelect" }).vm.$emit("update:modelValue", "m");
    return form;
  }

  it("says at once what is wrong with an EUI, and cannot be saved so", async () => {
    const form = await filled({});
    await form.find("#device-eui").setValue("02ab54");
    await form.find("#device-key").setValue("6b1f0c5e9a7d43218ecb5a90f37d2e64");
    await vi.waitFor(() => expect(form.text()).toContain("16 digits are needed, these are 6"));
    expect(button(form, "Bring it in").attributes("disabled")).toBeDefined();
  });

  it("sends clean digits however they stand on the label", async () => {
    const form = await filled({ "POST devices": { id: "d" } });
    await form.find("#device-eui").setValue("02:ab:54:00:00:00:01:01");
    await form.find("#device-key").setValue("6b1f0c5e 9a7d4321 8ecb5a90 f37d2e64");
    await button(form, "Bring it in").trigger("click");
    await flushPromises();
    expect(calls.find((call) => call.method === "POST")?.body).toMatchObject({
      name: "Pump sender",
      modelId: "m",
      placeId: "pump",
      devEui: "02ab540000000101",
      appKey: "6b1f0c5e9a7d43218ecb5a90f37d2e64",
      joinEui: null,
      makePoints: true,
    });
    expect(form.emitted("close")).toHaveLength(1);
  });

  it("keeps what was entered when the service refuses", async () => {
    const form = await filled({
      "POST devices": problem(409, "A device with the EUI is here already.", "Look at that one."),
    });
    await form.find("#device-eui").setValue("02ab540000000101");
    await form.find("#device-key").setValue("6b1f0c5e9a7d43218ecb5a90f37d2e64");
    await button(form, "Bring it in").trigger("click");
    await flushPromises();
    expect(form.find("[role=alert]").text()).toContain("is here already");
    expect((form.find("#device-eui").element as HTMLInputElement).value).toBe("02ab540000000101");
  });
});

describe("gateways", () => {
  const gateway = (part: Partial<Gateway>) =>
    ({
      id: "g",
      name: "Mast",
      eui: "02ab54fffe10a001",
      siteName: "Creamery",
      state: "online",
      canTransmit: true,
      frames: 7,
      devices: ["Pump sender"],
      rssiDbm: -80,
      snrDb: 8,
      lastHeard: null,
      ...part,
    }) as Gateway;
  const INLET = {
    id: null,
    name: "LoRaWAN gateways",
    address: "UDP 0.0.0.0:1700",
    state: "up",
    reason: "Gateways can reach it.",
    received: 9,
    refused: 1,
    refusals: [],
  };

  it("an unknown one is admitted with a name", async () => {
    await begin({
      "GET gateways": [],
      "GET gateways/heard": [{ eui: "02ab54fffe10a0ff", frames: 1, lastHeard: new Date().toISOString() }],
      "GET inlets": [INLET],
      "POST gateways": {},
    });
    const list = await mountIn(GatewayList);
    await flushPromises();
    expect(list.text()).toContain("Unregistered gateways");
    expect(list.text()).toContain("1 frame,");
    expect(list.text()).toContain("UDP 0.0.0.0:1700");
    await button(list, "Register").trigger("click");
    await list.find("#gateway-name").setValue("Barn");
    await list
      .findAll("button")
      .filter((one) => one.text() === "Register")
      .at(-1)
      ?.trigger("click");
    await flushPromises();
    expect(calls.find((call) => call.method === "POST")?.body).toEqual({
      name: "Barn",
      eui: "02ab54fffe10a0ff",
      siteId: "s",
      point: true,
    });
  });

  it("one that cannot answer devices is told from one that can", async () => {
    await begin({
      "GET gateways": [gateway({}), gateway({ id: "h", name: "Deaf", canTransmit: false })],
      "GET gateways/heard": [],
      "GET inlets": [INLET],
    });
    const list = await mountIn(GatewayList);
    await flushPromises();
    expect(list.text().match(/cannot answer devices/g)).toHaveLength(1);
    expect(list.text()).toContain("-80 dBm, SNR 8 dB");
  });
});

describe("devices", () => {
  it("show why the newest frame was refused", async () => {
    const device = {
      id: "d",
      name: "Spare",
      path: ["Creamery", "Cellars"],
      modelName: "Sender",
      state: "never-heard",
      problem: "the application key is wrong",
      lastHeard: null,
      rssiDbm: null,
      batteryVolts: null,
      lost: 0,
    } as unknown as Device;
    await begin({ "GET devices": [device] });
    const list = await mountIn(DeviceList);
    await flushPromises();
    expect(list.text()).toContain("never heard");
    expect(list.text()).toContain("the application key is wrong");
  });

  it("have an empty state that says what to do first", async () => {
    await begin({ "GET devices": [] });
    const list = await mountIn(DeviceList);
    await flushPromises();
    expect(list.text()).toContain("Register a gateway first");
  });
});

describe("a frame", () => {
  const FRAME: Frame = {
    id: 1,
    time: new Date().toISOString(),
    sentAt: null,
    kind: "uplink",
    deviceId: null,
    deviceName: null,
    inletId: null,
    inletName: null,
    text: null,
    address: "01cc0909",
    bytes: "40f17d",
    payload: "5753323b",
    port: 2,
    counter: 5,
    accepted: false,
    outcome: "refused",
    cause: "unknown-device",
    reason: "no device has the address",
    values: "",
    heard: [
      {
        gatewayEui: "02ab54fffe10a001",
        gatewayName: "Mast",
        rssiDbm: -80,
        snrDb: 8,
        dataRate: "SF7BW125",
        frequencyMhz: 868.1,
      },
    ],
  };

  it("says that it was refused and why, and shows its bytes as hex and text", async () => {
    setActivePinia(createPinia());
    const card = await mountIn(FrameCard, { frame: FRAME });
    expect(card.text()).toContain("refused");
    expect(card.text()).toContain("no device has the address");
    expect(card.text()).not.toContain("40f17d");
    await button(card, "bytes").trigger("click");
    expect(card.text()).toContain("40f17d");
    expect(card.text()).toContain("WS2;");
    expect(card.text()).toContain("868.1 MHz");
  });
});

describe("a device model", () => {
  it("that is no JSON is not sent, and what was written stays", async () => {
    await begin({});
    const list = await mountIn(ModelList);
    await flushPromises();
    await button(list, "Add a model").trigger("click");
    await list.find("textarea").setValue("{ nonsense");
    await button(list, "Save").trigger("click");
    await flushPromises();
    expect(list.find("[role=alert]").text()).toContain("This is no JSON");
    expect(calls.some((call) => call.method === "POST")).toBe(false);
    expect((list.find("textarea").element as HTMLTextAreaElement).value).toBe("{ nonsense");
  });

  it("begins with an example that can be saved as it is", async () => {
    await begin({ "POST models": MODEL });
    const list = await mountIn(ModelList);
    await flushPromises();
    await button(list, "Add a model").trigger("click");
    await button(list, "Save").trigger("click");
    await flushPromises();
    expect(calls.find((call) => call.method === "POST")?.body).toMatchObject({
      intervalSeconds: 600,
      channels: [{ name: "temperature" }, { name: "humidity" }],
    });
  });
});
