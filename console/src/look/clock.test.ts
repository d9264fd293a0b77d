import { describe, expect, it } from "vitest";
import { age } from "./clock";

const at = Date.parse("2026-03-01T12:00:00Z");

describe("age", () => {
  it.each([
    ["2026-03-01T11:59:48Z", "12 s ago"],
    ["2026-03-01T11:55:00Z", "5 min ago"],
    ["2026-03-01T09:00:00Z", "3 h ago"],
    ["2026-02-24T12:00:00Z", "5 d ago"],
  ])("says how long ago %s was", (time, words) => expect(age(time, at)).toBe(words));

  it("does not speak of the future when two clocks differ a little", () =>
    expect(age("2026-03-01T12:00:02Z", at)).toBe("0 s ago"));

  it("says never for what was never heard", () => expect(age(null, at)).toBe("never"));
});
