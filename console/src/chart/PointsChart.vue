<script setup lang="ts">
import { t } from "@/language";
import type { LimitSet, Point } from "@/api/types";
import ProblemNote from "@/look/ProblemNote.vue";
import { asRead, limitsAsRead } from "@/look/units";
import { computed, defineAsyncComponent, ref, shallowRef, useTemplateRef, watch } from "vue";
import type { AlertBand, ChartMark, Ends, Usual } from "./lineOption";
import { BEFORES, hoursEarlier, useCompared, type Before } from "./before";
import { later, useSeriesSource, type Drawn } from "./series";
import { bounded, HOUR, oneZone, useTimeRange, type TimeRange } from "./timeRange";

/**
 * A chart of points over the time that its page looks at, or the last hours: fetches reduced readings, and goes on with live
 * ones. Zooming moves the whole page, where the page can be moved, else this chart alone.
 */
const {
  points,
  hours,
  limits,
  fixed = true,
  ends,
  usual,
  marks,
  alerts,
  picking = false,
  stretch,
} = defineProps<{
  points: Point[];
  hours: number;
  limits?: LimitSet;
  fixed?: boolean;
  ends?: Ends;
  usual?: Usual;
  marks?: ChartMark[];
  alerts?: AlertBand[];
  picking?: boolean;
  /** A time of its own, instead of the last hours. */
  stretch?: TimeRange;
}>();
const shown = computed(() => points.map(asRead));
const bounds = computed(() => limits && limitsAsRead(limits));
const emit = defineEmits<{ pick: [at: number] }>();
const LineChart = defineAsyncComponent(() => import("./LineChart.vue"));
const BUCKETS = 600;
const SETTLED_MILLIS = 250;
const canvas = useTemplateRef<{ picture: () => string; drawing: () => Promise<string> }>("canvas");

const source = useSeriesSource();
const compared = useCompared();
const before = computed<Before>(() => compared?.value ?? "none");
const time = useTimeRange(
  () => hours,
  () => stretch,
);
/** What is looked at in this chart alone. */
const own = shallowRef<TimeRange>();
const live = computed(() => !own.value && !time.chosen());
const range = shallowRef(time.current());
const lines = shallowRef<Drawn[]>([]);
const error = shallowRef<unknown>();
const loading = ref(true);
const empty = computed(() => !loading.value && lines.value.every((line) => line.times.length === 0));
const timeZone = computed(() => oneZone(points));
let turn = 0;
let settled: number | undefined;

async function fetchAll({ from, until }: TimeRange): Promise<Drawn[]> {
  const then = BEFORES[before.value];
  const millis = hoursEarlier(before.value, (until - from) / HOUR) * HOUR;
  const fetched = async (back: number) =>
    Promise.all(shown.value.map((point) => source(point, { from: from - back, until: until - back }, BUCKETS)));
  const [now, earlier] = await Promise.all([fetched(0), millis ? fetched(millis) : []]);
  return [...now, ...earlier.map((line) => later(line, millis, then))];
}

async function load() {
  const mine = ++turn;
  const wanted = own.value ?? time.current();
  try {
    const found = await fetchAll(wanted);
    if (mine === turn) {
      lines.value = found;
      range.value = wanted;
      error.value = undefined;
    }
  } catch (problem) {
    if (mine === turn) {
      error.value = problem;
    }
  } finally {
    loading.value = false;
  }
}

watch(
  [() => shown.value.map((point) => point.id + point.unit).join(), time.key, before],
  () => {
    own.value = undefined;
    void load();
  },
  { immediate: true },
);

// A new live reading is drawn at once, and the right edge moves with it.
watch(
  () => shown.value.map((point) => point.latest?.time).join(),
  () => {
    if (!live.value) {
      return;
    }
    range.value = time.current();
    lines.value = lines.value.map((line) => {
      const latest = shown.value.find((point) => point.id === line.point.id)?.latest;
      const at = latest ? new Date(latest.time).getTime() : 0;
      const last = line.times.at(-1) ?? 0;
      return latest && at > last && !line.earlier
        ? {
            ...line,
            times: [...line.times, at],
            values: [...line.values, latest.value],
            qualities: [...line.qualities, latest.quality === "BAD" ? 2 : 0],
          }
        : line;
    });
  },
);

/** Gives what is drawn now to keep, as a picture. */
async function keep(name: string, format: "png" | "svg" = "png") {
  const link = document.createElement("a");
  link.href =
    format === "png"
      ? (canvas.value?.picture() ?? "")
      : "data:image/svg+xml;charset=utf-8," + encodeURIComponent((await canvas.value?.drawing()) ?? "");
  link.download = name.replace(/[^\p{L}\p{N} .-]+/gu, "-") + "." + format;
  link.click();
}
defineExpose({ keep });

/** Follows the hand at once with what is there; what is seen then is fetched in full detail as soon as it rests. */
function zoom(wanted: TimeRange) {
  own.value = bounded(wanted);
  range.value = own.value;
  window.clearTimeout(settled);
  settled = window.setTimeout(() => (time.page ? time.page.show(range.value) : void load()), SETTLED_MILLIS);
}

function whole() {
  own.value = undefined;
  void load();
}
</script>

<template>
  <div class="chart">
    <ProblemNote :error="error" />
    <p v-if="empty" class="soft none">{{ t("No readings in this time.") }}</p>
    <LineChart
      v-else-if="lines.length"
      ref="canvas"
      class="canvas"
      :lines="lines"
      :limits="bounds"
      :range="range"
      :fixed="fixed"
      :ends="ends"
      :usual="usual"
      :marks="marks"
      :alerts="alerts"
      :picking="picking"
      :time-zone="timeZone"
      @pick="(at: number) => emit('pick', at)"
      @zoom="zoom"
    />
    <el-button v-if="own && !time.page" class="whole" size="small" @click="whole">{{ t("Back") }}</el-button>
  </div>
</template>

<style scoped>
.chart {
  position: relative;
  height: 100%;
  min-height: inherit;
  display: grid;
}
.canvas {
  width: 100%;
  height: 100%;
  min-height: inherit;
}
.whole {
  position: absolute;
  top: 0;
  right: 0;
}
.none {
  place-self: center;
}
</style>
