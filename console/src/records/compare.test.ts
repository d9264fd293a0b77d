import type { Point, Summary } from "@/api/types";
import { hoursEarlier } from "@/chart/before";
import { lineOption } from "@/chart/lineOption";
import { later, type Drawn } from "@/chart/series";
import { usePlaces } from "@/places/places";
import { usePoints } from "@/points/points";
import { mountIn, serviceStandIn } from "@/testing";
import { flushPromises } from "@vue/test-utils";
import { createPinia, setActivePinia } from "pinia";
import { afterEach, describe, expect, it, vi } from "vitest";
import { difference, zonesOf } from "./compare";
import CompareRoom from "./CompareRoom.vue";

const POINT = {
  id: "p",
  name: "Axial",
  placeId: "pump",
  path: ["Pump"],
  unit: "mm/s",
  decimals: 2,
  tags: [],
} as unknown as Point;
const summary = (mean: number | null, zones: Record<string, number> = {}) =>
  ({ min: 1, max: 3, mean, count: 9, secondsInZone: zones }) as unknown as Summary;

afterEach(() => {
  document.body.innerHTML = "";
  vi.unstubAllGlobals();
});

describe("a difference", () => {
  it("has its sign, and percent only where they say something", () => {
    expect(difference(summary(3), summary(2), POINT)).toBe("+1.00 mm/s (+50 %)");
    expect(difference(summary(1), summary(2), POINT)).toBe("−1.00 mm/s (−50 %)");
    expect(difference(summary(6), summary(5), { ...POINT, unit: "°C" })).toBe("+1.00 °C");
    expect(difference(summary(6), summary(0), POINT)).toBe("+6.00 mm/s");
    expect(difference(summary(null), summary(2), POINT)).toBe("–");
    expect(difference(summary(2), undefined, POINT)).toBe("–");
  });
});

describe("time in zones", () => {
  it("is said in shares, and a moment in a bad zone is not rounded away", () => {
    expect(zonesOf(summary(1, { A: 999_000, D: 1000, B: 0 }))).toBe("A 100 %, D under 1 %");
    expect(zonesOf(summary(1))).toBe("");
  });
});

describe("an earlier time", () => {
  it("is a time before of the same length, or a calendar one", () => {
    expect([hoursEarlier("before", 6), hoursEarlier("week", 6), hoursEarlier("none", 6)]).toEqual([6, 168, 0]);
  });

  it("is drawn later than it was, in the colour of its point and without a name at the end", () => {
    const line: Drawn = { point: POINT, times: [1000], values: [2], qualities: [0], gaps: [{ from: 1, until: 2 }] };
    const shifted = later(line, 500, "the week before");
    expect([shifted.times, shifted.gaps]).toEqual([[1500], [{ from: 501, until: 502 }]]);
    const option = lineOption([line, shifted], undefined, {
      from: 0,
      until: 2000,
      fixed: false,
      palette: (name) => name,
    });
    const series = option.series as { name: string; itemStyle: { color: string }; endLabel: { show: boolean } }[];
    expect(series.map((one) => one.name)).toEqual(["Axial", "Axial, the week before"]);
    expect(series[0]?.itemStyle.color).toBe(series[1]?.itemStyle.color);
    expect(series[1]?.endLabel.show).toBe(false);
  });
});

describe("the room", () => {
  it("says how to begin, and asks for both times once there is something to compare", async () => {
    setActivePinia(createPinia());
    const calls = serviceStandIn(
      new Proxy({} as Record<string, unknown>, {
        has: () => true,
        get: (_answers, key: string) =>
          key === "GET points"
            ? [POINT]
            : key.includes("/summary")
              ? summary(2)
              : key.includes("/readings")
                ? { times: [], values: [], qualities: [], gaps: [] }
                : [],
      }),
    );
    await Promise.all([usePlaces().load(), usePoints().load()]);
    const room = await mountIn(CompareRoom);
    expect(room.text()).toContain("Nothing to compare yet");
    const lists = room.findAllComponents({ name: "ElSelect" });
    await lists.find((one) => one.attributes("aria-label") === "Points")?.vm.$emit("update:modelValue", ["p"]);
    await flushPromises();
    await lists.find((one) => one.attributes("aria-label") === "Compare with")?.vm.$emit("update:modelValue", "week");
    await flushPromises();
    await flushPromises();
    expect(room.find("tbody").text()).toContain("±0.00 mm/s (±0 %)");
    const asked = calls
      .filter((call) => call.path.includes("/summary"))
      .slice(-2)
      .map((call) => call.path);
    const from = asked.map((path) => new Date(/from=([^&]*)/.exec(path)?.[1] ?? "").getTime());
    expect(Math.abs((from[0] ?? 0) - (from[1] ?? 0))).toBe(7 * 24 * 3_600_000);
  });
});
