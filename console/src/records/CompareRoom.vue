<script setup lang="ts">
import { t } from "@/language";
import { api } from "@/api/http";
import type { Point, Summary } from "@/api/types";
import { BEFORES, hoursEarlier } from "@/chart/before";
import ComparePicker from "@/chart/ComparePicker.vue";
import PointsChart from "@/chart/PointsChart.vue";
import { HOUR, oneZone, rangeQuery, words } from "@/chart/timeRange";
import ViewPicker from "@/chart/ViewPicker.vue";
import { useView } from "@/chart/view";
import EmptyState from "@/look/EmptyState.vue";
import { useRefreshed } from "@/look/load";
import ProblemNote from "@/look/ProblemNote.vue";
import { allAsRead, asRead, summaryAsRead } from "@/look/units";
import { usePlaces } from "@/places/places";
import { limitsOfAll } from "@/points/limits";
import { idsOf, labelOf, nameAmong } from "@/points/names";
import { usePoints } from "@/points/points";
import { computed, useTemplateRef } from "vue";
import { useRoute } from "vue-router";
import ExportMenu from "./ExportMenu.vue";
import { difference, number, spanOf, zonesOf } from "./compare";

/** Any points over any time together, beside an earlier time, with what both come to. Its address opens just this view. */
const points = usePoints();
const places = usePlaces();
const route = useRoute();
const view = useView(7 * 24);

const drawnCharts = useTemplateRef<InstanceType<typeof PointsChart>[]>("drawnCharts");
const pointIds = computed({
  get: () => [...new Set(String(route.query.points ?? "").split(","))].filter(Boolean),
  set: (ids: string[]) => view.set({ points: ids.join(",") || undefined }),
});
const chosen = computed(() => pointIds.value.flatMap((id) => points.byId.get(id) ?? []).map(asRead));
const units = computed(() => new Set(chosen.value.map((point) => point.unit)).size);
const together = computed({
  get: () => route.query.together === "yes",
  set: (wanted) => view.set({ together: wanted ? "yes" : undefined }),
});
/** Points of one unit share a chart and its scale; if wanted, all share one chart with a scale for each unit. */
const charts = computed(() => {
  const byUnit = new Map<string, Point[]>();
  const chartOf = (point: Point) => (together.value ? "" : point.unit);
  chosen.value.forEach((point) => byUnit.set(chartOf(point), [...(byUnit.get(chartOf(point)) ?? []), point]));
  return [...byUnit].map(([unit, alike]) => ({
    unit,
    points: alike,
    limits: limitsOfAll(alike, allAsRead(places.limitsById)),
  }));
});

const lookedAt = computed(() =>
  view.chosen.value
    ? words(view.chosen.value, oneZone(chosen.value))
    : t("the last {spanOf}", { spanOf: spanOf(view.hours.value) }),
);
const rows = useRefreshed(
  async () => {
    const seen = view.current();
    const earlier = hoursEarlier(view.before.value, (seen.until - seen.from) / HOUR);
    const ask = async (point: Point, back: number) => {
      const range = { from: seen.from - back * HOUR, until: seen.until - back * HOUR };
      return summaryAsRead(await api.get<Summary>(`points/${point.id}/summary?${rangeQuery(range)}`), point);
    };
    return Promise.all(
      chosen.value.map(async (point) => ({
        point,
        now: await ask(point, 0),
        then: earlier ? await ask(point, earlier) : undefined,
      })),
    );
  },
  [() => idsOf(chosen.value), view.key, view.before],
  60,
);
</script>

<template>
  <div class="page wide">
    <header class="page-head">
      <h1>{{ t("Compare") }}</h1>
    </header>
    <section class="sheet asked">
      <el-select
        v-model="pointIds"
        multiple
        filterable
        :aria-label="t('Points')"
        :placeholder="t('choose points')"
        class="points"
        :multiple-limit="12"
      >
        <el-option v-for="point in points.all" :key="point.id" :value="point.id" :label="labelOf(point)" />
      </el-select>
      <ViewPicker :view="view" :time-zone="oneZone(chosen)" />
      <ComparePicker v-model="view.before.value" />
      <el-checkbox v-if="units > 1" v-model="together">{{ t("All in one chart") }}</el-checkbox>
    </section>
    <ProblemNote :error="rows.error.value" />
    <section v-if="points.loaded && !chosen.length" class="sheet">
      <EmptyState :title="t('Nothing to compare yet')">{{
        t("Choose points above: axes of a machine, rooms, or one point with its week before.")
      }}</EmptyState>
    </section>
    <p v-if="chosen.length && view.before.value !== 'none'" class="soft small legend">
      {{ t("Solid: {lookedAt}. Dotted: {before}.", { lookedAt: lookedAt, before: BEFORES[view.before.value] }) }}
    </p>
    <section v-for="(chart, i) in charts" :key="chart.unit" class="sheet">
      <div class="chart">
        <PointsChart
          ref="drawnCharts"
          :points="chart.points"
          :hours="view.hours.value"
          :limits="chart.limits"
          :fixed="false"
        />
      </div>
      <ExportMenu
        :points="chart.points.map((point) => point.id)"
        :range="view.current"
        @picture="(format) => void drawnCharts?.[i]?.keep('compared', format)"
      />
    </section>
    <section v-if="rows.data.value?.length" class="sheet wide-table">
      <h2>{{ t("Figures, {lookedAt}", { lookedAt }) }}</h2>
      <table class="rows">
        <thead>
          <tr>
            <th>{{ t("Point") }}</th>
            <th class="amount">{{ t("Lowest") }}</th>
            <th class="amount">{{ t("Mean") }}</th>
            <th class="amount">{{ t("Highest") }}</th>
            <th v-if="view.before.value !== 'none'" class="amount">
              {{ t("Mean, {before}", { before: BEFORES[view.before.value] }) }}
            </th>
            <th v-if="view.before.value !== 'none'" class="amount">{{ t("Difference") }}</th>
            <th class="amount">{{ t("Readings") }}</th>
            <th>{{ t("Time in zones") }}</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="row in rows.data.value" :key="row.point.id">
            <th scope="row">
              <RouterLink :to="`/points/${row.point.id}`">{{ nameAmong(row.point, chosen) }}</RouterLink>
            </th>
            <td class="amount">{{ number(row.now.min, row.point) }}</td>
            <td class="amount">{{ number(row.now.mean, row.point) }}</td>
            <td class="amount">{{ number(row.now.max, row.point) }}</td>
            <td v-if="view.before.value !== 'none'" class="amount">{{ number(row.then?.mean ?? null, row.point) }}</td>
            <td v-if="view.before.value !== 'none'" class="amount">{{ difference(row.now, row.then, row.point) }}</td>
            <td class="amount">{{ row.now.count }}</td>
            <td class="small">{{ zonesOf(row.now) || t("no limits") }}</td>
          </tr>
        </tbody>
      </table>
    </section>
  </div>
</template>

<style scoped>
.wide {
  max-width: 1800px;
}
.asked {
  display: flex;
  flex-wrap: wrap;
  gap: 0.75rem 1.5rem;
  align-items: center;
}
.points {
  flex: 1 1 320px;
}
.legend {
  margin: 0;
}
.wide-table {
  overflow-x: auto;
}
.chart {
  height: 320px;
}
.amount {
  text-align: right;
  white-space: nowrap;
  font-variant-numeric: tabular-nums;
}
tbody th {
  font-weight: 400;
  text-align: left;
  white-space: normal;
  border-bottom-color: var(--line);
}
</style>
