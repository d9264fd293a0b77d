import type { LimitSet } from "@/api/types";
import LimitForm from "@/limits/LimitForm.vue";
import InviteForm from "@/people/InviteForm.vue";
import { usePlaces } from "@/places/places";
import { button, mountIn, serviceStandIn, type Call } from "@/testing";
import { flushPromises } from "@vue/test-utils";
import { createPinia, setActivePinia } from "pinia";
import { afterEach, describe, expect, it, vi } from "vitest";
import AccountSheet from "./AccountSheet.vue";
import LifeSignSheet from "./LifeSignSheet.vue";
import MailSettingsSheet from "./MailSettingsSheet.vue";
import TextSettingsSheet from "./TextSettingsSheet.vue";
import { nameOf } from "./browsers";
import NotifiedBrowsers from "./NotifiedBrowsers.vue";
import WaysSheet from "./WaysSheet.vue";

let calls: Call[];

async function begin(answers: Record<string, unknown>) {
  setActivePinia(createPinia());
  calls = serviceStandIn({
    "GET places": [{ id: "s", kind: "site", name: "Creamery", parentId: null, right: "manage" }],
    "GET limits": [],
    ...answers,
  });
  await usePlaces().load();
}

afterEach(() => {
  document.body.innerHTML = "";
  vi.unstubAllGlobals();
});

describe("one's own account", () => {
  const here = {
    id: "0123",
    purpose: "console",
    note: "",
    createdAt: "2026-03-01T08:00:00Z",
    expiresAt: "2026-03-31T08:00:00Z",
    current: true,
  };
  const laptop = { ...here, id: "4567", purpose: "client", note: "command line", current: false };

  it("changes the password, and says what follows", async () => {
    await begin({ "GET sessions": [here], "PUT session/password": undefined });
    const page = await mountIn(AccountSheet);
    await flushPromises();
    await page.get("#password-current").setValue("the old password");
    await page.get("#password-next").setValue("quite another one");
    await page.get("form").trigger("submit");
    await flushPromises();
    expect(calls.find((call) => call.method === "PUT")?.body).toEqual({
      current: "the old password",
      password: "quite another one",
    });
    expect((page.get("#password-current").element as HTMLInputElement).value).toBe("");
  });

  it("ends other sign-ins", async () => {
    await begin({ "GET sessions": [here, laptop], "DELETE sessions/4567": undefined, "DELETE sessions": undefined });
    const page = await mountIn(AccountSheet);
    await flushPromises();
    expect(page.text()).toContain("command line");
    await button(page, "End").trigger("click");
    await flushPromises();
    await button(page, "End all others").trigger("click");
    await flushPromises();
    expect(calls.filter((call) => call.method === "DELETE").map((call) => call.path)).toEqual([
      "sessions/4567",
      "sessions",
    ]);
  });
});

describe("the mail server", () => {
  const NOTICE = {
    id: "n",
    alertId: "a",
    recipient: "ann@x.example",
    subject: "|=| warning: pump",
    state: "waiting",
    attempts: 3,
    lastError: "nothing answers at mail:25",
    createdAt: "2026-03-01T08:00:00Z",
  };

  it("that is not set up says what follows from it", async () => {
    await begin({ "GET settings/mail": undefined, "GET notices": [] });
    const sheet = await mountIn(MailSettingsSheet);
    await flushPromises();
    expect(sheet.text()).toContain("no mail is sent");
    expect(button(sheet, "Send a test message").attributes("disabled")).toBeDefined();
  });

  it("is tested, and what was not delivered is seen with the reason", async () => {
    await begin({
      "GET settings/mail": { host: "mail", port: 25, from: "p@x.example", user: null, password: null, startTls: false },
      "GET notices": [NOTICE],
      "POST settings/mail/test": {
        ok: false,
        message: "Not delivered: nothing answers at mail:25; check address and port.",
      },
    });
    const sheet = await mountIn(MailSettingsSheet);
    await flushPromises();
    expect(sheet.text()).toContain("waiting: nothing answers at mail:25, tried 3 times");
    await sheet.find("input[aria-label='Address for the test message']").setValue("me@x.example");
    await sheet.find("form.test").trigger("submit");
    await flushPromises();
    expect(calls.at(-1)?.body).toEqual({ to: "me@x.example" });
    expect(sheet.find("[role=status]").text()).toContain("check address and port");
  });

  it("keeps a password that is not entered again", async () => {
    await begin({
      "GET settings/mail": {
        host: "mail",
        port: 587,
        from: "p@x.example",
        user: "pasture",
        password: null,
        startTls: true,
      },
      "GET notices": [],
      "PUT settings/mail": undefined,
    });
    const sheet = await mountIn(MailSettingsSheet);
    await flushPromises();
    await button(sheet, "Save").trigger("click");
    await flushPromises();
    expect(calls.find((call) => call.method === "PUT")?.body).toEqual({
      host: "mail",
      port: 587,
      from: "p@x.example",
      user: "pasture",
      password: null,
      startTls: true,
    });
  });
});

