<script setup lang="ts">
import { t } from "@/language";
import type { Alert } from "@/api/types";
import { useAlerts } from "@/alerts/alerts";
import { STATES } from "@/alerts/states";
import { age, now } from "@/look/clock";
import FenceMark from "@/look/FenceMark.vue";
import { usePlaces } from "@/places/places";
import { computed } from "vue";
import type { ViewProps } from "../view";

/** Open alerts, of all that may be seen, of the panel's points, or of a place with all that lies below it. */
const { panel, points, open } = defineProps<ViewProps<"alerts">>();
const alerts = open ? undefined : useAlerts();
const places = usePlaces();
const all = computed(() => !panel.pointIds?.length && !panel.selection);
/** A place that is selected as a whole: also for alerts that are of no point, such as silence. */
const placeId = computed(() => {
  const { selection } = panel;
  return selection && !selection.quantity && !selection.assetKind && !selection.tag ? selection.placeId : undefined;
});

function isMine(alert: Alert): boolean {
  return (
    all.value ||
    points.some((point) => point.id === alert.pointId) ||
    places.path(alert.placeId).some((place) => place.id === placeId.value)
  );
}

const mine = computed(() => alerts?.open.filter(isMine) ?? []);
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
