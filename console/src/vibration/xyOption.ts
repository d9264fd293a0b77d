import { fixed, onAxis } from "@/look/numbers";
import type { Palette } from "@/chart/lineOption";
import { chartLook, insideZoom, levelAxis, lineColours, tooltipLook, uprightAxis } from "@/chart/look";
import type { EChartsCoreOption } from "echarts/core";
import { three } from "./spectra";

/** A line whose x is a number: Hz or seconds. */
export interface Xy {
  name: string;
  x: number[];
  y: number[];
  /** Drawn thin and dashed, for what is only compared with. */
  compared?: boolean;
}

export interface XyLook {
  xUnit: string;
  yUnit: string;
  /** Upright lines with words at their top. */
  marks: { hz: number; label: string; beside?: boolean }[];
  /** What a whole turn of the machine is, so that the pointer can say which multiple it is at. */
  speedHz?: number;
  palette: Palette;
}

/** Lines over a number, with marks. */
export function xyOption(lines: Xy[], { xUnit, yUnit, marks, speedHz, palette }: XyLook): EChartsCoreOption {
  const colours = lineColours(palette);
  return {
    ...chartLook(palette),
    dataZoom: insideZoom,
    grid: { left: 16, right: 24, top: marks.length ? 40 : 28, bottom: 4, containLabel: true },
    // One line needs no name: it is what the page or panel is about.
    legend: {
      show: lines.length > 1,
      top: 0,
      right: 24,
      textStyle: { color: palette("ink-soft") },
      icon: "rect",
      itemWidth: 18,
      itemHeight: 3,
    },
    tooltip: {
      ...tooltipLook(palette),
      formatter: (items: { seriesName: string; value: [number, number]; marker: string }[]) => {
        const x = items[0]?.value[0] ?? 0;
        const order = speedHz && xUnit === "Hz" ? ` (${fixed(x / speedHz, 2)}×)` : "";
        const rows = items.map(
          ({ marker, seriesName, value }) => `${marker}${escaped(seriesName)} ${three(value[1])} ${yUnit}`,
        );
        return [`${three(x)} ${xUnit}${order}`, ...rows].join("<br>");
      },
    },
    xAxis: {
      ...levelAxis(palette),
      type: "value",
      min: 0,
      max: "dataMax",
      name: xUnit,
      nameLocation: "end",
      nameGap: 4,
      nameTextStyle: { color: palette("ink-soft"), verticalAlign: "top", padding: [8, 0, 0, -14] },
      axisLabel: { color: palette("ink-soft"), hideOverlap: true, showMaxLabel: false, formatter: onAxis },
    },
    yAxis: {
      ...uprightAxis(palette, yUnit),
      nameGap: 8,
      axisLabel: { color: palette("ink-soft"), formatter: onAxis },
    },
    series: lines.map((line, i) => ({
      type: "line",
      name: line.name,
      data: line.x.map((x, k) => [x, line.y[k] ?? 0]),
      showSymbol: false,
      lineStyle: { width: line.compared ? 1 : 1.3, color: colours[i % 4], type: line.compared ? [3, 2] : "solid" },
      itemStyle: { color: colours[i % 4] },
      ...(i === 0 && marks.length
        ? {
            markLine: {
              silent: true,
              symbol: "none",
              lineStyle: { color: palette("heather"), width: 1, type: [2, 3] },
              data: marks.map(({ hz, label, beside }) => ({
                xAxis: hz,
                ...(beside ? { lineStyle: { opacity: 0.45 } } : {}),
                label: { formatter: label, position: "end", color: palette("heather"), fontSize: 11, distance: 3 },
              })),
            },
          }
        : {}),
    })),
  };
}

function escaped(text: string): string {
  return text.replace(/[&<>"]/g, (sign) => `&#${sign.charCodeAt(0)};`);
}
