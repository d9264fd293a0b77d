import type { Finding, Point, Spectrum } from "@/api/types";
import { mountIn, serviceStandIn } from "@/testing";
import { flushPromises } from "@vue/test-utils";
import { createPinia, setActivePinia } from "pinia";
import { afterEach, describe, expect, it, vi } from "vitest";
import { figuresOf, findingWords, markables, marked, speedWords, three } from "./spectra";
import VibrationSheet from "./VibrationSheet.vue";
import { greatest, rgb, roundTicks, shade } from "./waterfall";
import { xyOption } from "./xyOption";

// It draws on a canvas, which is not there in these tests.
vi.mock("./XyChart.vue", () => ({ __esModule: true, default: { render: () => null } }));

const SPECTRUM: Spectrum = {
  time: "2026-03-01T08:00:00Z",
  kind: "velocity",
  unit: "mm/s",
  stepHz: 3.125,
  hz: [12.5, 78.1, 156.3],
  values: [0.1, 1.7, 0.4],
  rms: 1.8,
  speed: { rpm: 4680, source: "PLATE" },
  lines: [{ hz: 78, rms: 1.7, order: 1 }],
  markers: [
    { part: "speed", bearing: "", hz: 78 },
    { part: "speed", bearing: "", hz: 156 },
    { part: "outer-ring", bearing: "bowl bearing", hz: 280.8 },
  ],
  findings: [
    { pattern: "outer-ring", bearing: "bowl bearing", lines: [{ hz: 280.8, rms: 0.5, order: 3.6 }], sidebands: [] },
  ],
};
const WAVEFORM = {
  time: "2026-03-01T08:00:00Z",
  unit: "m/s²",
  samples: 2048,
  samplesPerSecond: 6400,
  seconds: [0, 0.1],
  values: [1, -1],
  bandHz: [10, 1000],
  figures: { "velocity-rms": 1.8, peak: 12.34, kurtosis: 5.6 },
};

afterEach(() => {
  document.body.innerHTML = "";
  vi.unstubAllGlobals();
});

describe("what is marked in a spectrum", () => {
  it("is the running speed with five multiples, or a part of a bearing with three", () => {
    const all = markables(SPECTRUM.markers);
    expect(all.map((one) => one.label)).toEqual(["running speed", "bowl bearing: outer ring"]);
    expect(marked(all[0], 1000).map((one) => Math.round(one.hz))).toEqual([78, 156, 234, 312, 390]);
    expect(marked(all[1], 600).map((one) => one.label)).toEqual(["1×", "2×"]);
    expect(marked(undefined, 600)).toEqual([]);
  });

  it("has sidebands around each multiple, as far as they are shown", () => {
    const gear = { id: "own", label: "own frequency", hz: 300 };
    expect(marked(gear, 640, 25).map(({ hz, beside }) => [hz, !!beside])).toEqual([
      [300, false],
      [275, true],
      [325, true],
      [250, true],
      [350, true],
      [600, false],
      [575, true],
      [625, true],
      [550, true],
    ]);
    expect(marked({ ...gear, hz: 30 }, 100, 25).map(({ hz }) => hz)).not.toContain(-20);
    expect(marked({ ...gear, hz: 0 }, 640)).toEqual([]);
  });

  it("is nothing where the speed is not known", () => {
    expect(markables([])).toEqual([]);
    expect(speedWords(null)).toBe("not known");
    expect(speedWords(SPECTRUM.speed)).toBe("4680 rpm, from the plate, made exact by the spectrum");
  });
});

