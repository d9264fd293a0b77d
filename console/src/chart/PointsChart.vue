<script setup lang="ts">
import type { LimitSet, Point } from "@/api/types";
import ProblemNote from "@/look/ProblemNote.vue";
import { asRead, limitsAsRead } from "@/look/units";
import { computed, defineAsyncComponent, ref, shallowRef, useTemplateRef, watch } from "vue";
import type { ChartMark, Ends, Usual } from "./lineOption";
import { BEFORES, hoursEarlier, useCompared, type Before } from "./before";
import { later, useSeriesSource, type Drawn } from "./series";

/** A chart of points over the last hours: fetches reduced readings, finer ones when zoomed, and goes on with live ones. */
const {
  points,
  hours,
  limits,
  fixed = true,
  ends,
  usual,
  marks,
  picking = false,
} = defineProps<{
  points: Point[];
  hours: number;
  limits?: LimitSet;
  fixed?: boolean;
  ends?: Ends;
  usual?: Usual;
  marks?: ChartMark[];
  picking?: boolean;
}>();
const shown = computed(() => points.map(asRead));
const bounds = computed(() => limits && limitsAsRead(limits));
const emit = defineEmits<{ pick: [at: number] }>();
const LineChart = defineAsyncComponent(() => import("./LineChart.vue"));
const BUCKETS = 600;
const canvas = useTemplateRef<{ picture: () => string }>("canvas");

const source = useSeriesSource();
const compared = useCompared();
const before = computed<Before>(() => compared?.value ?? "none");
const lines = shallowRef<Drawn[]>([]);
const error = shallowRef<unknown>();
const loading = ref(true);
const until = ref(Date.now());
const from = computed(() => until.value - hours * 3_600_000);
const empty = computed(() => !loading.value && lines.value.every((line) => line.times.length === 0));
let turn = 0;
let finer: number | undefined;

async function fetchAll(begin: number, end: number): Promise<Drawn[]> {
  const then = BEFORES[before.value];
  const millis = hoursEarlier(before.value, hours) * 3_600_000;
  const fetched = async (back: number) =>
    Promise.all(shown.value.map((point) => source(point, begin - back, end - back, BUCKETS)));
  const [now, earlier] = await Promise.all([fetched(0), millis ? fetched(millis) : []]);
  return [...now, ...earlier.map((line) => later(line, millis, then))];
}

async function load() {
  const mine = ++turn;
  until.value = Date.now();
  try {
    const found = await fetchAll(from.value, until.value);
    if (mine === turn) {
      lines.value = found;
      error.value = undefined;
    }
  } catch (problem) {
    error.value = problem;
  } finally {
    loading.value = false;
  }
}

watch([() => shown.value.map((point) => point.id + point.unit).join(), () => hours, before], load, { immediate: true });

// A new live reading is drawn at once, and the right edge moves with it.
watch(
  () => shown.value.map((point) => point.latest?.time).join(),
  () => {
    until.value = Date.now();
    lines.value = lines.value.map((line) => {
      const latest = shown.value.find((point) => point.id === line.point.id)?.latest;
      const time = latest ? new Date(latest.time).getTime() : 0;
      const last = line.times.at(-1) ?? 0;
      return latest && time > last && !line.earlier
        ? {
            ...line,
            times: [...line.times, time],
            values: [...line.values, latest.value],
            qualities: [...line.qualities, latest.quality === "BAD" ? 2 : 0],
          }
        : line;
    });
  },
);

/** Gives what is drawn now to keep, as a picture. */
function keep(name: string) {
  const link = document.createElement("a");
  link.href = canvas.value?.picture() ?? "";
  link.download = name.replace(/[^\p{L}\p{N} .-]+/gu, "-") + ".png";
  link.click();
}
defineExpose({ keep });

/** Zooming refines: the seen stretch is fetched in full detail and put between what is outside of it. */
function zoom(begin: number, end: number) {
  window.clearTimeout(finer);
  finer = window.setTimeout(() => void refine(begin, end), 250);
}

async function refine(begin: number, end: number) {
  const mine = ++turn;
  const found = await fetchAll(begin, end).catch(() => undefined);
  if (found && mine === turn) {
    lines.value = lines.value.map((line, i) => merged(line, found[i] ?? line, begin, end));
  }
}

function merged(coarse: Drawn, fine: Drawn, begin: number, end: number): Drawn {
  const before = coarse.times.filter((time) => time < begin).length;
  const after = coarse.times.findIndex((time) => time >= end);
  const tail = after < 0 ? coarse.times.length : after;
  const join = (a: number[], b: number[]) => [...a.slice(0, before), ...b, ...a.slice(tail)];
  return {
    ...coarse,
    times: join(coarse.times, fine.times),
    values: join(coarse.values, fine.values),
    qualities: join(coarse.qualities, fine.qualities),
    gaps: [...coarse.gaps.filter((gap) => gap.until <= begin || gap.from >= end), ...fine.gaps].sort(
      (a, b) => a.from - b.from,
    ),
  };
}
</script>

<template>
  <div class="chart">
    <ProblemNote :error="error" />
    <p v-if="empty" class="soft none">No readings in this time.</p>
    <LineChart
      v-else-if="lines.length"
      ref="canvas"
      class="canvas"
      :lines="lines"
      :limits="bounds"
      :from="from"
      :until="until"
      :fixed="fixed"
      :ends="ends"
      :usual="usual"
      :marks="marks"
      :picking="picking"
      :class="{ picking }"
      @pick="(at: number) => emit('pick', at)"
      @zoom="zoom"
    />
  </div>
</template>

<style scoped>
.chart {
  height: 100%;
  min-height: inherit;
  display: grid;
}
.canvas {
  width: 100%;
  height: 100%;
  min-height: inherit;
}
.picking {
  cursor: crosshair;
}
.none {
  place-self: center;
}
</style>
