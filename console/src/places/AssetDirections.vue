<script setup lang="ts">
import { t } from "@/language";
import type { LimitSet, Point } from "@/api/types";
import FenceMark from "@/look/FenceMark.vue";
import HeadroomBar from "@/look/HeadroomBar.vue";
import ReadingValue from "@/look/ReadingValue.vue";
import { byHeadroom, zoneWords } from "@/look/reading";
import { asRead, limitsAsRead } from "@/look/units";
import { computed } from "vue";
import ZoneColumn from "./ZoneColumn.vue";

/** The directions of one machine side by side on one scale; the worst decides, and is said to. */
const {
  points: kept,
  limits: keptLimits,
  links = true,
} = defineProps<{ points: Point[]; limits?: LimitSet; links?: boolean }>();
const points = computed(() => kept.map(asRead));
const limits = computed(() => keptLimits && limitsAsRead(keptLimits));
const deciding = computed(() => [...points.value].sort(byHeadroom)[0]);
const top = computed(() => {
  const highest = Math.max(...(limits.value?.zones.map((zone) => zone.from ?? 0) ?? [1]));
  return Math.max(highest * 1.3, ...points.value.map((point) => (point.latest?.value ?? 0) * 1.05));
});
</script>

<template>
  <section class="sheet directions" :aria-label="t('Directions')">
    <component
      :is="links ? 'RouterLink' : 'div'"
      v-for="point in points"
      :key="point.id"
      :to="`/points/${point.id}`"
      class="direction"
      :class="{ decides: limits && point.id === deciding?.id }"
    >
      <ZoneColumn :limits="limits" :value="point.latest?.value" :top="top" />
      <div class="text">
        <h2>{{ point.direction }}</h2>
        <ReadingValue :point="point" big />
        <template v-if="point.latest?.zone">
          <div class="row">
            <FenceMark :severity="point.latest.severity" /> <strong>{{ zoneWords(point.latest.zone) }}</strong>
          </div>
          <HeadroomBar :latest="point.latest" />
          <span v-if="point.latest.nextBoundary !== null" class="soft small">{{
            t("{nextZone} from {nextBoundary} {unit}", {
              nextZone: point.latest.nextZone,
              nextBoundary: point.latest.nextBoundary,
              unit: point.unit,
            })
          }}</span>
        </template>
        <span v-if="limits && point.id === deciding?.id" class="decides-word">{{ t("this direction decides") }}</span>
      </div>
    </component>
  </section>
</template>

<style scoped>
.directions {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(195px, 1fr));
  gap: 0.25rem;
  padding: 0.5rem;
}
.direction {
  display: grid;
  grid-template-columns: auto 1fr;
  gap: 0.75rem;
  color: inherit;
  text-decoration: none;
  padding: 0.75rem;
  border-radius: var(--radius);
  border: 1px solid transparent;
}
.direction:hover {
  background: var(--moss-soft);
}
.decides {
  border-color: var(--line-strong);
}
.text {
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  min-width: 0;
  gap: 0.25rem;
  align-content: start;
}
h2::first-letter {
  text-transform: uppercase;
}
.decides-word {
  font-size: 0.85rem;
  font-style: italic;
}
</style>
