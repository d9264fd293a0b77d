<script setup lang="ts">
import { t } from "@/language";
import { now } from "@/look/clock";
import FenceMark from "@/look/FenceMark.vue";
import { isStale } from "@/look/reading";
import { computed } from "vue";
import type { ViewProps } from "../view";
import { withUnit } from "../look";
import { over, tally } from "./tally";

/** All points together: how many are in which state, or what their newest values come to. */
const { panel, points } = defineProps<ViewProps<"tally">>();
const counts = computed(() => tally(points, (point) => isStale(point, now.value)));
const total = computed(() => (panel.statistic ? over(points, panel.statistic) : undefined));
const WORDS = { mean: "mean", minimum: "lowest", maximum: "highest", sum: "sum" } as const;
</script>

<template>
  <template v-if="panel.statistic">
    <p v-if="total && points[0]" class="figure">{{ withUnit(total.value, points[0], panel.look) }}</p>
    <p v-else class="soft">{{ t("The points are of different units, or none has a usable value.") }}</p>
    <p v-if="total" class="soft small">
      {{
        t("{statistic} of {used} of {points} points", {
          statistic: WORDS[panel.statistic],
          used: total.used,
          points: points.length,
        })
      }}
    </p>
  </template>
  <ul v-else class="counts">
    <li v-for="severity in counts.bySeverity" :key="severity.severity" :class="{ none: !severity.count }">
      <span class="figure">{{ severity.count }}</span>
      <FenceMark :severity="severity.severity" :quiet="!severity.count" />
    </li>
    <li v-for="other in counts.others" :key="other.name">
      <span class="figure soft">{{ other.count }}</span> <span class="soft">{{ other.name }}</span>
    </li>
  </ul>
</template>

<style scoped>
.figure {
  font-size: 2.1rem;
  font-weight: 640;
  margin: 0;
  line-height: 1.2;
}
.counts {
  list-style: none;
  margin: 0;
  padding: 0;
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(118px, 1fr));
  gap: 0.2rem 1rem;
}
.counts li {
  display: flex;
  align-items: baseline;
  gap: 0.5rem;
}
.none .figure {
  color: var(--ink-soft);
  font-weight: 400;
}
</style>