describe("an own limit set", () => {
  const SET = {
    id: "l",
    title: "Cellar",
    unit: "°C",
    quantity: "temperature",
    zones: [
      { label: "cold", severity: "warning", from: null, to: 10, meaning: "" },
      { label: "good", severity: "normal", from: 10, to: 14, meaning: "" },
      { label: "warm", severity: "warning", from: 14, to: null, meaning: "" },
    ],
  } as unknown as LimitSet;

  it("is adjusted by its boundaries, which neighbours share", async () => {
    await begin({ "PUT limits/l": SET });
    const form = await mountIn(LimitForm, { set: SET });
    await form.findAllComponents({ name: "ElInputNumber" })[1]?.vm.$emit("update:modelValue", 15.5);
    await button(form, "Save").trigger("click");
    await flushPromises();
    const sent = calls.find((call) => call.method === "PUT")?.body as LimitSet;
    expect(sent.zones.map((zone) => [zone.from, zone.to])).toEqual([
      [null, 10],
      [10, 15.5],
      [15.5, null],
    ]);
  });
});

describe("an invitation", () => {
  it("shows its link once", async () => {
    await begin({ "POST invitations": { id: "i", name: "ann", email: "", link: "http://pasture/welcome#token" } });
    const form = await mountIn(InviteForm);
    await form.find("#invite-name").setValue("ann");
    await button(form, "Invite").trigger("click");
    await flushPromises();
    expect(calls.at(-1)?.body).toEqual({ name: "ann", email: null, right: "look", targetId: "s" });
    expect((form.find("#shown-once").element as HTMLInputElement).value).toBe("http://pasture/welcome#token");
  });
});

describe("how one is notified", () => {
  it("keeps what was chosen and sends a test by each way", async () => {
    await begin({
      "GET session/notices": {
        email: "",
        mailFrom: "warning",
        phone: "+447700900123",
        textFrom: "critical",
        browserFrom: null,
        digestAt: "07:00:00",
        quietFrom: "22:00:00",
        quietUntil: "06:00:00",
        awayFrom: null,
        awayUntil: null,
      },
      "PUT session/notices": {},
      "POST session/notices/test": [{ ok: false, message: "+447700900123: not delivered: no credit." }],
    });
    const sheet = await mountIn(WaysSheet, {});
    await button(sheet, "Save and send a test message").trigger("click");
    await flushPromises();
    expect(calls.find((call) => call.method === "PUT")?.body).toEqual({
      email: null,
      mailFrom: "warning",
      phone: "+447700900123",
      textFrom: "critical",
      browserFrom: null,
      digestAt: "07:00",
      quietFrom: "22:00",
      quietUntil: "06:00",
      awayFrom: null,
      awayUntil: null,
    });
    expect(sheet.find("[role=status]").text()).toBe("+447700900123: not delivered: no credit.");
  });

  it("says why this browser cannot notify, and lists those that do", async () => {
    await begin({
      "GET session/browsers": {
        key: "BCVx",
        browsers: [{ id: "b1", name: "Firefox on Android", host: "push.example", addedAt: "2026-03-01T09:00:00Z" }],
      },
      "DELETE session/browsers/b1": "",
    });
    const list = await mountIn(NotifiedBrowsers, {});
    expect(list.text()).toContain("Firefox on Android");
    expect(list.text()).toContain("need https");
    await button(list, "Remove").trigger("click");
    await flushPromises();
    expect(calls.some((call) => call.method === "DELETE" && call.path.endsWith("session/browsers/b1"))).toBe(true);
  });

  it.each([
    ["Mozilla/5.0 (Linux; Android 15) AppleWebKit/537.36 Chrome/143.0 Mobile Safari/537.36", "Chrome on Android"],
    ["Mozilla/5.0 (iPhone; CPU iPhone OS 19_0 like Mac OS X) Version/19.0 Mobile Safari/604.1", "Safari on iPhone"],
    ["Mozilla/5.0 (Windows NT 10.0; Win64; x64) Chrome/143.0 Safari/537.36 Edg/143.0", "Edge on Windows"],
    ["Mozilla/5.0 (X11; Linux x86_64; rv:145.0) Gecko/20100101 Firefox/145.0", "Firefox on Linux"],
    ["something else", "Browser"],
  ])("names a browser as its person would", (agent, name) => expect(nameOf(agent)).toBe(name));

  it("configures a gateway for text messages, with further fields and a secret that is never shown", async () => {
    await begin({
      "GET settings/text": {
        url: "https://sms.example/send",
        format: "json",
        toField: "to",
        textField: "text",
        fields: { from: "Pasture" },
        header: "Authorization",
        secret: null,
      },
      "PUT settings/text": "",
    });
    const sheet = await mountIn(TextSettingsSheet, {});
    await sheet.find("#text-fields").setValue("from=Farm\nkind = alert");
    await button(sheet, "Save").trigger("click");
    await flushPromises();
    expect(calls.find((call) => call.method === "PUT")?.body).toMatchObject({
      url: "https://sms.example/send",
      fields: { from: "Farm", kind: "alert" },
      secret: null,
    });
  });

  it("says of a life sign that did not arrive why", async () => {
    await begin({
      "GET settings/life-sign": {
        settings: { everyMinutes: 15, url: "https://other.example/in/x", recipients: [] },
        sentAt: "2026-03-01T08:00:00Z",
        problem: "other.example cannot be reached",
      },
    });
    const sheet = await mountIn(LifeSignSheet, {});
    expect(sheet.text()).toContain("not delivered: other.example cannot be reached");
  });
});
