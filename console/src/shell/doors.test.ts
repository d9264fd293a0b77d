import { button, mountIn, problem, serviceStandIn, StreamStandIn, type Call } from "@/testing";
import { closeLive } from "@/api/live";
import { flushPromises } from "@vue/test-utils";
import { createPinia, setActivePinia } from "pinia";
import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import FirstVisit from "./FirstVisit.vue";
import ResetPage from "./ResetPage.vue";
import { useSession } from "./session";
import SignIn from "./SignIn.vue";
import WelcomePage from "./WelcomePage.vue";

const EMPTY = { "GET places": [], "GET limits": [], "GET points": [], "GET alerts": [] };
const ANSWER = { person: { name: "ann", owner: false, grants: [] } };
let calls: Call[];

beforeEach(() => {
  setActivePinia(createPinia());
  StreamStandIn.install();
});
afterEach(() => {
  closeLive();
  document.body.innerHTML = "";
  vi.unstubAllGlobals();
});

describe("signing in", () => {
  it("needs a name and a password", async () => {
    calls = serviceStandIn({ ...EMPTY, "POST session": ANSWER });
    const door = await mountIn(SignIn);
    expect(button(door, "Sign in").attributes("disabled")).toBeDefined();
    await door.find("#name").setValue("ann");
    await door.find("#password").setValue("a long password");
    await door.find("form").trigger("submit");
    await flushPromises();
    expect(calls[0]?.body).toEqual({ name: "ann", password: "a long password", code: null });
    expect(useSession().person?.name).toBe("ann");
  });

  it("says what is wrong and keeps the name", async () => {
    serviceStandIn({ "POST session": problem(401, "Name or password is wrong.", "Sign in.") });
    const door = await mountIn(SignIn);
    await door.find("#name").setValue("ann");
    await door.find("#password").setValue("wrong");
    await door.find("form").trigger("submit");
    await flushPromises();
    expect(door.find("[role=alert]").text()).toContain("Name or password is wrong.");
    expect((door.find("#name").element as HTMLInputElement).value).toBe("ann");
    expect(useSession().person).toBeUndefined();
  });
});

describe("a second factor", () => {
  it("is asked for when the password is right, and a wrong code is said", async () => {
    calls = serviceStandIn({
      ...EMPTY,
      "POST session": (call: Call) =>
        (call.body as { code: string | null }).code === "123456"
          ? ANSWER
          : problem(401, "This code is not valid.", "", "urn:pasture:problem:second-factor"),
    });
    const door = await mountIn(SignIn);
    await door.find("#name").setValue("ann");
    await door.find("#password").setValue("a long password");
    await door.find("form").trigger("submit");
    await flushPromises();
    expect(door.find("[role=alert]").exists()).toBe(false);
    expect(button(door, "Sign in").attributes("disabled")).toBeDefined();
    await door.find("#code").setValue("000000");
    await door.find("form").trigger("submit");
    await flushPromises();
    expect(door.find("[role=alert]").text()).toContain("not valid");
    await door.find("#code").setValue("123456");
    await door.find("form").trigger("submit");
    await flushPromises();
    expect(useSession().person?.name).toBe("ann");
  });
});

describe("a forgotten password", () => {
  it("is asked for by name and changed with the code from the mail", async () => {
    calls = serviceStandIn({ "POST password-reset": undefined, "POST password-reset/taken-up": undefined });
    const door = await mountIn(ResetPage);
    await door.find("#reset-name").setValue("ann");
    await door.find("form").trigger("submit");
    await flushPromises();
    expect(door.text()).toContain("a code is on its way");
    await door.find("#reset-code").setValue("abc");
    await door.find("#reset-password").setValue("brook meadow");
    await door.find("form").trigger("submit");
    await flushPromises();
    expect(calls.map((call) => call.body)).toEqual([{ name: "ann" }, { token: "abc", password: "brook meadow" }]);
  });
});

describe("the first visit", () => {
  async function fill(recovery: boolean, answers: Record<string, unknown>) {
    calls = serviceStandIn({ ...EMPTY, ...answers });
    const door = await mountIn(FirstVisit, { recovery });
    await door.find("#code").setValue("7KQ2-MXRA-49");
    await door.find("#name").setValue("owner");
    await door.find("#password").setValue("a long password");
    await door.find("form").trigger("submit");
    await flushPromises();
    return door;
  }

  it("makes the owner with the code from the log", async () => {
    const door = await fill(false, { "POST setup": ANSWER });
    expect(calls[0]).toMatchObject({ path: "setup", body: { code: "7KQ2-MXRA-49", name: "owner" } });
    expect(door.text()).toContain("one-time code in its log");
  });

  it("gives a forgotten password a new one, by the command on the host", async () => {
    const door = await fill(true, { "POST setup/recovery": ANSWER });
    expect(calls[0]?.path).toBe("setup/recovery");
    expect(door.text()).toContain("./pasture owner reset");
    expect(door.find("#email").exists()).toBe(false);
  });

  it("says that the code is wrong", async () => {
    const door = await fill(false, {
      "POST setup": problem(400, "The one-time code is wrong. It stands in the service's log."),
    });
    expect(door.find("[role=alert]").text()).toContain("It stands in the service's log.");
  });
});

describe("an invitation", () => {
  it("that was withdrawn says so", async () => {
    serviceStandIn({
      "POST invitations/taken-up": problem(
        410,
        "This invitation was withdrawn, taken up or has run out.",
        "Ask for a new one.",
      ),
    });
    const door = await mountIn(WelcomePage);
    await door.find("#name").setValue("eve");
    await door.find("#password").setValue("a long password");
    await door.find("form").trigger("submit");
    await flushPromises();
    expect(door.find("[role=alert]").text()).toBe(
      "This invitation was withdrawn, taken up or has run out. Ask for a new one.",
    );
  });
});
