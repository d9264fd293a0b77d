import type { LimitSet, Panel, Point } from "@/api/types";
import { mountIn, problem, serviceStandIn } from "@/testing";
import { flushPromises } from "@vue/test-utils";
import { createPinia, setActivePinia } from "pinia";
import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import PanelView from "../PanelView.vue";
import { useAlerts } from "@/alerts/alerts";
import { usePlaces } from "@/places/places";
import { keep, kept } from "./guidance/round";
import { KINDS } from "./kinds";
import { wordFor } from "@/look/reading";
import { scaleOf, share, zoneOf } from "./look";
import { rowsOf } from "./hours/cells";
import { binsOf } from "@/chart/spread";
import { closeness, correlation, pairsOf } from "./pairs/pairs";
import { project, scaleBar, spots, stretchesOf } from "./map/track";
import { stretches } from "./states/strip";
import { over, tally } from "./tally/tally";
import { markdown } from "./text/markdown";

// It draws on a canvas, which is not there in these tests.
vi.mock("@/vibration/XyChart.vue", () => ({ __esModule: true, default: { render: () => null } }));
vi.mock("@/chart/DotsChart.vue", () => ({ __esModule: true, default: { render: () => null } }));
vi.mock("@/chart/SpreadChart.vue", () => ({ __esModule: true, default: { render: () => null } }));

const VIBRATION = {
  id: "v",
  unit: "mm/s",
  zones: [
    { label: "A", severity: "normal", from: null, to: 1.4 },
    { label: "B", severity: "normal", from: 1.4, to: 2.8 },
    { label: "C", severity: "warning", from: 2.8, to: 4.5 },
    { label: "D", severity: "critical", from: 4.5, to: null },
  ],
} as unknown as LimitSet;
const LIMITS = new Map([["v", VIBRATION]]);

function point(part: object = {}, latest: object | null = {}): Point {
  return {
    id: "p",
    name: "Axial",
    placeId: "pump",
    path: ["Creamery", "Pump"],
    unit: "mm/s",
    decimals: 2,
    words: {},
    limitSet: "v",
    intervalSeconds: 60,
    direction: "axial",
    tags: [],
    latest: latest && {
      time: new Date().toISOString(),
      value: 2.1,
      quality: "GOOD",
      severity: "normal",
      zone: "B",
      headroomPercent: 60,
      nextZone: "C",
      nextBoundary: 2.8,
      ...latest,
    },
    ...part,
  } as unknown as Point;
}

/** What every panel must be able to draw: normal, abnormal, stale, bad, missing and extreme values. */
const SAMPLES: Record<string, Point> = {
  normal: point(),
  abnormal: point({}, { value: 5.2, severity: "critical", zone: "D", headroomPercent: 0, nextZone: null }),
  stale: point({}, { time: "2020-01-01T00:00:00Z" }),
  bad: point({}, { quality: "BAD", severity: null, zone: null, headroomPercent: null, nextZone: null }),
  missing: point({}, null),
  extreme: point({ limitSet: null }, { value: -1.7e300, severity: null, zone: null, headroomPercent: null }),
};

function panel(kind: Panel["kind"], part: object = {}): Panel {
  return {
    id: "x",
    kind,
    title: "Panel",
    pointIds: ["p"],
    selection: null,
    range: null,
    look: null,
    x: 0,
    y: 0,
    ...KINDS[kind].size,
    ...part,
  } as Panel;
}

async function drawn(kind: Panel["kind"], points: Point[], part: object = {}) {
  const view = await mountIn(PanelView, { panel: panel(kind, part), points, limits: LIMITS, open: false });
  await flushPromises();
  return view;
}

const READ_AT = Date.now() - 60_000;

const SPECTRUM = {
  time: "2026-03-01T08:00:00Z",
  kind: "velocity",
  unit: "mm/s",
  hz: [10, 50],
  values: [0, 2],
  speed: { rpm: 3000, source: "FOUND" },
  lines: [{ hz: 50, rms: 2, order: 1 }],
  markers: [{ part: "speed", bearing: "", hz: 50 }],
  findings: [],
};

/** A minute from 2.0 on, and three from 4.5 on. */
const DISTRIBUTION = {
  knownSeconds: 240,
  lowest: 2,
  step: 0.5,
  seconds: [60, 0, 0, 0, 0, 180],
  exceeded: Array.from({ length: 101 }, (_, percent) => (percent < 75 ? 4.6 : 2.1)),
};

