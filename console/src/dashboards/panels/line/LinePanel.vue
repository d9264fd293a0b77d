<script setup lang="ts">
import { limitsOfAll } from "@/points/limits";
import PointsChart from "@/chart/PointsChart.vue";
import { computed } from "vue";
import { hoursOf } from "../../layout";

import type { ViewProps } from "../view";

/** Lines over time, with the limits where one set holds for all of them. */
const { panel, points, limits } = defineProps<ViewProps<"line">>();
const set = computed(() => limitsOfAll(points, limits));
const ends = computed(() => ({ min: panel.look?.lowest ?? undefined, max: panel.look?.highest ?? undefined }));
</script>

<template>
  <div class="canvas">
    <PointsChart
      :points="points"
      :hours="hoursOf(panel.range)"
      :limits="set"
      :fixed="panel.scale !== 'fit'"
      :ends="ends"
    />
  </div>
</template>

<style scoped>
.canvas {
  flex: 1;
  min-height: 180px;
}
</style>
