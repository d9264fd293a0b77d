import { describe, expect, it } from "vitest";
import { ticks } from "./ticks";

const range = (from: string, until: string) => ({ from: Date.parse(from), until: Date.parse(until) });
/** The day before the month, whatever the language of the machine. */
const labels = (from: string, until: string, most: number, zone: string) =>
  ticks(range(from, until), most, zone).map((tick) => tick.label.replace(/^(\p{L}+) (\d+)$/u, "$2 $1"));
const times = (from: string, until: string, most: number, zone: string) =>
  ticks(range(from, until), most, zone).map((tick) => new Date(tick.at).toISOString().slice(0, 16));

describe("the moments below a chart", () => {
  it("are round on the clock of the site", () => {
    expect(times("2026-11-30T01:10Z", "2026-11-30T07:10Z", 6, "Asia/Kolkata")).toEqual([
      "2026-11-30T01:30",
      "2026-11-30T02:30",
      "2026-11-30T03:30",
      "2026-11-30T04:30",
      "2026-11-30T05:30",
      "2026-11-30T06:30",
    ]);
    expect(labels("2026-11-30T01:10Z", "2026-11-30T02:10Z", 4, "Asia/Kolkata")).toEqual([
      "06:45",
      "07:00",
      "07:15",
      "07:30",
    ]);
  });

  it("keep their hours on days on which the clock changes", () => {
    expect(labels("2026-10-24T22:00Z", "2026-10-25T23:00Z", 9, "Europe/Berlin")).toEqual([
      "25 Oct",
      "03:00",
      "06:00",
      "09:00",
      "12:00",
      "15:00",
      "18:00",
      "21:00",
      "26 Oct",
    ]);
    expect(times("2026-10-03T13:00Z", "2026-10-03T18:00Z", 6, "Australia/Lord_Howe")).toEqual([
      "2026-10-03T13:30",
      "2026-10-03T14:30",
      "2026-10-03T16:00",
      "2026-10-03T17:00",
      "2026-10-03T18:00",
    ]);
  });

  it("are days, Mondays, months and years for longer times", () => {
    expect(labels("2026-11-24T12:00Z", "2026-11-28T12:00Z", 6, "UTC")).toEqual([
      "25 Nov",
      "26 Nov",
      "27 Nov",
      "28 Nov",
    ]);
    expect(labels("2026-11-01T00:00Z", "2026-11-30T00:00Z", 6, "UTC")).toEqual([
      "2 Nov",
      "9 Nov",
      "16 Nov",
      "23 Nov",
      "30 Nov",
    ]);
    expect(labels("2026-11-30T00:00Z", "2027-11-30T00:00Z", 6, "UTC")).toEqual(["2027", "Apr", "Jul", "Oct"]);
    expect(labels("2010-05-01T00:00Z", "2026-11-30T00:00Z", 5, "UTC")).toEqual(["2012", "2016", "2020", "2024"]);
  });

  it("are never more than asked for by much, and none for no time", () => {
    for (const hours of [0.01, 0.3, 1, 5, 20, 30, 70, 200, 900, 3000, 9000, 40_000]) {
      const from = Date.parse("2026-02-27T13:21:07Z");
      const found = ticks({ from, until: from + hours * 3_600_000 }, 8, "America/St_Johns");
      expect(found.length).toBeLessThanOrEqual(9);
      expect(found.length).toBeGreaterThanOrEqual(2);
      expect(found.map((tick) => tick.at)).toEqual([...found.map((tick) => tick.at)].sort((a, b) => a - b));
    }
    const at = Date.parse("2026-02-27T13:21:07Z");
    expect(ticks({ from: at, until: at }, 8, "UTC").length).toBeLessThanOrEqual(1);
  });
});
