<script setup lang="ts">
import { fixed, onAxis } from "@/look/numbers";
import { colour, dark } from "@/look/appearance";
import { moment } from "@/look/clock";
import { ScatterChart } from "echarts/charts";
import { DataZoomComponent, GridComponent, TooltipComponent } from "echarts/components";
import { use } from "echarts/core";
import { CanvasRenderer } from "echarts/renderers";
import { computed } from "vue";
import VChart from "vue-echarts";
import { chartLook, insideZoom, levelAxis, tooltipLook, uprightAxis } from "./look";

use([ScatterChart, GridComponent, TooltipComponent, DataZoomComponent, CanvasRenderer]);

/** What lies along an axis. */
interface Axis {
  name: string;
  unit: string;
  decimals: number;
}

/** Draws a dot for each pair of values, paler the older it is. */
const { dots, across, up, timeZone } = defineProps<{
  dots: { time: number; x: number; y: number }[];
  across: Axis;
  up: Axis;
  timeZone?: string;
}>();
const PALEST = 0.15;

const title = (axis: Axis) => (axis.unit ? `${axis.name}, ${axis.unit}` : axis.name);
const text = (value: number, axis: Axis) => `${fixed(value, axis.decimals)} ${axis.unit}`.trim();

const option = computed(() => {
  void dark.value;
  const first = dots[0]?.time ?? 0;
  const span = Math.max(1, (dots.at(-1)?.time ?? 0) - first);
  const axis = { color: colour("ink-soft"), hideOverlap: true, formatter: onAxis };
  return {
    ...chartLook(colour),
    dataZoom: insideZoom,
    grid: { left: 8, right: 20, top: 28, bottom: 24, containLabel: true },
    tooltip: {
      ...tooltipLook(colour),
      trigger: "item",
      renderMode: "richText",
      formatter: ({ value }: { value: [number, number, number] }) =>
        `${moment(value[2], timeZone)}\n${text(value[0], across)}, ${text(value[1], up)}`,
    },
    xAxis: {
      ...levelAxis(colour),
      type: "value",
      scale: true,
      name: title(across),
      nameLocation: "middle",
      nameGap: 26,
      nameTextStyle: { color: colour("ink-soft") },
      axisLabel: axis,
    },
    yAxis: {
      ...uprightAxis(colour, title(up)),
      nameTextStyle: { color: colour("ink-soft"), align: "left" },
      scale: true,
      axisLabel: axis,
    },
    series: [
      {
        type: "scatter",
        symbolSize: 5,
        data: dots.map(({ time, x, y }) => ({
          value: [x, y, time],
          itemStyle: { color: colour("line-a"), opacity: PALEST + (1 - PALEST) * 0.8 * ((time - first) / span) },
        })),
      },
    ],
  };
});
</script>

<template>
  <VChart :option="option" autoresize />
</template>
