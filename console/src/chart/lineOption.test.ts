import { describe, expect, it } from "vitest";
import type { LimitSet, Point } from "@/api/types";
import { boundaries, fixedScale, lineOption, readOut, lengthWords, unitsOf } from "./lineOption";
import type { Drawn } from "./series";

const zone = (
  label: string,
  severity: LimitSet["zones"][number]["severity"],
  from: number | null,
  to: number | null,
) => ({ label, severity, from, to, meaning: "" });

const PUMP: LimitSet = {
  id: "pump",
  title: "pumps",
  source: { document: "ISO 10816-7", edition: "2009", clause: "" },
  quantity: "vibration-velocity",
  unit: "mm/s",
  appliesTo: "",
  shipped: true,
  averaging: { rule: "last", minutes: 0 },
  zones: [
    zone("A", "normal", null, 3.2),
    zone("B", "normal", 3.2, 5.1),
    zone("C", "warning", 5.1, 8.5),
    zone("D", "critical", 8.5, null),
  ],
};
const CELLAR: LimitSet = {
  ...PUMP,
  zones: [zone("cold", "warning", null, 10), zone("good", "normal", 10, 14), zone("warm", "warning", 14, null)],
};

describe("limits in a chart", () => {
  it("are rails between the zones", () =>
    expect(boundaries(PUMP)).toEqual([
      { value: 3.2, name: "A | B" },
      { value: 5.1, name: "B | C" },
      { value: 8.5, name: "C | D" },
    ]));

  it("fix the scale from zero where the quantity starts there", () => {
    const scale = fixedScale(PUMP, 0);
    expect(scale?.min).toBe(0);
    expect(scale?.max).toBeGreaterThan(8.5);
  });

  it("fix the scale around both sides of a two-sided set", () => {
    const scale = fixedScale(CELLAR, 0);
    expect(scale?.min).toBeGreaterThan(5);
    expect(scale?.min).toBeLessThan(10);
    expect(scale?.max).toBeGreaterThan(14);
  });

  it("leave no line outside of the scale that they fix", () => {
    const point = { name: "Milk", unit: "°C", decimals: 1 } as Point;
    const only = { ...PUMP, zones: [zone("kept", "normal", null, 10), zone("over", "warning", 10, null)] };
    const scaleOf = (values: number[], qualities = values.map(() => 0)) =>
      (
        lineOption([{ point, times: values.map((_value, i) => i), values, qualities, gaps: [] }], only, {
          from: 0,
          until: 9,
          fixed: true,
          palette: (name) => name,
        }) as { yAxis: { min: number; max: number }[] }
      ).yAxis[0];
    const usual = scaleOf([9, 10]);
    expect(scaleOf([4, 5])?.min).toBeLessThanOrEqual(4);
    expect(scaleOf([4, 5])?.max).toBe(usual?.max);
    expect(scaleOf([9, 60])?.max).toBeGreaterThanOrEqual(60);
    expect(scaleOf([9, 60], [0, 2])?.max).toBe(usual?.max);
    expect(scaleOf([])).toMatchObject({ min: usual?.min, max: usual?.max });
  });

  it("fix the scale of small numbers as tightly as that of large ones", () => {
    const inches = {
      ...PUMP,
      zones: [zone("B", "normal", null, 0.2), zone("C", "warning", 0.2, 0.33), zone("D", "critical", 0.33, null)],
    };
    expect(fixedScale(inches, 0)).toEqual({ min: 0.15, max: 0.38 });
  });

  it("tint only what is abnormal", () => {
    const point = { name: "Axial", direction: "axial", unit: "mm/s", decimals: 2 } as Point;
    const option = lineOption([{ point, times: [1, 2], values: [3, 4], qualities: [0, 0], gaps: [] }], PUMP, {
      from: 0,
      until: 3,
      fixed: true,
      palette: (name) => name,
    }) as { series: { markArea: { data: { itemStyle?: { color: string } }[][] } }[] };
    expect(option.series[0]?.markArea.data.map(([low]) => low?.itemStyle?.color)).toEqual([
      "warning-fill",
      "critical-fill",
    ]);
  });
});

describe("points of several units in a chart", () => {
  const line = (name: string, unit: string, decimals: number, values: number[]): Drawn => ({
    point: { name, unit, decimals, words: {}, placeId: "barn" } as unknown as Point,
    times: values.map((_value, i) => i * 60_000),
    values,
    qualities: values.map(() => 0),
    gaps: [],
  });
  const lines = [
    line("Air", "°C", 1, [10, 14]),
    line("Humidity", "%", 0, [80, 60]),
    line("Floor", "°C", 1, [8, 8]),
    line("CO2", "ppm", 0, [700, 900]),
  ];

  it("have an axis for each unit, and each line is on that of its own", () => {
    const option = lineOption(lines, undefined, { from: 0, until: 60_000, fixed: true, palette: (name) => name }) as {
      yAxis: { name: string; position?: string; offset?: number }[];
      series: { yAxisIndex: number; endLabel: { show: boolean } }[];
    };
    expect(option.yAxis.map((axis) => [axis.name, axis.position, axis.offset])).toEqual([
      ["°C", undefined, undefined],
      ["%", "right", 0],
      ["ppm", "left", 52],
    ]);
    expect(option.series.map((one) => one.yAxisIndex)).toEqual([0, 1, 0, 2]);
    expect(option.series.some((one) => one.endLabel.show)).toBe(false);
    expect(unitsOf([])).toEqual([""]);
  });

  it("are all read at one moment, with what changed since the cursor", () => {
    const text = (cursor?: number) =>
      [...readOut(lines, ["Air", "Humidity", "Floor", "CO2"], 30_000, { timeZone: "UTC", cursor }, ["a"]).children].map(
        (row) => row.textContent,
      );
    expect(text().slice(1)).toEqual(["Air: 12.0 °C", "Humidity: 70 %", "Floor: 8.0 °C", "CO2: 800 ppm"]);
    expect(text(60_000)[1]).toBe("Air: 12.0 °C (−2.0 °C)");
    expect(text(60_000).at(-1)).toMatch(/^30 s before the cursor at /);
    expect(text(600_000)[1]).toBe("Air: 12.0 °C");
  });

  it("do not let a name that somebody gave become a part of the page", () => {
    const box = readOut([line("x", "", 0, [1, 2])], ["<img src=x onerror=alert(1)>"], 30_000, {}, ["a"]);
    expect(box.querySelector("img")).toBeNull();
  });
});

describe("a length of time", () => {
  it("is said in its two largest parts", () =>
    expect([300, 42_000, 65_000, 3_599_600, 7_800_000, 200_000_000].map(lengthWords)).toEqual([
      "0.3 s",
      "42 s",
      "1 min 5 s",
      "60 min",
      "2 h 10 min",
      "2 d 8 h",
    ]));
});
