import type { Trend } from "@/api/types";
import { describe, expect, it } from "vitest";
import { aheadWords, rateWords, slope } from "./trend";

const NOW = Date.parse("2026-06-01T12:00:00Z");
const TREND: Trend = {
  days: 30,
  count: 30,
  clear: true,
  reason: "",
  perDay: 0.1037,
  lowPerDay: 0.081,
  highPerDay: 0.13,
  boundary: 8.5,
  zone: "D",
  severity: "critical",
  reachedAt: "2026-06-10T12:00:00Z",
  earliest: "2026-06-08T12:00:00Z",
  latest: "2026-06-13T12:00:00Z",
};

describe("a trend", () => {
  it("is said with two digits that count", () => {
    expect(slope(0.1037)).toBe("+0.10");
    expect(slope(-12.34)).toBe("-12");
    expect(slope(0.000123)).toBe("+0.00012");
    expect(rateWords(TREND, "mm/s")).toBe("+0.10 mm/s per day (+0.081 to +0.13)");
  });

  it("says when a zone is reached, and how sure that is", () => {
    expect(aheadWords(TREND, NOW)).toBe("in about 9 days (7 to 12)");
    expect(aheadWords({ ...TREND, latest: null }, NOW)).toBe("in about 9 days (7 days or later)");
    expect(aheadWords({ ...TREND, reachedAt: "2026-06-02T12:00:00Z", earliest: null, latest: null }, NOW)).toBe(
      "in about 1 day (1 day or later)",
    );
    expect(aheadWords({ ...TREND, reachedAt: null }, NOW)).toBe("");
  });
});
