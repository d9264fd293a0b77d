<script setup lang="ts">
import { api } from "@/api/http";
import type { Dashboard, Panel } from "@/api/types";
import { POINT_PATH } from "@/chart/series";
import { every } from "@/look/clock";
import { useLoad } from "@/look/load";
import { PLAN_PATH } from "@/plans/plans";
import ProblemNote from "@/look/ProblemNote.vue";
import { computed, provide } from "vue";
import DashboardGrid from "./DashboardGrid.vue";

/** A dashboard behind a read-only link, for who has no account. Asks again every few seconds. */
const { token } = defineProps<{ token: string }>();
const path = "shared/" + encodeURIComponent(token);
let opened = false;
const {
  data: dashboard,
  error,
  load,
} = useLoad(async () => {
  // What an open page asks again is no other opening of the link.
  const found = await api.get<Dashboard>(opened ? path + "?again=true" : path);
  opened = true;
  return found;
});
every(5, () => void load());
provide(PLAN_PATH, (placeId) => ({ plan: `${path}/plans/${placeId}`, picture: `${path}/plans/${placeId}/picture` }));
provide(POINT_PATH, (pointId) => `${path}/points/${pointId}`);
const points = computed(() => new Map(dashboard.value?.points.map((point) => [point.id, point])));
const pointsOf = (panel: Panel) => (dashboard.value?.shown[panel.id] ?? []).flatMap((id) => points.value.get(id) ?? []);
const limits = computed(() => new Map(dashboard.value?.limitSets.map((set) => [set.id, set])));
</script>

<template>
  <main class="page wide">
    <ProblemNote :error="error" />
    <template v-if="dashboard && !error">
      <header class="page-head">
        <div>
          <p class="crumbs">Shared by {{ dashboard.ownerName }} to be looked at</p>
          <h1>{{ dashboard.name }}</h1>
        </div>
        <span class="brand"><img src="/icon.svg" alt="" width="28" height="28" /> Open Pasture</span>
      </header>
      <DashboardGrid :panels="dashboard.panels" :points-of="pointsOf" :limits="limits" open />
    </template>
  </main>
</template>

<style scoped>
.wide {
  max-width: 1800px;
}
.brand {
  display: flex;
  align-items: center;
  gap: 0.5rem;
  color: var(--moss);
  font-weight: 640;
}
</style>
