import type { Alert, LimitSet, Place, Point, Rule } from "@/api/types";
import { usePlaces } from "@/places/places";
import { usePoints } from "@/points/points";
import { button, mountIn, problem, serviceStandIn, type Call } from "@/testing";
import { flushPromises } from "@vue/test-utils";
import { createPinia, setActivePinia } from "pinia";
import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import AlertCard from "./AlertCard.vue";
import AlertCards from "./AlertCards.vue";
import RecipientsField from "./RecipientsField.vue";
import RuleForm from "./RuleForm.vue";
import RulesList from "./RulesList.vue";

const PUMP = {
  id: "pump",
  kind: "asset",
  name: "Whey pump",
  parentId: null,
  right: "edit",
  limitSets: ["l"],
} as unknown as Place;
const point = (id: string, direction: string, limitSet: string | null = "l") =>
  ({
    id,
    name: direction + " vibration",
    placeId: "pump",
    path: ["Whey pump"],
    quantity: "vibration-velocity",
    quantityTitle: "vibration velocity",
    unit: "mm/s",
    direction,
    limitSet,
    latest: null,
  }) as unknown as Point;
const ALERT = {
  id: "a1",
  severity: "warning",
  severityOfZone: false,
  latching: false,
  tellWhenOver: false,
  rounds: [],
  state: "unacknowledged",
  summary: "Whey pump: Axial vibration 6.4 mm/s",
  placeId: "pump",
  path: ["Creamery", "Whey pump"],
  startedAt: "2026-03-01T08:00:00Z",
  raisedAt: "2026-03-01T08:00:20Z",
  learntAt: "2026-03-01T08:00:20Z",
  acknowledgedAt: null,
  acknowledgedBy: null,
  closedAt: null,
  guidance: "Look at the coupling.",
  cause: "",
  notes: [],
  notices: [],
} as unknown as Alert;
const RULE: Rule = {
  id: "r",
  name: "Zone C",
  target: { kind: "asset", assetId: "pump", quantity: "vibration-velocity" },
  measure: { kind: "last" },
  also: [],
  atLeast: null,
  active: null,
  condition: { kind: "in-zone", atLeast: "warning" },
  hold: { kind: "reports", count: 3 },
  deadBand: 0.2,
  severity: "warning",
  severityOfZone: false,
  latching: false,
  tellWhenOver: false,
  rounds: [],
  enabled: true,
  recipients: ["a@b.example", "c@d.example"],
  guidance: "Look.",
};

let calls: Call[];

async function plant(right: string, answers: Record<string, unknown> = {}) {
  setActivePinia(createPinia());
  calls = serviceStandIn({
    "GET places": [{ ...PUMP, right }],
    "GET limits": [{ id: "l", zones: [] } as unknown as LimitSet],
    "GET points": [point("p1", "axial"), point("p2", "radial")],
    "GET places/pump/recipients": [{ recipient: "person:anna", name: "anna", ways: ["mail"] }],
    ...answers,
  });
  await Promise.all([usePlaces().load(), usePoints().load()]);
}

beforeEach(() => plant("edit"));
afterEach(() => {
  document.body.innerHTML = "";
  vi.unstubAllGlobals();
});

describe("an open alert", () => {
  it("says what, where, since when and what to do", async () => {
    const card = await mountIn(AlertCard, { alert: ALERT });
    expect(card.text()).toContain("Whey pump: Axial vibration 6.4 mm/s");
    expect(card.text()).toContain("Creamery, Whey pump");
    expect(card.text()).toContain("not acknowledged");
    expect(card.text()).toContain("Look at the coupling.");
  });

  it("is taken on with a note", async () => {
    await plant("operate", {
      "POST alerts/a1/acknowledgement": { ...ALERT, acknowledgedAt: "2026-03-01T08:01:00Z", acknowledgedBy: "ann" },
    });
    const card = await mountIn(AlertCard, { alert: ALERT });
    await button(card, "Acknowledge").trigger("click");
    await card.find("textarea").setValue("coupling is worn");
    await card
      .findAll("button")
      .filter((one) => one.text() === "Acknowledge")
      .at(-1)
      ?.trigger("click");
    await flushPromises();
    expect(calls.at(-1)).toMatchObject({ path: "alerts/a1/acknowledgement", body: { text: "coupling is worn" } });
  });

  it("cannot be taken on by who may only look", async () => {
    await plant("look");
    expect((await mountIn(AlertCard, { alert: ALERT })).findAll("button")).toHaveLength(0);
  });

  it("says why it could not be taken on", async () => {
    await plant("operate", {
      "POST alerts/a1/acknowledgement": problem(409, "ann has acknowledged this alert already."),
    });
    const card = await mountIn(AlertCard, { alert: ALERT });
    await button(card, "Acknowledge").trigger("click");
    await card
      .findAll("button")
      .filter((one) => one.text() === "Acknowledge")
      .at(-1)
      ?.trigger("click");
    await flushPromises();
    expect(card.find("[role=alert]").text()).toBe("ann has acknowledged this alert already.");
  });
});