beforeEach(() => {
  setActivePinia(createPinia());
  const day = { from: "2026-03-01T00:00:00Z", min: 1, mean: 2, max: 5, count: 3, secondsInZone: { B: 3000, D: 60 } };
  serviceStandIn(
    new Proxy({} as Record<string, unknown>, {
      has: () => true,
      get: (_answers, key: string) =>
        key.includes("/readings")
          ? { times: [READ_AT], values: [2.1], qualities: [0], gaps: [] }
          : key.includes("/summaries")
            ? [day]
            : key.includes("/summary")
              ? day
              : key.includes("/waveforms")
                ? [{ time: SPECTRUM.time }]
                : key.includes("/spectrum")
                  ? SPECTRUM
                  : key.includes("/distribution")
                    ? DISTRIBUTION
                    : key.includes("/exposure")
                      ? {
                          minutes: 480,
                          coveredSeconds: 20_000,
                          limitSet: "v",
                          mean: { value: 1.4, severity: "normal" },
                        }
                      : [],
    }),
  );
});
afterEach(() => {
  document.body.innerHTML = "";
  vi.unstubAllGlobals();
});

describe.each(Object.keys(KINDS) as Panel["kind"][])("a panel of the kind %s", (kind) => {
  it.each(Object.keys(SAMPLES))("draws a value that is %s", async (sample) => {
    const complained = vi.spyOn(console, "warn");
    const view = await drawn(kind, [SAMPLES[sample] as Point]);
    expect(view.text()).toContain("Panel");
    expect(view.html()).not.toMatch(/NaN|undefined|Infinity|\[object/);
    expect(complained.mock.calls.map((call) => String(call[0])).filter((text) => text.includes("[Vue"))).toEqual([]);
  });

  it("says what is missing when there are no points", async () => {
    const view = await drawn(kind, [], { pointIds: [] });
    expect(view.text().length).toBeGreaterThan(5);
  });
});

describe("a panel of more points than it can show", () => {
  it("shows the first, asks for no others, and says how many there are", async () => {
    const many = Array.from({ length: 30 }, (_, i) => point({ id: "p" + i, name: "P" + i }));
    const view = await drawn("exposure", many);
    expect(view.findAll(".meter")).toHaveLength(24);
    expect(view.text()).toContain("24 of 30 points.");
  });
});

describe("a camera", () => {
  const taken = (at: string) => new Response("picture", { headers: { "Last-Modified": at } });

  it("shows its newest picture, and keeps it with what is wrong when the next one does not come", async () => {
    vi.useFakeTimers({ shouldAdvanceTime: true });
    vi.stubGlobal("URL", Object.assign(URL, { createObjectURL: () => "blob:one", revokeObjectURL: () => undefined }));
    let answer = () => taken(new Date().toUTCString());
    serviceStandIn({ "GET cameras/c/picture": () => answer() });
    const view = await drawn("camera", [], { cameraId: "c" });
    expect(view.find("img").attributes("src")).toBe("blob:one");
    expect(view.text()).toContain("Taken");
    answer = () => problem(503, "The camera 'Door' gives no picture: it is off.", "Check it.");
    await vi.advanceTimersByTimeAsync(11_000);
    await flushPromises();
    expect(view.text()).toContain("it is off");
    expect(view.find("img").classes()).toContain("old");
    vi.useRealTimers();
  });

  it("is chosen first", async () => {
    expect((await drawn("camera", [])).text()).toContain("No camera is chosen");
  });
});

describe("open alerts", () => {
  const alert = (id: string, placeId: string, pointId: string | null) => ({
    id,
    placeId,
    pointId,
    path: ["Creamery"],
    severity: "warning",
    state: "unacknowledged",
    summary: "Alert " + id,
    raisedAt: "2026-03-01T08:00:00Z",
    startedAt: "2026-03-01T08:00:00Z",
  });

  it("are those of the place that is selected, with all below it, and no other site's", async () => {
    const place = (id: string, parentId: string | null) => ({ id, parentId, kind: "asset", name: id, right: "look" });
    serviceStandIn({
      "GET places": [place("creamery", null), place("pump", "creamery"), place("spring", null)],
      "GET limits": [],
      "GET alerts": [alert("a", "pump", "p"), alert("b", "creamery", null), alert("c", "spring", "q")],
    });
    await usePlaces().load();
    await useAlerts().load();
    const whole = { placeId: "creamery", quantity: null, assetKind: null, tag: null };
    const shown = async (part: object) =>
      (await drawn("alerts", [point()], part)).findAll("li").map((line) => line.find("a").text());
    expect(await shown({ pointIds: [], selection: whole })).toEqual(["Alert a", "Alert b"]);
    expect(await shown({ pointIds: [], selection: { ...whole, quantity: "temperature" } })).toEqual(["Alert a"]);
    expect(await shown({ pointIds: [] })).toEqual(["Alert a", "Alert b", "Alert c"]);
  });
});

describe("what panels show", () => {
  it("of a time instead of the newest value", async () => {
    expect((await drawn("value", [point()], { statistic: "maximum", range: "P7D" })).text()).toContain(
      "5.00 mm/smaximum of 7 d",
    );
  });

  it("words that stand for values", async () => {
    const door = point({ unit: "", limitSet: null, decimals: 0 }, { value: 1, zone: null, severity: null });
    const look = { words: { "0": "shut", "1": "open" } };
    expect((await drawn("value", [door], { look })).text()).toContain("open");
    expect((await drawn("picture", [door], { look, drawing: "door" })).text()).toContain("open");
  });

  it("how full a vessel is, and how much goes in still", async () => {
    const view = await drawn("vessel", [point({ unit: "m", limitSet: null }, { value: 4 })], {
      look: { lowest: 0, highest: 5 },
    });
    expect(view.text()).toContain("80 % full, 1.00 m left");
  });

  it("rows in the order that was asked for", async () => {
    const low = point({ id: "a", name: "Zeta" }, { value: 1, headroomPercent: 90 });
    const high = point({ id: "b", name: "Alpha" }, { value: 2, headroomPercent: 95 });
    const rows = async (order: string) =>
      (await drawn("bars", [low, high], { order })).findAll("th").map((cell) => cell.text());
    expect(await rows("headroom")).toEqual(["Zeta", "Alpha"]);
    expect(await rows("value")).toEqual(["Alpha", "Zeta"]);
    expect(await rows("name")).toEqual(["Alpha", "Zeta"]);
  });

  it("the share of a limit that the mean of a shift has used up", async () => {
    expect((await drawn("exposure", [point()])).text()).toContain("mean of 8 h, 50 % of 2.80 mm/s");
  });

  it("the worst zone of each day by its fence", async () => {
    const view = await drawn("days", [point()]);
    expect(view.find("tbody").text()).toContain("2.00");
    expect(view.find("tbody .fence").text()).toBe("critical");
  });

  it("no motion of what is not known now", async () => {
    expect((await drawn("picture", [SAMPLES.normal as Point], { drawing: "fan" })).find("figure.on").exists()).toBe(
      true,
    );
    expect((await drawn("picture", [SAMPLES.stale as Point], { drawing: "fan" })).text()).toContain("unknown");
    expect((await drawn("picture", [SAMPLES.bad as Point], { drawing: "fan" })).text()).toContain("unknown");
  });
});

describe("a count of states", () => {
  const stale = (one: Point) => one.latest?.time === SAMPLES.stale?.latest?.time;

  it("counts each point once, by what is known now", () => {
    const counts = tally(Object.values(SAMPLES), stale);
    expect(counts.bySeverity.map((one) => one.count)).toEqual([1, 0, 0, 1]);
    expect(counts.others).toEqual([
      { name: "no limits", count: 1 },
      { name: "stale", count: 1 },
      { name: "sensor fault", count: 1 },
      { name: "nothing yet", count: 1 },
    ]);
  });

  it("adds only values of one unit, and leaves bad ones out", () => {
    const other = point({ unit: "m" });
    expect(over([point(), point({}, { value: 4 }), SAMPLES.bad as Point], "sum")).toEqual({ value: 6.1, used: 2 });
    expect(over([point(), other], "mean")).toBeUndefined();
    expect(over([SAMPLES.missing as Point], "mean")).toBeUndefined();
  });
});

describe("a scale", () => {
  it("is that of the panel, else of the limits, else of the unit, and never empty", () => {
    expect(scaleOf({ lowest: 1, highest: 3 }, VIBRATION, point())).toEqual({ lowest: 1, highest: 3 });
    expect(scaleOf(null, VIBRATION, point())).toMatchObject({ lowest: 0 });
    expect(scaleOf(null, undefined, point({ unit: "%" }))).toEqual({ lowest: 0, highest: 100 });
    expect(scaleOf(null, undefined, point({}, { value: 37 })).highest).toBe(50);
    expect(scaleOf(null, undefined, point({}, { value: -18 })).lowest).toBe(-20);
    const odd = scaleOf({ lowest: 9 }, undefined, point({}, { value: 1 }));
    expect(odd.highest).toBeGreaterThan(odd.lowest);
  });

  it("holds what lies beyond it at its ends", () => {
    expect(share(99, { lowest: 0, highest: 10 })).toBe(1);
    expect(share(-99, { lowest: 0, highest: 10 })).toBe(0);
  });

  it("knows the zone of a value on a boundary as the service does", () => {
    expect(zoneOf(2.8, VIBRATION)?.label).toBe("B");
    expect(zoneOf(2.81, VIBRATION)?.label).toBe("C");
    const from72 = {
      zones: [
        { label: "mild", severity: "normal", from: null, to: 72, fromIncluded: null },
        { label: "heat", severity: "advisory", from: 72, to: null, fromIncluded: true },
      ],
    } as unknown as LimitSet;
    expect(zoneOf(72, from72)?.label).toBe("heat");
    const cold = {
      zones: [
        { label: "frost", severity: "critical", from: null, to: 2 },
        { label: "kept", severity: "normal", from: 2, to: null },
      ],
    } as unknown as LimitSet;
    expect(zoneOf(2, cold)?.label).toBe("kept");
  });

  it("takes a word for a number however it is written", () => {
    expect(wordFor(1, { "1.0": "open" })).toBe("open");
    expect(wordFor(2, { "1.0": "open" })).toBeUndefined();
  });
});

describe("a strip of states", () => {
  const line = (
    times: number[],
    values: number[],
    qualities: number[],
    gaps = [] as { from: number; until: number }[],
  ) => ({
    point: point(),
    times,
    values,
    qualities,
    gaps,
  });

  it("joins what is in one zone, and leaves gaps and bad values empty", () => {
    const found = stretches(
      line([0, 10, 20, 30, 60], [1, 1.2, 5, 99, 1], [0, 0, 0, 2, 0], [{ from: 30, until: 60 }]),
      VIBRATION,
      null,
      70,
    );
    expect(found.map((one) => [one.from, one.until, one.name])).toEqual([
      [0, 20, "A"],
      [20, 30, "D"],
      [60, 70, "A"],
    ]);
  });

  it("goes by the words where there are some", () => {
    const found = stretches(line([0, 10], [0, 1], [0, 0]), undefined, { words: { "0": "shut", "1": "open" } }, 20);
    expect(found.map((one) => one.name)).toEqual(["shut", "open"]);
  });

  it("goes by the point's own words where the panel has none", () => {
    const door = { ...line([0, 10], [0, 1], [0, 0]), point: point({ words: { "0": "closed", "1": "ajar" } }) };
    expect(stretches(door, undefined, null, 20).map((one) => one.name)).toEqual(["closed", "ajar"]);
    expect(stretches(door, undefined, { words: { "1": "open" } }, 20).map((one) => one.name)).toEqual(["0.00", "open"]);
  });
});

describe("a track", () => {
  const line = (times: number[], values: number[], qualities = values.map(() => 0)) => ({
    point: point(),
    times,
    values,
    qualities,
    gaps: [],
  });

  it("is put together from latitude and longitude that were read at other moments", () => {
    const found = spots(line([10, 20, 30], [54, 54.1, 54.2]), line([0, 20, 40], [-2, -2.2, -2.4]), line([5], [4.5]));
    expect(found.map((one) => [one.time, one.latitude, Number(one.longitude.toFixed(3)), one.value])).toEqual([
      [10, 54, -2.1, 4.5],
      [20, 54.1, -2.2, 4.5],
      [30, 54.2, -2.3, 4.5],
    ]);
  });

  it("has no position where one of the two is bad or not known", () => {
    expect(spots(line([10, 20], [54, 99], [0, 2]), line([0, 40], [-2, -2]))).toHaveLength(1);
    expect(spots(line([50], [54]), line([0, 40], [-2, -2]))).toEqual([]);
  });

  it("is cut where nothing was heard for long", () => {
    const at = (time: number) => ({ time, latitude: 0, longitude: 0 });
    expect(stretchesOf([at(0), at(1), at(2), at(3), at(60), at(61)]).map((part) => part.length)).toEqual([4, 2]);
    expect(stretchesOf([])).toEqual([]);
  });

  it("is drawn in its true shape, north up", () => {
    const all = [
      { latitude: 54.0, longitude: -2.0 },
      { latitude: 54.01, longitude: -2.0 },
      { latitude: 54.0, longitude: -1.99 },
    ];
    const to = project(all, 600, 380);
    expect(to.y(all[1] as (typeof all)[0])).toBeLessThan(to.y(all[0] as (typeof all)[0]));
    const up = to.y(all[0] as (typeof all)[0]) - to.y(all[1] as (typeof all)[0]);
    const across = to.x(all[2] as (typeof all)[0]) - to.x(all[0] as (typeof all)[0]);
    expect(across / up).toBeCloseTo(Math.cos((54.005 * Math.PI) / 180), 3);
    expect(up * to.metresAUnit).toBeCloseTo(1113.2, 1);
  });

  it("shows some ground around what stands still, with a round scale", () => {
    const to = project([{ latitude: 54, longitude: -2 }], 600, 380);
    expect(to.x({ longitude: -2 })).toBe(300);
    expect(scaleBar(to.metresAUnit, 150).words).toBe("50 m");
    expect(scaleBar(40, 150).words).toBe("5 km");
  });
});

describe("text", () => {
  it("is Markdown in which nothing can do harm", () => {
    const html = markdown(
      "**Call** [us](tel:123)\n\n<script>alert(1)</script> <img src=x onerror=alert(1)> ![x](http://spy.example/a.png)\n\n[bad](javascript:alert(1)) [worse](data:text/html,x) [out](//evil.example)",
    );
    const page = new DOMParser().parseFromString(html, "text/html");
    expect(page.querySelector("strong")?.textContent).toBe("Call");
    expect([...page.querySelectorAll("a")].map((link) => link.getAttribute("href"))).toEqual([
      "tel:123",
      "http://spy.example/a.png",
    ]);
    expect(page.querySelectorAll("script, img, iframe, [onerror]")).toHaveLength(0);
  });
});

describe("guidance", () => {
  const round = (steps: string[]) =>
    panel("guidance", { title: "Evening round", steps, selection: { placeId: "barn" } as Panel["selection"] });
  const mounted = (of: Panel) => mountIn(PanelView, { panel: of, points: [], limits: LIMITS });

  it("writes into the logbook what was done and what was not, and begins anew", async () => {
    localStorage.clear();
    const calls = serviceStandIn({
      "GET places": [{ id: "barn", parentId: null, kind: "site", name: "Barn", right: "operate", limitSets: [] }],
      "GET limits": [],
      "POST logbook": {},
    });
    await usePlaces().load();
    const view = await mounted(round(["Lids locked", "Meter read"]));
    expect(view.find("form").exists()).toBe(false);
    await view.findAll("input[type=checkbox]")[1]!.setValue(true);
    // Somebody who comes back to the page goes on.
    const again = await mounted(round(["Lids locked", "Meter read"]));
    expect(again.text()).toContain("Write into the logbook (1 of 2)");
    await again.find("form").trigger("submit");
    await flushPromises();
    expect(calls.find((call) => call.method === "POST")?.body).toEqual({
      placeId: "barn",
      text: "Evening round: 1 of 2 steps done.\nNot done: Lids locked",
    });
    expect(again.find("form").exists()).toBe(false);
  });

  it("forgets a round that was left for half a day, or whose steps are others now", () => {
    keep("x", [true, true], 0);
    expect(kept("x", 2, 3_600_000)).toEqual([true, true]);
    expect(kept("x", 2, 13 * 3_600_000)).toEqual([false, false]);
    expect(kept("x", 3, 0)).toEqual([false, false, false]);
  });
});

describe("hours by days", () => {
  const hour = (from: string, mean: number, more: object = {}) =>
    ({ from, min: mean - 1, mean, max: mean + 1, count: 60, secondsInZone: { B: 3600 }, ...more }) as never;

  it("are those of the site, and the hour that comes twice is one", () => {
    const rows = rowsOf(
      [
        hour("2020-10-24T22:00:00Z", 1),
        hour("2020-10-24T23:00:00Z", 2),
        hour("2020-10-25T00:00:00Z", 3),
        hour("2020-10-25T01:00:00Z", 5, { secondsInZone: { D: 5 } }),
        hour("2020-10-25T02:00:00Z", 6, { mean: null }),
      ],
      "mean",
      VIBRATION,
      "Europe/London",
    );
    expect(rows.map((row) => row.cells.map((cell) => cell?.value ?? ".").join(""))).toEqual([
      "24" + ".".repeat(22),
      ".".repeat(23) + "1",
    ]);
    expect(rows[0]?.cells[1]?.severity).toBe("critical");
  });

  it("have a shade and words each", async () => {
    const view = await drawn("hours", [point()]);
    const cells = view.findAll("td");
    expect(cells).toHaveLength(24);
    expect(cells.filter((cell) => cell.attributes("title")?.includes("2.00 mm/s, critical"))).toHaveLength(1);
    expect(cells.filter((cell) => cell.attributes("title")?.endsWith("no readings"))).toHaveLength(23);
  });
});

describe("for how long a value lay where", () => {
  it("is in classes, each in a zone", () => {
    const bins = binsOf(DISTRIBUTION, point(), VIBRATION);
    expect(bins.filter((bin) => bin.seconds)).toEqual([
      { from: 2, until: 2.5, seconds: 60, severity: "normal" },
      { from: 4.5, until: 5, seconds: 180, severity: "critical" },
    ]);
    expect(binsOf({ ...DISTRIBUTION, lowest: 0.1, step: 0.1 }, point(), undefined).map((bin) => bin.until)).toEqual([
      0.2, 0.3, 0.4, 0.5, 0.6, 0.7,
    ]);
  });

  it("is said in words", async () => {
    const view = await drawn("spread", [point()]);
    expect(view.text()).toContain("Half of the time above 4.60 mm/s; nine tenths between 2.10 mm/s and 4.60 mm/s.");
    const curve = await drawn("spread", [point()], { curve: "duration" });
    expect(curve.find("[role=img]").attributes("aria-label")).toContain("Duration curve of Axial");
  });
});

describe("one point against another", () => {
  const line = (values: number[], more: object = {}) =>
    ({
      point: point(),
      times: values.map((_value, i) => i * 10),
      values,
      qualities: values.map(() => 0),
      gaps: [],
      ...more,
    }) as never;

  it("pairs what was at one time, in proportion between readings", () => {
    expect(pairsOf(line([0, 10, 20]), line([1, 2], { times: [5, 20] }))).toEqual([
      { time: 5, x: 5, y: 1 },
      { time: 20, x: 20, y: 2 },
    ]);
  });

  it("pairs nothing across a gap, beyond the ends, or that is bad", () => {
    const up = line([1, 2, 3], { times: [5, 15, 99], qualities: [2, 0, 0] });
    expect(pairsOf(line([0, 10, 20], { gaps: [{ from: 10, until: 20 }] }), up)).toEqual([]);
  });

  it("says how closely both go together", () => {
    const pairs = [1, 2, 3, 4].map((x) => ({ time: x, x, y: -2 * x }));
    expect(correlation(pairs)).toBeCloseTo(-1, 9);
    expect(closeness(pairs)).toBe("They go closely together, one up as the other goes down (r = −1.00).");
    expect(correlation(pairs.map((pair) => ({ ...pair, y: 7 })))).toBeUndefined();
    expect(correlation(pairs.slice(0, 2))).toBeUndefined();
    expect(correlation([...pairs, { time: 9, x: 1e300, y: 1e300 }])).toBeUndefined();
  });

  it("asks for two points", async () => {
    expect((await drawn("pairs", [point()])).text()).toContain("Choose two points");
    const both = await drawn("pairs", [point(), point({ id: "q", name: "Radial" })]);
    expect(both.find("[role=img]").attributes("aria-label")).toBe("Radial against Axial");
  });
});
