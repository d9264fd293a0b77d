<script setup lang="ts">
import { t } from "@/language";
import { useSeriesSource } from "@/chart/series";
import { useTimeRange } from "@/chart/timeRange";
import { useRefreshed } from "@/look/load";
import ProblemNote from "@/look/ProblemNote.vue";
import { idsOf, nameAmong } from "@/points/names";
import { computed, defineAsyncComponent } from "vue";
import { hoursOf } from "../../layout";
import type { ViewProps } from "../view";
import { closeness, pairsOf } from "./pairs";

/** Two points against each other: the first lies across, the second up. */
const { panel, points } = defineProps<ViewProps<"pairs">>();
const DotsChart = defineAsyncComponent(() => import("@/chart/DotsChart.vue"));
const BUCKETS = 400;
const REFRESH_SECONDS = 60;
const source = useSeriesSource();
const time = useTimeRange(() => hoursOf(panel.range ?? "P7D"));
const axes = computed(() => (points[0] && points[1] ? { across: points[0], up: points[1] } : undefined));
const { data, error, loading } = useRefreshed(
  async () => {
    const range = time.current();
    const lines = await Promise.all(points.map((point) => source(point, range, BUCKETS)));
    return lines[0] && lines[1] ? pairsOf(lines[0], lines[1]) : [];
  },
  [() => idsOf(points), time.key],
  REFRESH_SECONDS,
);
</script>

<template>
  <ProblemNote :error="error" />
  <p v-if="!axes" class="soft">{{ t("Choose two points: the first lies across, the second up.") }}</p>
  <p v-else-if="!loading && !error && !data?.length" class="soft">
    {{ t("No time at which both have readings. Choose a longer time.") }}
  </p>
  <template v-else-if="data?.length">
    <div
      class="canvas"
      tabindex="0"
      role="img"
      :aria-label="
        t('{up} against {across}', {
          up: nameAmong(axes.up, points),
          across: nameAmong(axes.across, points),
        })
      "
    >
      <DotsChart
        :dots="data"
        :across="{ name: nameAmong(axes.across, points), unit: axes.across.unit, decimals: axes.across.decimals }"
        :up="{ name: nameAmong(axes.up, points), unit: axes.up.unit, decimals: axes.up.decimals }"
        :time-zone="axes.up.timeZone"
      />
    </div>
    <p class="soft small">{{ t("{closeness} Older ones are paler.", { closeness: closeness(data) }) }}</p>
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