describe("the form of a rule", () => {
  it("begins with all directions of the asset, in a zone, and cannot be saved without a name", async () => {
    const form = await mountIn(RuleForm, { placeId: "pump" });
    expect(form.text()).toContain("(worst value)");
    expect(button(form, "Save").attributes("disabled")).toBeDefined();
  });

  it("gives a rule back as it was, when nothing is changed", async () => {
    await plant("edit", { "PUT rules/r": RULE });
    const form = await mountIn(RuleForm, { rule: RULE, placeId: "pump" });
    await button(form, "Save").trigger("click");
    await flushPromises();
    const { id, ...sent } = RULE;
    expect(id).toBe("r");
    expect(calls.at(-1)?.body).toEqual(sent);
    expect(form.emitted("close")).toHaveLength(1);
  });

  it.each<[Rule["condition"], Rule["hold"]]>([
    [
      { kind: "above", limit: 5.5 },
      { kind: "time", seconds: 600 },
    ],
    [
      { kind: "below", limit: -3 },
      { kind: "reports", count: 2 },
    ],
    [
      { kind: "outside", low: 2, high: 8 },
      { kind: "time", seconds: 90 },
    ],
    [
      { kind: "silent", seconds: 5400 },
      { kind: "time", seconds: 0 },
    ],
  ])("keeps %j", async (condition, hold) => {
    await plant("edit", { "PUT rules/r": RULE });
    const rule: Rule = { ...RULE, target: { kind: "point", pointId: "p1" }, condition, hold };
    const form = await mountIn(RuleForm, { rule, placeId: "pump" });
    await button(form, "Save").trigger("click");
    await flushPromises();
    expect(calls.at(-1)?.body).toMatchObject({ condition, hold, target: rule.target });
  });

  it.each<Partial<Rule>>([
    { measure: { kind: "mean", seconds: 28800 }, condition: { kind: "above", limit: 4 } },
    { measure: { kind: "rate", seconds: 1800 }, condition: { kind: "below", limit: -2 } },
    { measure: { kind: "forecast", seconds: 2592000, aheadSeconds: 1209600 }, latching: true },
    {
      active: {
        days: ["SATURDAY", "SUNDAY"],
        from: "22:00",
        until: "06:00",
        outside: true,
        holidays: ["2026-12-25"],
        siteHolidays: false,
      },
    },
    { condition: { kind: "off-baseline", percentOfLimit: 25, by: null } },
    { condition: { kind: "off-baseline", percentOfLimit: null, by: 0.8 } },
    { condition: { kind: "off-baseline", percentOfLimit: null, by: null } },
    {
      tellWhenOver: true,
      rounds: [{ afterMinutes: 15, recipients: ["c@farm.example", "d@farm.example"], hours: null }],
    },
    {
      rounds: [
        {
          afterMinutes: 0,
          recipients: ["e@farm.example"],
          hours: {
            days: ["SATURDAY"],
            from: "22:00",
            until: "06:00",
            outside: false,
            holidays: null,
            siteHolidays: true,
          },
        },
      ],
    },
    {
      measure: { kind: "difference", pointId: "p2", withinSeconds: 600 },
      condition: { kind: "above", limit: 1 },
      latching: false,
    },
    {
      target: {
        kind: "selection",
        placeId: "pump",
        quantity: "vibration-velocity",
        assetKind: null,
        tag: null,
        each: "asset",
      },
    },
    {
      condition: { kind: "above", limit: 4 },
      atLeast: 2,
      also: [
        {
          target: { kind: "point", pointId: "p2" },
          measure: { kind: "last" },
          condition: { kind: "below", limit: 1 },
          deadBand: 0,
        },
        {
          target: { kind: "here", quantity: "vibration-velocity" },
          measure: { kind: "maximum", seconds: 600 },
          condition: { kind: "outside", low: 1, high: 2 },
          deadBand: 0.5,
        },
      ],
    },
  ])("keeps what is measured and joined: %j", async (part) => {
    await plant("edit", { "PUT rules/r": RULE });
    const rule = { ...RULE, ...part } as Rule;
    const form = await mountIn(RuleForm, { rule, placeId: "pump" });
    await button(form, "Save").trigger("click");
    await flushPromises();
    const { id, ...sent } = rule;
    expect(id).toBe("r");
    expect(calls.at(-1)?.body).toEqual(sent);
  });

  it("tries a rule before it is saved", async () => {
    await plant("edit", {
      "POST rules/rehearsal": {
        readings: 4320,
        times: 1,
        seconds: 7200,
        alerts: [{ summary: "Whey pump: 6.4 mm/s", raisedAt: "2026-03-01T08:00:00Z", overAt: null }],
        holds: [
          { seconds: 0, times: 9 },
          { seconds: 900, times: 1 },
        ],
      },
    });
    const form = await mountIn(RuleForm, { rule: RULE, placeId: "pump" });
    await button(form, "Test on the last 30 days").trigger("click");
    await flushPromises();
    expect(form.text()).toContain("One alert, 2 h altogether, in 4320 readings.");
    expect(form.text()).toContain("Alerts with other hold times: none 9, 15 min 1");
    expect(form.emitted("close")).toBeUndefined();
  });

  it("adds a further condition", async () => {
    await plant("edit", { "PUT rules/r": RULE });
    const form = await mountIn(RuleForm, {
      rule: { ...RULE, condition: { kind: "above", limit: 4 } } as Rule,
      placeId: "pump",
    });
    await button(form, "Add condition").trigger("click");
    await button(form, "Save").trigger("click");
    await flushPromises();
    expect(calls.at(-1)?.body).toMatchObject({
      atLeast: null,
      also: [{ target: { kind: "point", pointId: "p1" }, condition: { kind: "above", limit: 0 } }],
    });
  });

  it("reads recipients however they are separated", async () => {
    await plant("edit", { "POST rules": RULE });
    const form = await mountIn(RuleForm, { point: point("p1", "axial"), placeId: "pump" });
    await form.find("#rule-name").setValue("Too high");
    form
      .findComponent(RecipientsField)
      .findComponent({ name: "ElSelect" })
      .vm.$emit("update:modelValue", ["person:anna", "a@b.example; c@d.example  e@f.example"]);
    await button(form, "Save").trigger("click");
    await flushPromises();
    expect(calls.at(-1)?.body).toMatchObject({
      name: "Too high",
      target: { kind: "point", pointId: "p1" },
      recipients: ["person:anna", "a@b.example", "c@d.example", "e@f.example"],
    });
  });

  it("stays open with the service's words when it is refused", async () => {
    await plant("edit", { "PUT rules/r": problem(409, "No limit set holds.", "Choose one first.") });
    const form = await mountIn(RuleForm, { rule: RULE, placeId: "pump" });
    await button(form, "Save").trigger("click");
    await flushPromises();
    expect(form.find("[role=alert]").text()).toBe("No limit set holds. Choose one first.");
    expect(form.emitted("close")).toBeUndefined();
  });
});

