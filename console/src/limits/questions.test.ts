import type { LimitQuestion, LimitSet } from "@/api/types";
import { describe, expect, it } from "vitest";
import { averagingWords, LAST } from "./averaging";
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
