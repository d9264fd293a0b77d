import { describe, expect, it } from "vitest";
import type { Latest, Point } from "@/api/types";
import { byHeadroom, format, isStale } from "./reading";

const at = Date.parse("2026-03-01T12:00:00Z");

function point(name: string, latest: Partial<Latest> | null, intervalSeconds: number | null = 60): Point {
  const full = latest && {
    time: "2026-03-01T12:00:00Z",
    value: 1,
    quality: "GOOD" as const,
    severity: "normal" as const,
    zone: null,
    headroomPercent: null,
    nextBoundary: null,
    nextZone: null,
    ...latest,
  };
  return { name, latest: full, intervalSeconds } as Point;
}

describe("a reading", () => {
  it("is stale after three missed reports and half a minute", () => {
    expect(isStale(point("p", { time: "2026-03-01T11:56:31Z" }), at)).toBe(false);
    expect(isStale(point("p", { time: "2026-03-01T11:56:29Z" }), at)).toBe(true);
  });

  it("is a dash when unknown, because unknown is not zero", () => {
    expect(format(undefined, 1)).toBe("–");
    expect(format(0, 1)).toBe("0.0");
  });
});

describe("the order of attention", () => {
  it("is severity, then least headroom, then points without limits", () => {
    const sorted = [
      point("no limits", { headroomPercent: null }),
      point("calm", { headroomPercent: 60 }),
      point("nearly", { headroomPercent: 5 }),
      point("nothing yet", null),
      point("in zone D", { severity: "critical", headroomPercent: 0 }),
      point("in zone C", { severity: "warning", headroomPercent: 40 }),
    ]
      .sort(byHeadroom)
      .map((one) => one.name);
    expect(sorted.slice(0, 4)).toEqual(["in zone D", "in zone C", "nearly", "calm"]);
  });

  it("comes first of those with all their headroom if it is nearest to its limit", () => {
    const calm = (name: string, value: number) => point(name, { value, headroomPercent: 100, nextBoundary: 5.1 });
    const sorted = [calm("axial", 2.05), calm("horizontal", 3.25), calm("vertical", 2.65)].sort(byHeadroom);
    expect(sorted.map((one) => one.name)).toEqual(["horizontal", "vertical", "axial"]);
  });
});
