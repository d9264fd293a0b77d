import { afterEach, describe, expect, it, vi } from "vitest";
import { age, day, hourOf, moment, shortDay, zoneName } from "./clock";

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

describe("moments of a site", () => {
  afterEach(() => vi.useRealTimers());
  const here = Intl.DateTimeFormat().resolvedOptions().timeZone;

  it("are in its time zone, which is named where its clock shows something else", () => {
    vi.useFakeTimers({ now: Date.parse("2026-03-01T20:00:00Z") });
    expect(moment("2026-03-01T12:30:00Z", "Asia/Kolkata")).toMatch(/Mar.*18:00:00 (GMT\+5:30|IST)$/);
    expect(moment("2026-03-01T19:30:00Z", "Asia/Kolkata")).toMatch(/^01:00:00 (GMT\+5:30|IST)$/);
    expect(zoneName("2026-03-01T12:30:00Z", here)).toBe("");
    expect(zoneName("2026-03-01T12:30:00Z", undefined)).toBe("");
  });

  it("have their year if it is not this one", () => {
    vi.useFakeTimers({ now: Date.parse("2026-03-01T20:00:00Z") });
    expect(moment("2025-06-30T12:00:00Z")).toContain("2025");
    expect(moment("2026-02-28T12:00:00Z")).not.toContain("2026");
    expect(shortDay("2026-02-28T12:00:00Z", "Europe/Dublin", true)).toContain("Sat");
  });

  it("are given by a fixed offset too, and in the browser's zone where it does not know the site's", () => {
    expect(hourOf("2020-03-01T12:30:00Z", "UTC+3")).toBe(15);
    expect(hourOf("2020-03-01T12:30:00Z", "-05:00")).toBe(7);
    expect(moment("2020-03-01T12:30:00Z", "Nowhere/Here")).toBe(moment("2020-03-01T12:30:00Z"));
  });

  it("are days of the site", () => {
    expect(day("2026-06-30T23:30:00Z", "Europe/London")).toMatch(/1.*July|July.*1/);
    expect(shortDay("2026-06-30T12:00:00Z", "Pacific/Auckland")).toMatch(/1/);
  });
});
