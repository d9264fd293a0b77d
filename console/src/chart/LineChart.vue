<script setup lang="ts">
import { t } from "@/language";
import type { LimitSet } from "@/api/types";
import { colour, dark } from "@/look/appearance";
import { zoneName } from "@/look/clock";
import { LineChart as Line } from "echarts/charts";
import { GridComponent, MarkAreaComponent, MarkLineComponent, TooltipComponent } from "echarts/components";
import { use } from "echarts/core";
import { LabelLayout } from "echarts/features";
import { CanvasRenderer } from "echarts/renderers";
import { computed, onBeforeUnmount, onMounted, ref, useTemplateRef } from "vue";
import VChart from "vue-echarts";
import { useGestures } from "./gestures";
import { lineOption, namesOf, unitsOf, type AlertBand, type ChartMark, type Ends, type Usual } from "./lineOption";
import { lineColours } from "./look";
import type { Drawn } from "./series";
import type { TimeRange } from "./timeRange";

use([Line, GridComponent, TooltipComponent, MarkAreaComponent, MarkLineComponent, LabelLayout, CanvasRenderer]);

/** Draws; whoever uses it fetches. */
const { lines, limits, range, fixed, ends, usual, marks, alerts, picking, timeZone } = defineProps<{
  lines: Drawn[];
  limits?: LimitSet;
  range: TimeRange;
  fixed: boolean;
  ends?: Ends;
  usual?: Usual;
  marks?: ChartMark[];
  alerts?: AlertBand[];
  /** The next press in the chart chooses a moment. */
  picking?: boolean;
  /** On whose clock moments are given; without one, this browser's. */
  timeZone?: string;
}>();
const emit = defineEmits<{ zoom: [range: TimeRange]; pick: [at: number] }>();
const frame = useTemplateRef<HTMLElement>("frame");
const chart = useTemplateRef<InstanceType<typeof VChart>>("chart");

/** The moment from which differences are counted. */
const cursor = ref<number>();
const PIXELS_A_TICK = 80;
const width = ref(640);
const sized = new ResizeObserver(([seen]) => (width.value = seen?.contentRect.width ?? width.value));
onMounted(() => frame.value && sized.observe(frame.value));
onBeforeUnmount(() => sized.disconnect());

const option = computed(() => {
  void dark.value;
  return lineOption(lines, limits, {
    ...range,
    fixed,
    ends,
    usual,
    marks,
    alerts,
    palette: colour,
    timeZone,
    mostTicks: Math.max(2, Math.floor(width.value / PIXELS_A_TICK)),
    cursor: cursor.value,
  });
});

/** Lines of several units are told apart above the chart, where their axes leave no room beside it. */
const legend = computed(() => {
  const names = namesOf(lines);
  const colours = lineColours(colour);
  void dark.value;
  return unitsOf(lines).length > 1
    ? lines.flatMap((line, i) =>
        line.earlier ? [] : [{ name: `${names[i]}, ${line.point.unit || t("no unit")}`, colour: colours[i % 4] }],
      )
    : [];
});

const { chosen, listeners } = useGestures(
  frame,
  {
    range: () => range,
    momentAt: (x) => {
      const at: unknown = chart.value?.convertFromPixel({ xAxisIndex: 0 }, x);
      return typeof at === "number" && Number.isFinite(at) ? at : undefined;
    },
  },
  { zoom: (wanted) => emit("zoom", wanted), press, leave: () => (cursor.value = undefined) },
);

/** A press chooses a moment if one is asked for; else it sets the cursor, or takes it away where it stands. */
function press(at: number) {
  const near = (range.until - range.from) * 0.01;
  if (at < range.from || at > range.until) {
    return;
  }
  if (picking) {
    emit("pick", Math.round(at));
  } else {
    cursor.value = cursor.value !== undefined && Math.abs(at - cursor.value) < near ? undefined : Math.round(at);
  }
}

/** What is drawn now, as a PNG on the colour of the page. */
function picture(): string {
  return chart.value?.getDataURL({ type: "png", pixelRatio: 2, backgroundColor: colour("sheet") }) ?? "";
}

/** The same as a drawing that can be made larger (SVG). */
async function drawing(): Promise<string> {
  const [{ init, use: also }, { SVGRenderer }] = await Promise.all([
    import("echarts/core"),
    import("echarts/renderers"),
  ]);
  also([SVGRenderer]);
  const size = { width: chart.value?.getWidth() ?? 800, height: chart.value?.getHeight() ?? 400 };
  const still = init(null, null, { renderer: "svg", ssr: true, ...size });
  still.setOption({ ...option.value, backgroundColor: colour("sheet") });
  const text = still.renderToSVGString();
  still.dispose();
  return text;
}
defineExpose({ picture, drawing });
</script>

<template>
  <div class="line-chart">
    <p v-if="legend.length" class="legend small">
      <span v-for="one in legend" :key="one.name"><i :style="{ background: one.colour }"></i>{{ one.name }}</span>
    </p>
    <div
      ref="frame"
      class="frame"
      tabindex="0"
      role="group"
      :aria-label="t('Chart. Arrow keys move in time, plus and minus zoom, Escape removes the cursor.')"
      :class="{ picking }"
      v-on="listeners"
    >
      <VChart ref="chart" :option="option" autoresize :update-options="{ replaceMerge: ['series', 'yAxis'] }" />
      <div
        v-if="chosen"
        class="chosen"
        :style="{ left: chosen.from + 'px', width: chosen.until - chosen.from + 'px' }"
      ></div>
    </div>
    <p v-if="zoneName(range.until, timeZone)" class="zone soft small">
      {{ t("Time zone:{zone}", { zone: zoneName(range.until, timeZone) }) }}
    </p>
  </div>
</template>

<style scoped>
.line-chart {
  display: flex;
  flex-direction: column;
  width: 100%;
  height: 100%;
  min-height: inherit;
  min-width: 0;
}
.frame {
  position: relative;
  flex: 1;
  min-height: 0;
  /* Fingers move it sideways and zoom; up and down they still scroll the page. */
  touch-action: pan-y;
  user-select: none;
}
.frame :deep(canvas) {
  cursor: inherit;
}
.picking {
  cursor: crosshair;
}
.chosen {
  position: absolute;
  top: 0;
  bottom: 0;
  background: var(--heather);
  opacity: 0.18;
  pointer-events: none;
}
.legend {
  display: flex;
  flex-wrap: wrap;
  gap: 0.1rem 1rem;
  margin: 0;
}
.legend i {
  display: inline-block;
  width: 0.8em;
  height: 0.8em;
  margin-right: 0.35em;
}
.zone {
  margin: 0;
  text-align: right;
}
</style>
