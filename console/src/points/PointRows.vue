<script setup lang="ts">
import { said, t } from "@/language";
import type { Point } from "@/api/types";
import FenceMark from "@/look/FenceMark.vue";
import HeadroomBar from "@/look/HeadroomBar.vue";
import { zoneWords } from "@/look/reading";
import ReadingValue from "@/look/ReadingValue.vue";
import { useFound } from "@/look/find";
import { useRowsInSight } from "@/look/rows";
import { unjudged } from "@/look/severity";
import SpaceRow from "@/look/SpaceRow.vue";
import { useTemplateRef } from "vue";

/** Points, one a row: value with age, severity with zone, headroom. */
const { points, withPlace = true } = defineProps<{ points: Point[]; withPlace?: boolean }>();
const { text, found, isLong } = useFound(
  () => points,
  (point) => [point.name, ...point.path, said(point.quantityTitle), String(point.number), ...point.tags],
);
const body = useTemplateRef<HTMLElement>("body");
const { shown, above, below, first, partly } = useRowsInSight(() => found.value, body);
</script>

<template>
  <el-input
    v-if="isLong"
    v-model="text"
    clearable
    class="find"
    :aria-label="t('Find a point')"
    :placeholder="t('Find a point')"
  />
  <p v-if="!found.length && text" class="soft">{{ t("No point has that in its name, place, quantity or tags.") }}</p>
  <table v-else class="rows cards" :class="{ steady: partly }" :aria-rowcount="found.length + 1">
    <thead>
      <tr>
        <th>{{ t("Point") }}</th>
        <th>{{ t("Value") }}</th>
        <th>{{ t("State") }}</th>
        <th>{{ t("Headroom") }}</th>
      </tr>
    </thead>
    <tbody ref="body">
      <SpaceRow :pixels="above" />
      <tr v-for="(point, i) in shown" :key="point.id" :aria-rowindex="first + i + 2">
        <td>
          <RouterLink :to="`/points/${point.id}`">{{ point.name }}</RouterLink>
          <div class="soft small">
            <template v-if="withPlace">{{ point.path.slice(1).join(", ") || point.path[0] }}</template>
            <template v-if="!point.released"> · {{ t("not released") }}</template>
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
      <SpaceRow :pixels="below" />
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
