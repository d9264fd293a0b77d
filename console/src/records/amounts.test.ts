import { describe, expect, it } from "vitest";
import { bytes, count, keptFor, span } from "./amounts";

describe("amounts", () => {
  it("of data are said in the unit that fits", () => {
    expect([0, 999, 1_000, 12_345, 123_456_789, 4.2e12].map(bytes)).toEqual([
      "0 B",
      "999 B",
      "1.0 kB",
      "12.3 kB",
      "123 MB",
      "4.2 TB",
    ]);
  });

  it("of readings can be read", () => {
    expect(count(1234567)).toBe("1\u202f234\u202f567");
    expect(count(12)).toBe("12");
  });

  it("of days become months and years", () => {
    expect([12, 90, 730, 3650].map(span)).toEqual(["12 days", "3 months", "2 years", "10 years"]);
    expect(keptFor(0)).toBe("for ever");
  });
});
