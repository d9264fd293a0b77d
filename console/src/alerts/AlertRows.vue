<script setup lang="ts">
import type { Alert } from "@/api/types";
import { moment } from "@/look/clock";
import FenceMark from "@/look/FenceMark.vue";
import { STATES } from "./states";

/** Alerts, one a row, each step with its time. */
defineProps<{ alerts: Alert[] }>();
</script>

<template>
  <table class="rows cards">
    <thead>
      <tr>
        <th>Severity</th>
        <th>What</th>
        <th>Raised</th>
        <th>Acknowledged</th>
        <th>Back to normal</th>
      </tr>
    </thead>
    <tbody>
      <tr v-for="alert in alerts" :key="alert.id">
        <td><FenceMark :severity="alert.severity" /></td>
        <td class="wide">
          <RouterLink :to="`/alerts/${alert.id}`">{{ alert.summary }}</RouterLink>
          <div class="soft small">{{ alert.ruleName }} · {{ STATES[alert.state] }}</div>
        </td>
        <td class="small">{{ moment(alert.raisedAt) }}</td>
        <td class="small hide">
          <template v-if="alert.acknowledgedAt"
            >{{ moment(alert.acknowledgedAt) }}<br />{{ alert.acknowledgedBy }}</template
          >
        </td>
        <td class="small hide">
          <template v-if="alert.returnedAt">{{ moment(alert.returnedAt) }}</template>
        </td>
      </tr>
    </tbody>
  </table>
</template>
