<script setup lang="ts">
import { t } from "@/language";
import type { Alert } from "@/api/types";
import { moment } from "@/look/clock";
import FenceMark from "@/look/FenceMark.vue";
import { usePlaces } from "@/places/places";
import { STATES } from "./states";

/** Alerts, one a row, each step with its time. */
defineProps<{ alerts: Alert[] }>();
const places = usePlaces();
const at = (time: string, alert: Alert) => moment(time, places.zoneOf(alert.placeId));
</script>

<template>
  <table class="rows cards">
    <thead>
      <tr>
        <th>{{ t("Severity") }}</th>
        <th>{{ t("What") }}</th>
        <th>{{ t("Raised") }}</th>
        <th>{{ t("Acknowledged") }}</th>
        <th>{{ t("Back to normal") }}</th>
      </tr>
    </thead>
    <tbody>
      <tr v-for="alert in alerts" :key="alert.id">
        <td><FenceMark :severity="alert.severity" /></td>
        <td class="wide">
          <RouterLink :to="`/alerts/${alert.id}`">{{ alert.summary }}</RouterLink>
          <div class="soft small">{{ alert.ruleName }} · {{ STATES[alert.state] }}</div>
        </td>
        <td class="small">{{ at(alert.raisedAt, alert) }}</td>
        <td class="small hide">
          <template v-if="alert.acknowledgedAt"
            >{{ at(alert.acknowledgedAt, alert) }}<br />{{ alert.acknowledgedBy }}</template
          >
        </td>
        <td class="small hide">
          <template v-if="alert.returnedAt">{{ at(alert.returnedAt, alert) }}</template>
        </td>
      </tr>
    </tbody>
  </table>
</template>
