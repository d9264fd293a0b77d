<script setup lang="ts">
import { t } from "@/language";
import { api } from "@/api/http";
import type { Distribution } from "@/api/types";
import { usePointPath } from "@/chart/series";
import { rangeQuery, useTimeRange } from "@/chart/timeRange";
import { length } from "@/health/findings";
import { useRefreshed } from "@/look/load";
import ProblemNote from "@/look/ProblemNote.vue";
import { limitsOf } from "@/points/limits";
import { computed, defineAsyncComponent } from "vue";
import { hoursOf } from "../../layout";
import { withUnit } from "../look";
import type { ViewProps } from "../view";
import { binsOf, curveOf } from "@/chart/spread";

/** For how long a value lay where: the time in classes, or the curve of what was exceeded for how long. */
const { panel, points, limits } = defineProps<ViewProps<"spread">>();
const SpreadChart = defineAsyncComponent(() => import("@/chart/SpreadChart.vue"));
const REFRESH_SECONDS = 300;
const path = usePointPath();
const point = computed(() => points[0]);
const time = useTimeRange(() => hoursOf(panel.range ?? "P7D"));
const { data, error, loading } = useRefreshed(
  async () =>
    point.value
      ? api.get<Distribution>(`${path(point.value.id)}/distribution?${rangeQuery(time.current())}`)
      : undefined,
  [() => point.value?.id, time.key],
  REFRESH_SECONDS,
);
const set = computed(() => limitsOf(point.value, limits));
const bins = computed(() => (data.value && point.value ? binsOf(data.value, point.value, set.value) : []));
const curve = computed(() => (data.value && point.value ? curveOf(data.value, point.value) : []));
const isCurve = computed(() => panel.curve === "duration");
const at = (percent: number) =>
  point.value && curve.value[percent] ? withUnit(curve.value[percent][1], point.value, panel.look) : "";
const summary = computed(() =>
  t("Half of the time above {half}; nine tenths between {low} and {high}. Known for {length}.", {
    half: at(50),
    low: at(95),
    high: at(5),
    length: length(data.value?.knownSeconds ?? 0),
  }),
);
</script>

<template>
  <ProblemNote :error="error" />
  <p v-if="!loading && !error && !bins.length" class="soft">{{ t("No readings in this time.") }}</p>
  <template v-else-if="bins.length && point">
    <div
      class="canvas"
      tabindex="0"
      role="img"
      :aria-label="
        t('{form} of {name}. {summary}', {
          form: isCurve ? t('Duration curve') : t('Distribution'),
          name: point.name,
          summary: summary,
        })
      "
    >
      <SpreadChart
        :bins="isCurve ? [] : bins"
        :curve="isCurve ? curve : []"
        :unit="point.unit"
        :decimals="panel.look?.decimals ?? point.decimals"
        :limits="set"
      />
    </div>
    <p class="soft small">{{ summary }}</p>
  </template>
</template>

<style scoped>
.canvas {
  flex: 1;
  min-height: 110px;
}
p {
  margin: 0;
}
</style>
