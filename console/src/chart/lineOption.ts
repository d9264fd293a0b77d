import { fixed, onAxis, trimmed } from "@/look/numbers";
import { said, t } from "@/language";
import type { LimitSet, Point, Severity } from "@/api/types";
import type { EChartsCoreOption } from "echarts/core";
import { wordFor } from "@/look/reading";
import { nameAmong } from "@/points/names";
import { moment } from "@/look/clock";
import { chartLook, levelAxis, lineColours, tooltipLook, uprightAxis } from "./look";
import { BAD, between, withGaps, type Drawn } from "./series";
import { ticks } from "./ticks";
import type { TimeRange } from "./timeRange";

/** The theme's colours that a chart needs, by name. */
export type Palette = (name: string) => string;

/** Where a scale ends if somebody said so. */
export interface Ends {
  min?: number;
  max?: number;
}

/** What is normal for a point by its baseline. */
export interface Usual {
  low: number;
  high: number;
}

/** A moment that is marked in a chart. */
export interface ChartMark {
  id: number;
  at: number;
  label: string;
}

/** A stretch of an alert: a band above the line, so long as it lasted. */
export interface AlertBand extends TimeRange {
  severity: Severity;
}

const LINES = ["solid", "dashed", "dotted"] as const;
const MOST_TICKS = 8;
/** Where the chart begins below its top, and how high a band is, in pixels. */
const TOP = 24;
const BAND = 6;

/** Boundaries of a limit set, each between two zones: "B | C". */
export function boundaries(set: LimitSet): { value: number; name: string }[] {
  return set.zones
    .slice(1)
    .flatMap((zone, i) =>
      zone.from == null ? [] : [{ value: zone.from, name: `${said(set.zones[i]?.label ?? "")} | ${said(zone.label)}` }],
    );
}

/** A scale that stays the same whatever the readings do: from the limits, a little beyond the outer ones. */
export function fixedScale(set: LimitSet, lowest: number): { min: number; max: number } | undefined {
  const values = boundaries(set).map((boundary) => boundary.value);
  if (!values.length) {
    return undefined;
  }
  const top = Math.max(...values);
  const bottom = Math.min(...values);
  const margin = Math.max((top - bottom) * 0.35, Math.abs(top) * 0.12) || 0.5;
  const fromZero = lowest >= 0 && values.length > 1 && bottom - margin < top * 0.4;
  // Round ends, so that the axis ends on a number that people would write.
  const step = 10 ** Math.floor(Math.log10(margin));
  return {
    min: fromZero ? 0 : tidy(Math.floor((bottom - margin) / step) * step),
    max: Math.min(tidy(Math.ceil((top + margin) / step) * step), set.unit === "%" ? 100 : Infinity),
  };
}

/** Without what arithmetic with parts of ten adds: 0.41, not 0.41000000000000003. */
function tidy(value: number): number {
  return Number(value.toPrecision(12));
}

/** The lowest and the highest of what is drawn; undefined for nothing. */
function ends(lines: Drawn[]): { min: number; max: number } | undefined {
  let [min, max] = [Infinity, -Infinity];
  for (const line of lines) {
    line.values.forEach((value, i) => {
      if (line.qualities[i] !== BAD) {
        min = Math.min(min, value);
        max = Math.max(max, value);
      }
    });
  }
  return min <= max ? { min, max } : undefined;
}

/** A scale that is fixed by limits, made larger in its own steps where a line would lie outside of it and be unseen. */
function around(fixed: { min: number; max: number }, drawn: { min: number; max: number }) {
  const step = (fixed.max - fixed.min) / 4;
  const steps = (by: number) => Math.max(0, Math.ceil(by / step)) * step;
  return { min: tidy(fixed.min - steps(fixed.min - drawn.min)), max: tidy(fixed.max + steps(drawn.max - fixed.max)) };
}