describe("open alerts", () => {
  it("stand together where one thing is behind them", async () => {
    await plant("edit", {});
    const silent = (id: string, cause: string) => ({ ...ALERT, id, cause, summary: id + " is silent" }) as Alert;
    const cards = await mountIn(AlertCards, {
      alerts: [silent("one", "gateway a"), silent("two", ""), silent("three", "gateway a"), silent("four", "")],
    });
    expect(cards.findAll("details")).toHaveLength(1);
    expect(cards.find("summary").text()).toBe("1 more alerts with the same cause");
    expect(cards.find("details").text()).toContain("three is silent");
    expect(cards.findAll("article")).toHaveLength(4);
  });
});

describe("the list of rules", () => {
  it("says each in words, and brings a removed one back", async () => {
    await plant("edit", {
      "GET rules": [RULE],
      "GET rules/standing": [],
      "DELETE rules/r": undefined,
      "POST rules": RULE,
    });
    const list = await mountIn(RulesList);
    await flushPromises();
    expect(list.text()).toContain("Whey pump: in a zone that is warning or worse, in 3 reports in a row");
    expect(list.text()).toContain("a@b.example, c@d.example");
    await button(list, "Remove").trigger("click");
    await flushPromises();
    expect(list.text()).toContain("“Zone C” is removed.");
    await button(list, "Bring it back").trigger("click");
    await flushPromises();
    expect(calls.filter((call) => call.method === "POST").at(-1)?.body).toMatchObject({ name: "Zone C" });
  });

  it("shows who may not edit no buttons", async () => {
    await plant("look", { "GET rules": [RULE], "GET rules/standing": [] });
    const list = await mountIn(RulesList);
    await flushPromises();
    expect(list.findAll("button")).toHaveLength(0);
  });

  it("says that a condition holds, before it has held long enough for an alert", async () => {
    const since = new Date(Date.now() - 30_000).toISOString();
    await plant("edit", {
      "GET rules": [RULE],
      "GET rules/standing": [{ ruleId: "r", state: "on-delay", since, alertId: null }],
    });
    const list = await mountIn(RulesList);
    await flushPromises();
    expect(list.text()).toMatch(/holds for (29|30) s, not long enough for an alert yet/);
  });

  it("leads to the alert that a rule has open", async () => {
    await plant("edit", {
      "GET rules": [RULE],
      "GET rules/standing": [{ ruleId: "r", state: "acknowledged", since: null, alertId: "a1" }],
    });
    const list = await mountIn(RulesList);
    await flushPromises();
    expect(list.find("a[href='/alerts/a1']").text()).toBe("acknowledged");
  });
});
