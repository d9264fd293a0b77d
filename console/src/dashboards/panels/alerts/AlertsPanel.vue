<script setup lang="ts">
import { t } from "@/language";
import { useAlerts } from "@/alerts/alerts";
import { STATES } from "@/alerts/states";
import { age, now } from "@/look/clock";
import FenceMark from "@/look/FenceMark.vue";
import { computed } from "vue";
import type { ViewProps } from "../view";

/** Open alerts, of all that may be seen or of the panel's points. */
const { panel, points, open } = defineProps<ViewProps<"alerts">>();
const alerts = open ? undefined : useAlerts();
const all = computed(() => !panel.pointIds?.length && !panel.selection);
const mine = computed(
  () => alerts?.open.filter((alert) => all.value || points.some((point) => point.id === alert.pointId)) ?? [],
);
</script>

<template>
  <ul v-if="mine.length">
    <li v-for="alert in mine" :key="alert.id">
      <div><FenceMark :severity="alert.severity" /></div>
      <RouterLink :to="`/alerts/${alert.id}`">{{ alert.summary }}</RouterLink>
      <div class="soft small">{{ STATES[alert.state] }}, {{ age(alert.raisedAt, now) }}</div>
    </li>
  </ul>
  <p v-else class="soft">{{ open ? t("Alerts are shown to people with an account.") : t("No open alerts.") }}</p>
</template>

<style scoped>
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
</style>
