<script setup lang="ts">
import { colour, dark } from "@/look/appearance";
import { LineChart } from "echarts/charts";
import {
  DataZoomComponent,
  GridComponent,
  LegendComponent,
  MarkLineComponent,
  TooltipComponent,
} from "echarts/components";
import { use } from "echarts/core";
import { CanvasRenderer } from "echarts/renderers";
import { computed } from "vue";
import VChart from "vue-echarts";
import { xyOption, type Xy } from "./xyOption";

use([
  LineChart,
  GridComponent,
  LegendComponent,
  TooltipComponent,
  DataZoomComponent,
  MarkLineComponent,
  CanvasRenderer,
]);

/** Draws lines over Hz or seconds. */
const {
  lines,
  xUnit,
  yUnit,
  marks = [],
  speedHz,
} = defineProps<{
  lines: Xy[];
  xUnit: string;
  yUnit: string;
  marks?: { hz: number; label: string; beside?: boolean }[];
  speedHz?: number;
}>();

const option = computed(() => {
  void dark.value;
  return xyOption(lines, { xUnit, yUnit, marks, speedHz, palette: colour });
});
</script>

<template>
  <VChart :option="option" autoresize :update-options="{ replaceMerge: ['series'] }" />
</template>
