import type { Latest, Point } from "@/api/types";
import { mount } from "@vue/test-utils";
import { describe, expect, it } from "vitest";
import FenceMark from "./FenceMark.vue";
import HeadroomBar from "./HeadroomBar.vue";
import ReadingValue from "./ReadingValue.vue";
import { unjudged, worstJudged } from "./severity";

const latest = (part: Partial<Latest> = {}): Latest => ({
  time: new Date().toISOString(),
  value: 6.4,
  quality: "GOOD",
  severity: "normal",
  zone: "B",
  headroomPercent: 31.4,
  nextBoundary: 5.1,
  nextZone: "C",
  ...part,
});
const point = (part: Partial<Latest> | null, interval = 10) =>
  ({
    name: "Axial",
    unit: "mm/s",
    decimals: 2,
    words: {},
    intervalSeconds: interval,
    latest: part && latest(part),
  }) as Point;

describe("the worst", () => {
  it("is of what is judged; of nothing judged there is none", () => {
    expect(worstJudged(["normal", null, "warning", undefined])).toBe("warning");
    expect(worstJudged([null, undefined])).toBeNull();
  });
});

describe("the fence", () => {
  it.each([
    ["normal", 0],
    ["advisory", 1],
    ["warning", 2],
    ["critical", 3],
  ] as const)("of %s has %i rails, and the word", (severity, rails) => {
    const mark = mount(FenceMark, { props: { severity } });
    expect(mark.findAll(".rail")).toHaveLength(rails);
    expect(mark.text()).toBe(severity);
  });

  it("is not there where nothing is known, which is not normal", () => {
    const mark = mount(FenceMark, { props: { severity: null, unknown: unjudged(latest({ quality: "BAD" })) } });
    expect(mark.find("svg").exists()).toBe(false);
    expect(mark.text()).toBe("sensor fault");
    expect(mount(FenceMark, { props: { severity: null } }).text()).toBe("no limits");
  });

  it("has no colour where it names what could be", () =>
    expect(mount(FenceMark, { props: { severity: "critical", quiet: true } }).classes()).not.toContain("critical"));

  it("says the word to who cannot see it even where it is not shown", () => {
    const mark = mount(FenceMark, { props: { severity: "critical", word: false } });
    expect(mark.find(".unseen").text()).toBe("critical");
  });
});

describe("headroom", () => {
  it("is a bar and a number", () => {
    const bar = mount(HeadroomBar, { props: { latest: latest() } });
    expect(bar.text()).toBe("31 %");
    expect(bar.find(".left").attributes("style")).toContain("width: 31%");
  });

  it("is a word in the worst zone, where nothing is left to lose", () =>
    expect(mount(HeadroomBar, { props: { latest: latest({ nextZone: null, headroomPercent: 0 }) } }).text()).toBe(
      "worst zone",
    ));

  it("is not shown where no limits hold", () =>
    expect(mount(HeadroomBar, { props: { latest: latest({ headroomPercent: null }) } }).text()).toBe("no limits"));
});

describe("a value", () => {
  it("says its unit and age", () => {
    const value = mount(ReadingValue, { props: { point: point({}) } });
    expect(value.text()).toContain("6.40");
    expect(value.text()).toContain("mm/s");
    expect(value.text()).toContain("0 s ago");
  });

  it("looks stale when three reports are missing", () => {
    const value = mount(ReadingValue, {
      props: { point: point({ time: new Date(Date.now() - 61_000).toISOString() }) },
    });
    expect(value.classes()).toContain("stale");
    expect(value.text()).toContain("stale");
  });

  it("looks bad when its quality is", () => {
    const value = mount(ReadingValue, { props: { point: point({ quality: "BAD" }) } });
    expect(value.classes()).toContain("bad");
    expect(value.text()).toContain("bad quality");
  });

  it("is a dash before the first reading", () => {
    const value = mount(ReadingValue, { props: { point: point(null) } });
    expect(value.text()).toContain("–");
    expect(value.text()).toContain("nothing yet");
  });
});