describe("words and numbers", () => {
  it("have three digits whatever their size", () =>
    expect([0, 0.001234, 1.2345, 78.123, 280.84, 4680].map(three)).toEqual([
      "0.00",
      "0.00123",
      "1.23",
      "78.1",
      "281",
      "4680",
    ]));

  it("name the bearing and stay a hint", () => {
    expect(findingWords(SPECTRUM.findings[0] as Finding)).toBe(
      'Bearing "bowl bearing": The envelope repeats as often as a ball or roller passes the outer ring. This usually points to damage there.',
    );
    const turning = {
      pattern: "inner-ring" as const,
      bearing: "drive end",
      lines: [],
      sidebands: [{ hz: 9, rms: 1, order: 1 }],
    };
    expect(findingWords(turning)).toContain("Sidebands at the running speed");
    expect(findingWords({ pattern: "unbalance", bearing: "", lines: [], sidebands: [] })).toContain("unbalance");
  });

  it("leave out what the waveform cannot show", () =>
    expect(figuresOf(WAVEFORM)).toEqual([
      { label: "Velocity, RMS", value: "1.80 mm/s" },
      { label: "Peak", value: "12.3 m/s²" },
      { label: "Kurtosis", value: "5.60" },
    ]));
});

describe("the drawing", () => {
  it("says at which multiple of the speed the pointer is, and escapes names", () => {
    const option = xyOption([{ name: "<b>", x: [10], y: [1] }], {
      xUnit: "Hz",
      yUnit: "mm/s",
      marks: [{ hz: 78, label: "1×" }],
      speedHz: 78,
      palette: (name) => name,
    }) as unknown as {
      tooltip: { formatter: (items: object[]) => string };
      series: { markLine: { data: object[] } }[];
    };
    expect(option.tooltip.formatter([{ seriesName: "<b>", value: [156, 0.4], marker: "" }])).toBe(
      "156 Hz (2.00×)<br>&#60;b&#62; 0.400 mm/s",
    );
    expect(option.series[0]?.markLine.data).toHaveLength(1);
  });

  it("of many spectra is darker where it vibrates more, and survives nothing at all", () => {
    expect(greatest([])).toBe(1);
    expect(greatest([{ time: "", values: [0, 4, 1] }])).toBe(4);
    const [low, high] = [rgb("#eeeadb"), rgb("#20241c")];
    expect(shade(0, low, high)).toEqual(low);
    expect(shade(1, low, high)).toEqual(high);
    expect(shade(0.25, low, high)[0]).toBe(Math.round((low[0] + high[0]) / 2));
  });
});

describe("a scale", () => {
  it("is written on at round numbers", () => {
    expect(roundTicks(10, 1000).map((tick) => tick.hz)).toEqual([200, 400, 600, 800]);
    expect(roundTicks(0, 200).map((tick) => tick.hz)).toEqual([0, 50, 100, 150]);
  });
});

describe("the sheet of a point", () => {
  const point = { id: "p", name: "Radial", direction: "radial", quantity: "vibration-velocity" } as Point;

  async function sheet(answers: Record<string, unknown>) {
    setActivePinia(createPinia());
    const calls = serviceStandIn(answers);
    const view = await mountIn(VibrationSheet, { point });
    await flushPromises();
    await flushPromises();
    return { view, calls };
  }

  it("is not there for a point without waveforms", async () => {
    const { view, calls } = await sheet({ "GET points/p/waveforms?from=1970-01-01T00:00:00Z&limit=500": [] });
    expect(view.text()).toBe("");
    expect(calls.map((call) => call.path)).toHaveLength(1);
  });

  it("shows figures, lines and what they point to", async () => {
    const { view } = await sheet({
      "GET points/p/waveforms?from=1970-01-01T00:00:00Z&limit=500": [
        { time: SPECTRUM.time, samples: 2048, samplesPerSecond: 6400, bytes: 3000 },
      ],
      "GET points/p/spectrum?kind=velocity&fromHz=10&untilHz=1000": SPECTRUM,
      "GET points/p/waveform": WAVEFORM,
    });
    expect(view.text()).toContain("1.80 mm/s");
    expect(view.text()).toContain("1.00×");
    expect(view.text()).toContain("bowl bearing");
    expect(view.text()).toContain("A hint, not a diagnosis");
  });
});
