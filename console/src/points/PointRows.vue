<script setup lang="ts">
import type { Point } from "@/api/types";
import FenceMark from "@/look/FenceMark.vue";
import HeadroomBar from "@/look/HeadroomBar.vue";
import { zoneWords } from "@/look/reading";
import ReadingValue from "@/look/ReadingValue.vue";
import { unjudged } from "@/look/severity";

/** Points, one a row: value with age, severity with zone, headroom. */
const { points, withPlace = true } = defineProps<{ points: Point[]; withPlace?: boolean }>();
</script>

<template>
  <table class="rows cards">
    <thead>
      <tr>
        <th>Point</th>
        <th>Value</th>
        <th>State</th>
        <th>Headroom</th>
      </tr>
    </thead>
    <tbody>
      <tr v-for="point in points" :key="point.id">
        <td>
          <RouterLink :to="`/points/${point.id}`">{{ point.name }}</RouterLink>
          <div class="soft small">
            <template v-if="withPlace">{{ point.path.slice(1).join(", ") || point.path[0] }}</template>
            <template v-if="!point.released"> · not released</template>
          </div>
        </td>
        <td class="value"><ReadingValue :point="point" /></td>
        <td>
          <div v-if="point.latest" class="row state">
            <FenceMark :severity="point.latest.severity" :unknown="unjudged(point.latest)" /><span
              v-if="point.latest.zone"
              class="soft small"
              >{{ zoneWords(point.latest.zone) }}</span
            >
          </div>
        </td>
        <td><HeadroomBar v-if="point.latest?.severity" :latest="point.latest" /></td>
      </tr>
    </tbody>
  </table>
</template>

<style scoped>
.state {
  gap: 0 0.5rem;
}
.value {
  min-width: 7.5rem;
}
@media (max-width: 720px) {
  .value {
    text-align: right !important;
    justify-self: end;
  }
}
</style>
