import { describe, expect, it } from "vitest";
import { instantOf, wallClock } from "./wallClock";

const at = (text: string) => Date.parse(text);

describe("the clock of a site", () => {
  it("shows its own time, there and back", () => {
    expect(wallClock(at("2026-11-30T23:30:05Z"), "Pacific/Auckland")).toEqual([2026, 12, 1, 12, 30, 5]);
    expect(instantOf([2026, 12, 1, 12, 30, 5], "Pacific/Auckland")).toBe(at("2026-11-30T23:30:05Z"));
    expect(instantOf([2026, 7, 1, 0, 0, 0], "UTC+3")).toBe(at("2026-06-30T21:00:00Z"));
  });

  it("gives the first of an hour that comes twice, and the end of one that is left out", () => {
    expect(instantOf([2026, 10, 25, 2, 30, 0], "Europe/Berlin")).toBe(at("2026-10-25T00:30:00Z"));
    expect(instantOf([2026, 3, 29, 2, 30, 0], "Europe/Berlin")).toBe(at("2026-03-29T01:30:00Z"));
    expect(instantOf([2026, 4, 5, 1, 45, 0], "Australia/Lord_Howe")).toBe(at("2026-04-04T14:45:00Z"));
  });

  it("carries on what is beyond a day or a month", () =>
    expect(instantOf([2026, 13, 32, 0, 0, 0], "UTC")).toBe(at("2027-02-01T00:00:00Z")));
});
