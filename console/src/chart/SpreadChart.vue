<script setup lang="ts">
import { fixed, onAxis, trimmed } from "@/look/numbers";
import { t } from "@/language";
import type { LimitSet } from "@/api/types";
import type { Bin } from "./spread";
import { colour, dark } from "@/look/appearance";
import { length } from "@/health/findings";
import { BarChart, LineChart } from "echarts/charts";
import { GridComponent, MarkLineComponent, TooltipComponent } from "echarts/components";
import { use } from "echarts/core";
import { CanvasRenderer } from "echarts/renderers";
import { computed } from "vue";
import VChart from "vue-echarts";
import { boundaries } from "./lineOption";
import { chartLook, levelAxis, tooltipLook, uprightAxis } from "./look";

use([BarChart, LineChart, GridComponent, MarkLineComponent, TooltipComponent, CanvasRenderer]);

/** Draws the time in classes of values as bars, or a duration curve as a line. */
const { bins, curve, unit, decimals, limits } = defineProps<{
  bins: Bin[];
  curve: [percent: number, value: number][];
  unit: string;
  decimals: number;
  limits?: LimitSet;
}>();

const written = (value: number) => `${trimmed(value, Math.max(decimals, 0))} ${unit}`.trim();
const all = computed(() => bins.reduce((sum, bin) => sum + bin.seconds, 0));
const FILLS = { advisory: "advisory", warning: "warning", critical: "critical" } as const;

function bars() {
  return {
    xAxis: {
      ...levelAxis(colour),
      type: "category",
      data: bins.map((bin) => bin.from),
      name: unit,
      nameLocation: "middle",
      nameGap: 24,
      nameTextStyle: { color: colour("ink-soft") },
      axisLabel: { color: colour("ink-soft"), hideOverlap: true, formatter: (from: string) => onAxis(Number(from)) },
      axisTick: { alignWithLabel: false },
    },
    yAxis: { ...uprightAxis(colour, t("% of the time")), nameTextStyle: { color: colour("ink-soft"), align: "left" } },
    tooltip: {
      ...tooltipLook(colour),
      trigger: "item",
      renderMode: "richText",
      formatter: ({ dataIndex }: { dataIndex: number }) => {
        const bin = bins[dataIndex];
        return bin
          ? t("{from} to {until} {length}, {percent} %", {
              from: written(bin.from),
              until: written(bin.until),
              length: length(bin.seconds),
              percent: fixed((100 * bin.seconds) / all.value, 1),
            })
          : "";
      },
    },
    series: [
      {
        type: "bar",
        barCategoryGap: "6%",
        data: bins.map((bin) => ({
          value: (100 * bin.seconds) / all.value,
          itemStyle: {
            color: colour(bin.severity && bin.severity !== "normal" ? FILLS[bin.severity] : "line-a"),
          },
        })),
      },
    ],
  };
}

function line() {
  return {
    xAxis: {
      ...levelAxis(colour),
      type: "value",
      min: 0,
      max: 100,
      name: t("% of the time above"),
      nameLocation: "middle",
      nameGap: 24,
      nameTextStyle: { color: colour("ink-soft") },
      axisLabel: { color: colour("ink-soft"), formatter: onAxis },
    },
    yAxis: { ...uprightAxis(colour, unit), scale: true },
    tooltip: {
      ...tooltipLook(colour),
      renderMode: "richText",
      formatter: (under: { value: [number, number] }[]) =>
        under[0]
          ? t("above {value} for {percent} % of the time", {
              value: written(under[0].value[1]),
              percent: under[0].value[0],
            })
          : "",
    },
    series: [
      {
        type: "line",
        showSymbol: false,
        lineStyle: { color: colour("line-a"), width: 1.6 },
        itemStyle: { color: colour("line-a") },
        data: curve,
        markLine: {
          symbol: "none",
          silent: true,
          lineStyle: { color: colour("line-strong"), type: "solid" },
          label: { position: "insideEndTop", color: colour("ink-soft") },
          data: (limits ? boundaries(limits) : []).map((one) => ({
            yAxis: one.value,
            label: { formatter: `${one.name} ${onAxis(one.value)}` },
          })),
        },
      },
    ],
  };
}

const option = computed(() => {
  void dark.value;
  return {
    ...chartLook(colour),
    grid: { left: 8, right: 20, top: 28, bottom: 24, containLabel: true },
    ...(curve.length ? line() : bars()),
  };
});
</script>

<template>
  <VChart :option="option" autoresize />
</template>