/** A line over time with the limits as thin rails and light tints. */
export function lineOption(
  lines: Drawn[],
  set: LimitSet | undefined,
  options: {
    from: number;
    until: number;
    fixed: boolean;
    palette: Palette;
    ends?: Ends;
    usual?: Usual;
    marks?: ChartMark[];
    alerts?: AlertBand[];
    /** That of the site; without one, this browser's. */
    timeZone?: string;
    /** How many moments have a place below the chart. */
    mostTicks?: number;
    /** The moment from which differences are counted. */
    cursor?: number;
  },
): EChartsCoreOption {
  const { palette } = options;
  const units = unitsOf(lines);
  const points = lines.filter((line) => !line.earlier).map((line) => line.point);
  const names = namesOf(lines);
  const longest = Math.max(0, ...names.slice(0, points.length).map((name) => name.length));
  // Limits and ends that were set hold for the first unit, whose axis is on the left.
  const drawn = ends(lines.filter((line) => line.point.unit === units[0]));
  const fixed = set && options.fixed ? fixedScale(set, drawn?.min ?? 0) : undefined;
  const scale = fixed && drawn ? around(fixed, drawn) : fixed;
  const colours = lineColours(palette);
  const below = ticks(options, options.mostTicks ?? MOST_TICKS, options.timeZone);
  const tickLabels = new Map(below.map((tick) => [tick.at, tick.label]));
  const places = below.map((tick) => tick.at);
  const labelled = units.length === 1 && points.length > 1;
  return {
    ...chartLook(palette),
    grid: {
      left: 16,
      right: labelled ? Math.min(150, 18 + longest * 6.5) : 16,
      top: TOP,
      bottom: 4,
      containLabel: true,
    },
    tooltip: {
      ...tooltipLook(palette),
      formatter: (seen: { axisValue: number }[]) =>
        seen[0] ? readOut(lines, names, seen[0].axisValue, options, colours) : "",
    },
    xAxis: {
      ...levelAxis(palette),
      type: "time",
      min: options.from,
      max: options.until,
      axisTick: { customValues: places },
      axisLabel: {
        color: palette("ink-soft"),
        fontSize: 12,
        hideOverlap: true,
        customValues: places,
        formatter: (at: number) => tickLabels.get(at) ?? "",
      },
      axisPointer: { label: { show: false } },
    },
    yAxis: units.map((unit, i) => ({
      ...uprightAxis(palette, unit),
      nameGap: 6,
      scale: true,
      ...(i === 0
        ? {
            ...(scale ?? {}),
            ...(options.ends?.min === undefined ? {} : { min: options.ends.min }),
            ...(options.ends?.max === undefined ? {} : { max: options.ends.max }),
          }
        : { ...beside(i), splitLine: { show: false } }),
      ...inWords(
        points.filter((point) => point.unit === unit),
        { color: palette("ink-soft"), hideOverlap: true, showMaxLabel: scale && i === 0 ? false : undefined },
      ),
    })),
    series: [
      ...lines.map((line, at) => {
        // What is drawn from an earlier time has the colour of its point, thin and dashed.
        const i = at % Math.max(points.length, 1);
        const colour = colours[i % 4];
        return {
          type: "line",
          name: names[at],
          yAxisIndex: units.indexOf(line.point.unit),
          data: withGaps(line),
          showSymbol: false,
          connectNulls: false,
          sampling: undefined,
          lineStyle: line.earlier
            ? { width: 1.2, color: colour, type: [2, 3], opacity: 0.75 }
            : { width: 1.6, color: colour, type: LINES[Math.floor(i / 4) % 3] },
          itemStyle: { color: colour },
          endLabel: {
            show: labelled && !line.earlier,
            formatter: "{a}",
            color: colour,
            distance: 4,
            width: 140,
            overflow: "truncate",
          },
          labelLayout: { moveOverlap: "shiftY" },
          ...(at === 0 ? marks(set, options.usual, palette) : {}),
        };
      }),
      ...moments(options.marks ?? [], palette),
      ...bands(options.alerts ?? [], options, palette),
      ...cursorLine(options.cursor, palette),
    ],
  };
}

