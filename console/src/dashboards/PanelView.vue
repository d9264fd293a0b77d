<script setup lang="ts">
import type { LimitSet, Panel, Point } from "@/api/types";
import { useAlerts } from "@/alerts/alerts";
import { STATES } from "@/alerts/states";
import PointsChart from "@/chart/PointsChart.vue";
import { age, now } from "@/look/clock";
import FenceMark from "@/look/FenceMark.vue";
import HeadroomBar from "@/look/HeadroomBar.vue";
import ReadingValue from "@/look/ReadingValue.vue";
import AssetDirections from "@/places/AssetDirections.vue";
import { computed } from "vue";
import AskedPanel from "./AskedPanel.vue";
import { hoursOf } from "./layout";

/** One panel as it is looked at. Points come from whoever holds them, because a shared page has no account. */
const {
  panel,
  points,
  limits,
  open = false,
} = defineProps<{ panel: Panel; points: Map<string, Point>; limits: Map<string, LimitSet>; open?: boolean }>();
const shown = computed(() => panel.pointIds.flatMap((id) => points.get(id) ?? []));
const set = computed(() => {
  const sets = new Set(shown.value.map((point) => point.limitSet));
  return sets.size === 1 ? limits.get([...sets][0] ?? "") : undefined;
});
const alerts = open ? undefined : useAlerts();
const mine = computed(
  () => alerts?.open.filter((alert) => !panel.pointIds.length || panel.pointIds.includes(alert.pointId ?? "")) ?? [],
);
</script>

<template>
  <article class="panel" :class="panel.kind">
    <h2>{{ panel.title }}</h2>
    <p v-if="panel.kind !== 'text' && panel.kind !== 'alerts' && !shown.length" class="soft">
      Its points are gone, or you may not see them.
    </p>
    <div v-else-if="panel.kind === 'value'" class="values">
      <component
        :is="open ? 'div' : 'RouterLink'"
        v-for="point in shown"
        :key="point.id"
        :to="`/points/${point.id}`"
        class="value"
      >
        <ReadingValue :point="point" :big="shown.length === 1" />
        <span v-if="point.latest?.zone" class="row"
          ><FenceMark :severity="point.latest.severity" /><HeadroomBar :latest="point.latest"
        /></span>
        <span v-if="shown.length > 1" class="soft small">{{ point.name }}</span>
      </component>
    </div>
    <div v-else-if="panel.kind === 'line'" class="canvas">
      <PointsChart :points="shown" :hours="hoursOf(panel.range ?? null)" :limits="set" />
    </div>
    <AssetDirections
      v-else-if="panel.kind === 'directions'"
      class="bare"
      :points="shown"
      :limits="set"
      :links="!open"
    />
    <template v-else-if="panel.kind === 'alerts'">
      <ul v-if="mine.length">
        <li v-for="alert in mine" :key="alert.id">
          <div><FenceMark :severity="alert.severity" /></div>
          <RouterLink :to="`/alerts/${alert.id}`">{{ alert.summary }}</RouterLink>
          <div class="soft small">{{ STATES[alert.state] }}, {{ age(alert.raisedAt, now) }}</div>
        </li>
      </ul>
      <p v-else class="soft">{{ open ? "Alerts are shown to people with an account." : "No open alerts." }}</p>
    </template>
    <template v-else-if="panel.kind === 'asked'">
      <p v-if="open" class="soft">How devices are asked is shown to people with an account.</p>
      <AskedPanel v-else :point-ids="panel.pointIds" />
    </template>
    <p v-else class="text">{{ panel.text }}</p>
  </article>
</template>

<style scoped>
.panel {
  height: 100%;
  background: var(--sheet);
  border: 1px solid var(--line);
  border-radius: var(--radius);
  padding: 0.6rem 0.8rem;
  display: flex;
  flex-direction: column;
  overflow: auto;
}
h2 {
  font-size: 0.95rem;
  color: var(--ink-soft);
  margin-bottom: 0.2rem;
}
.values {
  display: flex;
  flex-wrap: wrap;
  gap: 0.5rem 2rem;
}
.value {
  display: grid;
  color: inherit;
  text-decoration: none;
}
.value :deep(.big .digits) {
  font-size: 2.1rem;
}
.value .row {
  gap: 0.1rem 0.6rem;
}
ul {
  list-style: none;
  margin: 0;
  padding: 0;
}
li + li {
  border-top: 1px solid var(--line);
  margin-top: 0.4rem;
  padding-top: 0.4rem;
}
li a {
  color: inherit;
}
.canvas {
  flex: 1;
  min-height: 180px;
}
.bare {
  border: 0;
  padding: 0;
  flex: 1;
}
.bare :deep(.direction) {
  padding: 0.2rem 0.6rem;
}
.bare :deep(.direction .text) {
  gap: 0.1rem;
}
.text {
  white-space: pre-wrap;
  margin: 0;
}
</style>
