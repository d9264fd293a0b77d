import type { LimitSet, Panel, Point, Summary } from "@/api/types";
import { afterEach, expect, test } from "vitest";
import { drawn } from "@/chart/series";
import { shown, shownUnit } from "./reading";
import {
  allAsRead,
  asRead,
  limitsAsRead,
  panelAsRead,
  read,
  readBy,
  readDifference,
  readsOtherUnits,
  summaryAsRead,
  useUnitsOf,
} from "./units";

const FAHRENHEIT = { quantity: "temperature", from: "°C", to: "°F", factor: 1.8, offset: 32, moreDecimals: 0 };
const INCHES = {
  quantity: "vibration-velocity",
  from: "mm/s",
  to: "in/s",
  factor: 1 / 25.4,
  offset: 0,
  moreDecimals: 2,
};
const mine = (...changes: (typeof FAHRENHEIT)[]) => useUnitsOf({ units: {}, choices: [], changes });

const milk = {
  id: "p1",
  quantity: "temperature",
  unit: "°C",
  decimals: 1,
  words: {},
  latest: { value: 4, nextBoundary: 6, time: "2026-03-01T08:00:00Z" },
} as unknown as Point;
const cold = {
  id: "cold",
  quantity: "temperature",
  unit: "°C",
  zones: [
    { label: "cold", from: null, to: 4 },
    { label: "warm", from: 4, to: null },
  ],
} as unknown as LimitSet;

afterEach(() => useUnitsOf(undefined));

test("as kept while nothing is chosen", () => {
  expect(asRead(milk)).toBe(milk);
  expect(limitsAsRead(cold)).toBe(cold);
  expect(readsOtherUnits()).toBe(false);
  expect(shown(milk) + " " + shownUnit(milk)).toBe("4.0 °C");
});

test("a point with all that belongs to it, once and not twice", () => {
  mine(FAHRENHEIT);
  const one = asRead(asRead(milk));
  expect([one.unit, one.latest?.value, one.latest?.nextBoundary]).toEqual(["°F", 39.2, 42.8]);
  expect(shown(one) + " " + shownUnit(one)).toBe("39.2 °F");
  expect(shown(milk) + " " + shownUnit(milk)).toBe("39.2 °F");
  expect(readDifference(readBy(one), 5)).toBe(9);
  expect(read(undefined, 5)).toBe(5);
});

test("words stay words, and what may be a difference stays as it is kept", () => {
  mine(FAHRENHEIT);
  const gate = { ...milk, words: { "4": "open" } } as Point;
  expect(shown(gate) + shownUnit(gate)).toBe("open");
  expect(asRead(gate).unit).toBe("°C");
  expect(asRead({ ...milk, formula: { kind: "written" } } as Point).unit).toBe("°C");
  expect(asRead({ ...milk, formula: { kind: "over" } } as Point).unit).toBe("°F");
});

test("limits and what readings come to", () => {
  mine(FAHRENHEIT);
  expect(limitsAsRead(limitsAsRead(cold)).zones[1]?.from).toBe(39.2);
  expect(allAsRead(new Map([["cold", cold]])).get("cold")?.unit).toBe("°F");
  const summary = { min: 0, mean: 5, max: 10, last: null } as unknown as Summary;
  expect(summaryAsRead(summary, asRead(milk))).toMatchObject({ min: 32, mean: 41, max: 50, last: null });
  expect(summaryAsRead(summary, milk)).toBe(summary);
});

test("a line is drawn in the unit of its axis", () => {
  mine(FAHRENHEIT);
  const series = { times: [1, 2], values: [0, 100], qualities: [0, 0], gaps: [] } as never;
  expect(drawn(asRead(milk), series).values).toEqual([32, 212]);
  expect(drawn(milk, series).values).toEqual([0, 100]);
});

test("small units have the digits they need", () => {
  mine(INCHES);
  const pump = { ...milk, quantity: "vibration-velocity", unit: "mm/s", decimals: 2 } as Point;
  expect(shown(pump) + " " + shownUnit(pump)).toBe("0.1575 in/s");
  expect(asRead(pump).latest?.nextBoundary).toBe(0.236);
});

test("a panel's scale follows its points if they are all read alike", () => {
  mine(FAHRENHEIT);
  const panel = { kind: "dial", look: { decimals: 2, lowest: 0, highest: 100 } } as unknown as Panel;
  const read = panelAsRead(panel, [asRead(milk)]) as { look: object };
  expect(read.look).toEqual({ decimals: 2, lowest: 32, highest: 212 });
  expect(panelAsRead(panel, [asRead(milk), { ...milk, unit: "bar" } as Point])).toBe(panel);
});
