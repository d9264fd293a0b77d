<script setup lang="ts">
import { t } from "@/language";
import { limitsOf } from "@/points/limits";
import { shortDay } from "@/look/clock";
import ProblemNote from "@/look/ProblemNote.vue";
import FenceMark from "@/look/FenceMark.vue";
import { computed } from "vue";
import { digits } from "../look";
import PointName from "../PointName.vue";
import { figure, STATISTICS, useDays, worst } from "../summaries";
import type { ViewProps } from "../view";

/** A table of days, a column for each point, with the worst zone that a day was in. */
const { panel, points, limits, open } = defineProps<ViewProps<"days">>();
const { found, error, loading } = useDays(
  () => points,
  () => panel.range ?? "P7D",
);
const statistic = computed(() => panel.statistic ?? "mean");
const days = computed(() =>
  [...new Set([...found.value.values()].flat().map((summary) => summary.from))].sort().reverse(),
);
const byDay = computed(
  () => new Map([...found.value].map(([id, list]) => [id, new Map(list.map((summary) => [summary.from, summary]))])),
);

const rows = computed(() =>
  days.value.map((day) => ({
    day,
    cells: points.map((point) => {
      const summary = byDay.value.get(point.id)?.get(day);
      return {
        point,
        severity: worst(summary, limitsOf(point, limits)),
        text: digits(figure(summary, statistic.value), point, panel.look),
      };
    }),
  })),
);
</script>

<template>
  <ProblemNote :error="error" />
  <p v-if="!loading && !error && !days.length" class="soft">{{ t("No readings in this time.") }}</p>
  <table v-else-if="days.length" class="rows">
    <thead>
      <tr>
        <th>{{ t("{statistic} of", { statistic: STATISTICS[statistic] }) }}</th>
        <th v-for="point in points" :key="point.id" class="amount">
          <PointName :point="point" :all="points" :open="open" /> {{ point.unit }}
        </th>
      </tr>
    </thead>
    <tbody>
      <tr v-for="row in rows" :key="row.day">
        <th scope="row">{{ shortDay(row.day, points[0]?.timeZone, true) }}</th>
        <td v-for="cell in row.cells" :key="cell.point.id" class="amount">
          <FenceMark v-if="cell.severity && cell.severity !== 'normal'" :severity="cell.severity" :word="false" />
          {{ cell.text }}
        </td>
      </tr>
    </tbody>
  </table>
</template>

<style scoped>
.amount {
  text-align: right;
  font-variant-numeric: tabular-nums;
}
tbody th {
  font-weight: 400;
  text-align: left;
}
tbody th {
  border-bottom-color: var(--line);
}
th {
  white-space: normal;
}
</style>
