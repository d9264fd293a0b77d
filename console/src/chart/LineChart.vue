<script setup lang="ts">
import type { LimitSet } from "@/api/types";
import { colour, dark } from "@/look/appearance";
import { LineChart as Line } from "echarts/charts";
import {
  DataZoomComponent,
  GridComponent,
  MarkAreaComponent,
  MarkLineComponent,
  TooltipComponent,
} from "echarts/components";
import { use } from "echarts/core";
import { LabelLayout } from "echarts/features";
import { CanvasRenderer } from "echarts/renderers";
import { computed, useTemplateRef } from "vue";
import VChart from "vue-echarts";
import { lineOption, type ChartMark, type Ends, type Usual } from "./lineOption";
import type { Drawn } from "./series";

use([
  Line,
  GridComponent,
  TooltipComponent,
  DataZoomComponent,
  MarkAreaComponent,
  MarkLineComponent,
  LabelLayout,
  CanvasRenderer,
]);

/** Draws; whoever uses it fetches. */
const { lines, limits, from, until, fixed, ends, usual, marks, picking } = defineProps<{
  lines: Drawn[];
  limits?: LimitSet;
  from: number;
  until: number;
  fixed: boolean;
  ends?: Ends;
  usual?: Usual;
  marks?: ChartMark[];
  /** The next press in the chart chooses a moment. */
  picking?: boolean;
}>();
const chart = useTemplateRef<InstanceType<typeof VChart>>("chart");
const emit = defineEmits<{ zoom: [from: number, until: number]; pick: [at: number] }>();

const option = computed(() => {
  void dark.value;
  return lineOption(lines, limits, { from, until, fixed, ends, usual, marks, palette: colour });
});

/** What is drawn now, as a PNG on the colour of the page. */
function picture(): string {
  return chart.value?.getDataURL({ type: "png", pixelRatio: 2, backgroundColor: colour("sheet") }) ?? "";
}
defineExpose({ picture });

function pressed(event: { offsetX: number; offsetY: number }) {
  const at = picking ? chart.value?.convertFromPixel({ xAxisIndex: 0 }, event.offsetX) : undefined;
  if (typeof at === "number" && at >= from && at <= until) {
    emit("pick", Math.round(at));
  }
}

function zoomed(event: { batch?: object[] }) {
  const part = event.batch?.[0] as { start: number; end: number } | undefined;
  if (part) {
    const span = until - from;
    emit("zoom", from + (span * part.start) / 100, from + (span * part.end) / 100);
  }
}
</script>

<template>
  <VChart
    ref="chart"
    :option="option"
    autoresize
    :update-options="{ replaceMerge: ['series'] }"
    @datazoom="zoomed"
    @zr:click="pressed"
  />
</template>
