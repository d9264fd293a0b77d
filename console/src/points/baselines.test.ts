import type { Baseline } from "@/api/types";
import { expect, test } from "vitest";
import { comparisonWords } from "./baselines";

function baseline(now: Partial<NonNullable<Baseline["now"]>>): Baseline {
  return {
    id: "b",
    pointId: "p",
    pointNumber: 1,
    pointName: "Axial",
    unit: "mm/s",
    name: "after the overhaul",
    good: true,
    reference: true,
    from: "2026-03-01T08:00:00Z",
    until: "2026-03-01T09:00:00Z",
    state: "known",
    problem: "",
    values: { count: 60, median: 3, low: 2.5, high: 3.4, lowest: 2, highest: 4 },
    by: "anna",
    madeAt: "2026-03-01T08:00:00Z",
    note: "",
    now: {
      time: "2026-03-02T08:00:00Z",
      value: 3,
      difference: 0,
      percentOfLimit: null,
      usual: true,
      significant: null,
      ...now,
    },
  };
}

test("a value is compared with the baseline in words, up and down", () => {
  expect(comparisonWords(baseline({}), 2)).toBe(
    "Now 3.00 mm/s: as in 'after the overhaul'. This is in the normal range.",
  );
  expect(
    comparisonWords(
      baseline({ value: 4.5, difference: 1.5, percentOfLimit: 29.4, usual: false, significant: true }),
      2,
    ),
  ).toBe(
    "Now 4.50 mm/s: 1.50 mm/s above the median of 'after the overhaul', 29 % of the warning limit. This is a significant change (more than 25 %, ISO 20816-1).",
  );
  expect(comparisonWords(baseline({ value: 2.4, difference: -0.6, usual: false }), 1)).toBe(
    "Now 2.4 mm/s: 0.6 mm/s below the median of 'after the overhaul'. This is outside the normal range.",
  );
});
