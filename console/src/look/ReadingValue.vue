<script setup lang="ts">
import { t } from "@/language";
import type { Point } from "@/api/types";
import { computed } from "vue";
import { age, now } from "./clock";
import { isStale, shown, shownUnit } from "./reading";

/** A point's newest value with its unit and age. Stale values are hollow, bad ones struck through, unknown ones a dash. */
const { point, big = false, withAge = true } = defineProps<{ point: Point; big?: boolean; withAge?: boolean }>();
const stale = computed(() => isStale(point, now.value));
</script>

<template>
  <span class="reading" :class="[point.latest?.severity, { big, stale, bad: point.latest?.quality === 'BAD' }]">
    <span class="value"
      ><span class="digits">{{ shown(point) }}</span
      ><span class="unit">{{ shownUnit(point) }}</span></span
    >
    <span v-if="withAge" class="age">
      {{ point.latest ? age(point.latest.time, now) : t("nothing yet")
      }}<template v-if="stale">{{ t(", stale") }}</template
      ><template v-if="point.latest?.quality === 'BAD'">{{ t(", bad quality") }}</template>
    </span>
  </span>
</template>

<style scoped>
.reading {
  display: inline-grid;
  gap: 0;
  line-height: 1.25;
}
.value {
  white-space: nowrap;
}
.digits {
  font-weight: 640;
}
.unit {
  margin-left: 0.25em;
  color: var(--ink-soft);
  font-size: 0.9em;
}
.age {
  font-size: 0.82rem;
  color: var(--ink-soft);
}
.big .digits {
  font-size: 2.6rem;
  letter-spacing: -0.01em;
}
.big .unit {
  font-size: 1.1rem;
}
.advisory .digits {
  color: var(--advisory);
}
.warning .digits {
  color: var(--warning);
}
.critical .digits {
  color: var(--critical);
}
.stale .digits {
  color: transparent;
  -webkit-text-stroke: 0.9px var(--ink-soft);
}
.bad .digits {
  color: var(--ink-soft);
  text-decoration: line-through;
}
</style>