/** The units of lines, each once, in their order: each has an axis. */
export function unitsOf(lines: Drawn[]): string[] {
  const units = [...new Set(lines.map((line) => line.point.unit))];
  return units.length ? units : [""];
}

/** The labels of an axis; one of states has their words and nothing between them. */
function inWords(points: Point[], axisLabel: object) {
  const words = points[0]?.words ?? {};
  const alike = points.every((point) => JSON.stringify(point.words) === JSON.stringify(points[0]?.words));
  return alike && Object.keys(words).length
    ? { minInterval: 1, axisLabel: { ...axisLabel, formatter: (value: number) => wordFor(value, words) ?? "" } }
    : { axisLabel: { ...axisLabel, formatter: onAxis } };
}

/** Where the second axis and those after it stand: right, left, right, further out each time. */
function beside(i: number) {
  return { position: i % 2 ? "right" : "left", offset: Math.floor(i / 2) * 52 };
}

/** What all lines say at a moment, and, if a cursor is set, by how much that differs from what they said there. */
export function readOut(
  lines: Drawn[],
  names: string[],
  at: number,
  { timeZone, cursor }: { timeZone?: string; cursor?: number },
  colours: string[],
): HTMLElement {
  const box = document.createElement("div");
  const row = (text: string, colour?: string) => {
    const line = box.appendChild(document.createElement("div"));
    if (colour) {
      const mark = line.appendChild(document.createElement("span"));
      mark.style.cssText = `display:inline-block;width:.7em;height:.7em;margin-right:.45em;background:${colour}`;
    }
    line.append(text);
  };
  row(moment(at, timeZone));
  const points = lines.filter((line) => !line.earlier).length;
  lines.forEach((line, i) => {
    const value = between(line, at);
    const then = cursor === undefined || line.earlier ? undefined : between(line, cursor);
    const change = value === undefined || then === undefined ? "" : ` (${signed(value - then, line)})`;
    row(
      `${names[i]}: ${value === undefined ? "–" : valueWords(value, line)}${change}`,
      colours[(i % Math.max(points, 1)) % 4],
    );
  });
  if (cursor !== undefined) {
    row(
      t("{span} {where} the cursor at {moment}", {
        span: lengthWords(at - cursor),
        where: at < cursor ? t("before") : t("after"),
        moment: moment(cursor, timeZone),
      }),
    );
  }
  return box;
}

function valueWords(value: number, { point }: Drawn): string {
  return wordFor(value, point.words) ?? `${fixed(value, point.decimals)} ${point.unit}`.trim();
}

function signed(value: number, { point }: Drawn): string {
  return `${value < 0 ? "−" : "+"}${fixed(Math.abs(value), point.decimals)} ${point.unit}`.trim();
}

/** A length of time without its sign: "2 d 3 h", "2 h 10 min", "12 min 5 s", "3.2 s". */
export function lengthWords(millis: number): string {
  const seconds = Math.abs(millis) / 1000;
  const parts = (large: number, name: string, small: number, rest: string) => {
    const smalls = Math.round(seconds / small);
    const each = large / small;
    return `${Math.floor(smalls / each)} ${name}${smalls % each ? ` ${smalls % each} ${rest}` : ""}`;
  };
  return seconds < 60
    ? `${trimmed(seconds, 1)} s`
    : seconds < 3600
      ? parts(60, "min", 1, "s")
      : seconds < 172_800
        ? parts(3600, "h", 60, "min")
        : parts(86_400, "d", 3600, "h");
}

/** Alerts as bands along the upper edge. One that was over at once is as wide as can be seen. */
function bands(alerts: AlertBand[], range: TimeRange, palette: Palette) {
  const least = (range.until - range.from) / 400;
  const seen = alerts.filter((alert) => alert.until >= range.from && alert.from <= range.until);
  if (!seen.length) {
    return [];
  }
  return [
    {
      id: "alerts",
      type: "line",
      data: [],
      markArea: {
        silent: true,
        data: seen.map((alert) => [
          {
            xAxis: Math.max(alert.from, range.from),
            y: TOP,
            itemStyle: { color: palette(alert.severity), opacity: 1 },
          },
          { xAxis: Math.min(Math.max(alert.until, alert.from + least), range.until), y: TOP + BAND },
        ]),
      },
    },
  ];
}

