<script setup lang="ts">
import { t } from "@/language";
import FenceMark from "@/look/FenceMark.vue";
import HeadroomBar from "@/look/HeadroomBar.vue";
import ProblemNote from "@/look/ProblemNote.vue";
import ReadingValue from "@/look/ReadingValue.vue";
import { spanWords } from "../../layout";
import { wordFor } from "@/look/reading";
import { digits, wordsFor } from "../look";
import PointName from "../PointName.vue";
import { figure, useSummaries } from "../summaries";
import type { ViewProps } from "../view";

/** A number for each point: the newest value, or what its readings of a range come to. */
const { panel, points, open } = defineProps<ViewProps<"value">>();
const { found, error } = useSummaries(
  () => (panel.statistic ? points : []),
  () => panel.range,
);
</script>

<template>
  <ProblemNote :error="error" />
  <div class="values">
    <div v-for="point in points" :key="point.id" class="value">
      <template v-if="panel.statistic">
        <span class="figure"
          >{{ digits(figure(found.get(point.id), panel.statistic), point, panel.look) }}
          <span class="unit">{{ point.unit }}</span></span
        >
        <span class="soft small">{{
          t("{statistic} of {spanWords}", { statistic: panel.statistic, spanWords: spanWords(panel.range) })
        }}</span>
      </template>
      <component :is="open ? 'div' : 'RouterLink'" v-else :to="`/points/${point.id}`" class="latest">
        <span v-if="point.latest && wordFor(point.latest.value, wordsFor(point, panel.look))" class="figure">{{
          wordFor(point.latest.value, wordsFor(point, panel.look))
        }}</span>
        <ReadingValue
          v-else
          :point="{ ...point, decimals: panel.look?.decimals ?? point.decimals }"
          :big="points.length === 1"
        />
        <span v-if="point.latest?.zone" class="row"
          ><FenceMark :severity="point.latest.severity" /><HeadroomBar :latest="point.latest"
        /></span>
      </component>
      <span v-if="points.length > 1" class="soft small"><PointName :point="point" :all="points" :open="open" /></span>
    </div>
  </div>
</template>

<style scoped>
.values {
  display: flex;
  flex-wrap: wrap;
  gap: 0.5rem 2rem;
}
.value,
.latest {
  display: grid;
  align-content: start;
  color: inherit;
  text-decoration: none;
}
.figure,
.value :deep(.big .digits) {
  font-size: 2.1rem;
  font-weight: 640;
  line-height: 1.25;
}
.unit {
  font-size: 1.1rem;
  font-weight: 400;
  color: var(--ink-soft);
}
.row {
  gap: 0.1rem 0.6rem;
}
</style>
