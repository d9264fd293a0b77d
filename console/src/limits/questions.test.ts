import type { LimitQuestion, LimitSet } from "@/api/types";
import { usePlaces } from "@/places/places";
import { button, mountIn, serviceStandIn } from "@/testing";
import { flushPromises } from "@vue/test-utils";
import { createPinia, setActivePinia } from "pinia";
import { afterEach, describe, expect, it, vi } from "vitest";
import AssignLimits from "./AssignLimits.vue";
import { averagingWords, LAST } from "./averaging";
import LimitQuestions from "./LimitQuestions.vue";
import { answered, withSets } from "./questions";

const answer = (id: string, then: string | null, sets: string[] = [], because = "") => ({
  id,
  text: id,
  because,
  then,
  sets,
});
const QUESTIONS: LimitQuestion[] = [
  { id: "what", text: "What is it?", hint: "", answers: [answer("pump", "size", [], "A pump."), answer("cow", null)] },
  { id: "size", text: "How large?", hint: "", answers: [answer("small", null, ["s"], "Up to 200 kW.")] },
];
const set = (id: string, quantity: LimitSet["quantity"], averaging = LAST) =>
  ({ id, quantity, averaging }) as unknown as LimitSet;

describe("the way to the limits that fit", () => {
  it("begins with the first question", () => expect(answered(QUESTIONS, [])).toMatchObject({ next: { id: "what" } }));

  it("ends at the sets, with the reasons of all answers", () => {
    const way = answered(QUESTIONS, ["pump", "small"]);
    expect(way.next).toBeUndefined();
    expect(way.sets).toEqual(["s"]);
    expect(way.reasons).toEqual(["A pump.", "Up to 200 kW."]);
  });

  it("may end at none", () => expect(answered(QUESTIONS, ["cow"]).sets).toEqual([]));

  it("stays where an answer is none of the question's", () =>
    expect(answered(QUESTIONS, ["pump", "huge"])).toMatchObject({ next: { id: "size" }, sets: undefined }));
});

describe("sets of an asset", () => {
  const shift = { rule: "mean", minutes: 480 } as const;
  const all = new Map(
    [set("old", "ammonia"), set("eight", "ammonia", shift), set("warm", "temperature")].map((one) => [one.id, one]),
  );
  it("are replaced where they are for the same thing, averaged alike", () => {
    expect(withSets(["old", "warm", "gone"], [set("new", "ammonia")], all)).toEqual(["warm", "gone", "new"]);
    expect(withSets(["old"], [set("eight", "ammonia", shift)], all)).toEqual(["old", "eight"]);
  });
  it("say what they compare", () => {
    expect(averagingWords(LAST)).toBe("last value");
    expect(averagingWords(shift)).toBe("mean over 8 h");
    expect(averagingWords({ rule: "maximum", minutes: 4320 })).toBe("highest value over 3 d");
    expect(averagingWords({ rule: "energy-mean", minutes: 15 })).toBe("energy mean over 15 min");
  });
});

describe("somebody who does not know the standards", () => {
  const SETS = [
    { ...set("s", "vibration-velocity"), title: "Small pumps", zones: [] },
    { ...set("old", "vibration-velocity"), title: "Before", zones: [] },
  ] as unknown as LimitSet[];
  const PUMP = { id: "pump", kind: "asset", name: "Whey pump", parentId: "site", right: "edit", limitSets: ["old"] };

  function begin() {
    setActivePinia(createPinia());
    const calls = serviceStandIn({
      "GET limits/questions": QUESTIONS,
      "GET places/pump": PUMP,
      "PUT assets/pump": PUMP,
      "GET places": [],
      "GET points": [],
      "GET limits": SETS,
    });
    const places = usePlaces();
    places.places = [PUMP] as unknown as typeof places.places;
    places.limits = SETS;
    return calls;
  }

  afterEach(() => {
    document.body.innerHTML = "";
    vi.unstubAllGlobals();
  });

  it("answers, goes back, and sees what fits and why", async () => {
    begin();
    const view = await mountIn(LimitQuestions, {});
    await flushPromises();
    await button(view, "pump").trigger("click");
    expect(view.text()).toContain("How large?");
    await button(view, "Back").trigger("click");
    expect(view.text()).toContain("What is it?");
    await button(view, "pump").trigger("click");
    await button(view, "small").trigger("click");
    expect(view.text()).toContain("Small pumps");
    expect(view.text()).toContain("Up to 200 kW.");
    await button(view, "Use these limits").trigger("click");
    expect(view.emitted("found")).toMatchObject([[[{ id: "s" }]]]);
  });

  it("gives them to an asset, in place of what it has for the same", async () => {
    const calls = begin();
    const view = await mountIn(AssignLimits, { sets: SETS.slice(0, 1) });
    view.findComponent({ name: "ElSelect" }).vm.$emit("update:modelValue", "pump");
    await flushPromises();
    expect(view.text()).toContain("In place of Before");
    await button(view, "Assign limits").trigger("click");
    await flushPromises();
    expect(calls.find((call) => call.method === "PUT")?.body).toMatchObject({ name: "Whey pump", limitSets: ["s"] });
  });
});
