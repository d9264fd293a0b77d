<script setup lang="ts">
import { t } from "@/language";
import type { Point } from "@/api/types";
import { age, now } from "@/look/clock";
import { useTimeRange } from "@/chart/timeRange";
import { useRefreshed } from "@/look/load";
import ProblemNote from "@/look/ProblemNote.vue";
import { idsOf, nameAmong } from "@/points/names";
import { findingWords, markables, marked, speedHz, strongest, usualMark, useSpectra } from "@/vibration/spectra";
import type { Xy } from "@/vibration/xyOption";
import { computed, defineAsyncComponent } from "vue";
import { hoursOf } from "../../layout";
import type { ViewProps } from "../view";

/** The newest waveform of up to three points, or the spectra of the first over time. */
const { panel, points } = defineProps<ViewProps<"spectrum">>();
const XyChart = defineAsyncComponent(() => import("@/vibration/XyChart.vue"));
const WaterfallChart = defineAsyncComponent(() => import("@/vibration/WaterfallChart.vue"));
const REFRESH_SECONDS = 60;

const ask = useSpectra();
const wanted = computed(() => ({ kind: panel.spectrum ?? "velocity", untilHz: panel.untilHz ?? 1000 }));
const time = useTimeRange(() => hoursOf(panel.range ?? "P30D"));
const from = () => new Date(time.current().from);

async function one(point: Point) {
  if (!(await ask.kept(point.id, 1)).length) {
    return [];
  }
  const [spectrum, waveform] = await Promise.all([
    ask.spectrum(point.id, wanted.value),
    panel.form === "waveform" ? ask.waveform(point.id) : undefined,
  ]);
  return [{ point, spectrum, waveform }];
}

const { data, error } = useRefreshed(
  async () => ({
    each: (await Promise.all(points.map(one))).flat(),
    fall: panel.form === "waterfall" && points[0] ? await ask.waterfall(points[0].id, wanted.value, from()) : undefined,
  }),
  [() => idsOf(points), () => JSON.stringify([panel.form, panel.spectrum, panel.untilHz, time.key()])],
  REFRESH_SECONDS,
);

const first = computed(() => data.value?.each[0]);
const lines = computed<Xy[]>(() =>
  (data.value?.each ?? []).map(({ point, spectrum, waveform }) => ({
    name: nameAmong(point, points),
    x: waveform ? waveform.seconds : spectrum.hz,
    y: waveform ? waveform.values : spectrum.values,
  })),
);
const marks = computed(() => {
  const spectrum = first.value?.spectrum;
  const chosen = spectrum && markables(spectrum.markers).find((one) => one.id === usualMark(spectrum));
  return panel.form === "waveform" ? [] : marked(chosen, wanted.value.untilHz);
});
</script>

<template>
  <ProblemNote :error="error" />
  <p v-if="data && !first" class="soft">
    {{ t("No waveform of {points} yet.", { points: points.length > 1 ? t("these points") : t("this point") }) }}
  </p>
  <template v-else-if="first">
    <div class="canvas">
      <WaterfallChart v-if="data?.fall?.rows.length" :fall="data.fall" />
      <XyChart
        v-else
        role="img"
        :aria-label="strongest(first.spectrum)"
        :lines="lines"
        :x-unit="panel.form === 'waveform' ? 's' : 'Hz'"
        :y-unit="first.waveform?.unit ?? first.spectrum.unit"
        :marks="marks"
        :speed-hz="speedHz(first.spectrum)"
      />
    </div>
    <p class="soft small">
      {{ strongest(first.spectrum) }}, {{ age(first.spectrum.time, now) }}.
      <template v-for="finding in first.spectrum.findings" :key="finding.pattern"
        >{{ findingWords(finding) }}
      </template>
    </p>
  </template>
</template>

<style scoped>
.canvas {
  flex: 1;
  min-height: 160px;
}
p {
  margin: 0.2rem 0 0;
}
</style>