/** The cursor from which differences are counted: a full line, while marks are dashed. */
function cursorLine(at: number | undefined, palette: Palette) {
  if (at === undefined) {
    return [];
  }
  return [
    {
      id: "cursor",
      type: "line",
      data: [],
      markLine: {
        silent: true,
        symbol: "none",
        label: { show: false },
        lineStyle: { color: palette("heather"), width: 1.5, type: "solid" },
        data: [{ xAxis: at }],
      },
    },
  ];
}

/** What each line is called so that it is told from the others. */
export function namesOf(lines: Drawn[]): string[] {
  const points = lines.filter((line) => !line.earlier).map((line) => line.point);
  const onePlace = new Set(points.map((point) => point.placeId)).size === 1;
  return lines.map((line) => nameOf(line, points, onePlace));
}

function nameOf(line: Drawn, points: Point[], onePlace: boolean): string {
  const name = line.point.direction && onePlace ? line.point.direction : nameAmong(line.point, points);
  return line.earlier ? `${name}, ${line.earlier}` : name;
}

/** Moments as thin upright lines with their number above: what was written then stands below the chart. */
function moments(marks: ChartMark[], palette: Palette) {
  if (!marks.length) {
    return [];
  }
  return [
    {
      id: "moments",
      type: "line",
      data: [],
      markLine: {
        symbol: "none",
        cursor: "pointer",
        data: marks.map((mark) => ({
          id: mark.id,
          name: mark.label,
          xAxis: mark.at,
          label: { ...rimLabel(palette), color: palette("ink"), formatter: mark.label, position: "end", distance: 2 },
          lineStyle: { color: palette("ink-soft"), width: 1, type: [2, 2] },
        })),
      },
    },
  ];
}

/** The limits, and between two dashed lines what is normal by a baseline. */
function marks(set: LimitSet | undefined, usual: Usual | undefined, palette: Palette) {
  const limits = set ? limitMarks(set, palette) : undefined;
  if (!usual) {
    return limits ?? {};
  }
  const label = (name: string, position: string) => ({ ...rimLabel(palette), formatter: name, position });
  const line = { color: palette("ink-soft"), width: 1, type: "dashed" };
  return {
    markArea: limits?.markArea,
    markLine: {
      silent: true,
      symbol: "none",
      data: [
        ...(limits?.markLine.data ?? []),
        { yAxis: usual.high, label: label(t("baseline, high"), "insideEndTop"), lineStyle: line },
        { yAxis: usual.low, label: label(t("baseline, low"), "insideEndBottom"), lineStyle: line },
      ],
    },
  };
}

/** A label that a curve which runs behind it does not make unreadable. */
function rimLabel(palette: Palette) {
  return {
    color: palette("ink-soft"),
    fontSize: 11,
    backgroundColor: palette("sheet"),
    padding: [1, 3],
    borderRadius: 2,
  };
}

function limitMarks(set: LimitSet, palette: Palette) {
  const abnormal = set.zones.filter((zone) => zone.severity !== "normal");
  return {
    markArea: {
      silent: true,
      data: abnormal.map((zone) => [
        { yAxis: zone.from ?? -1e9, itemStyle: { color: palette(zone.severity + "-fill"), opacity: 0.42 } },
        { yAxis: zone.to ?? 1e9 },
      ]),
    },
    markLine: {
      silent: true,
      symbol: "none",
      data: boundaries(set).map((boundary) => ({
        yAxis: boundary.value,
        label: {
          ...rimLabel(palette),
          formatter: `${boundary.name}  ${onAxis(boundary.value)}`,
          position: "insideStartTop",
        },
        lineStyle: { color: palette("line-strong"), width: 1, type: "solid" },
      })),
    },
  };
}
