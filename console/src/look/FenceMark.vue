<script setup lang="ts">
import type { Severity } from "@/api/types";
import { computed } from "vue";
import { rank } from "./severity";

/** Our mark of a severity: a fence with a rail for each step; the word stands beside it unless it is said elsewhere. */
const { severity, word = true } = defineProps<{ severity: Severity; word?: boolean }>();
const rails = computed(() =>
  [12, 8, 16]
    .slice(0, rank(severity))
    .map((y) => (rank(severity) === 2 ? [9, 15] : [y]))
    .flat()
    .slice(0, rank(severity)),
);
</script>

<template>
  <span class="fence" :class="severity">
    <svg viewBox="0 0 24 24" aria-hidden="true">
      <path class="post" d="M6 3v18M18 3v18" />
      <path v-for="y in rails" :key="y" class="rail" :d="`M1 ${y}h22`" />
    </svg>
    <span :class="word ? 'word' : 'said'">{{ severity }}</span>
  </span>
</template>

<style scoped>
.fence {
  display: inline-flex;
  align-items: center;
  gap: 0.3rem;
  white-space: nowrap;
  color: var(--ink-soft);
}
svg {
  width: 1.25em;
  height: 1.25em;
  flex: none;
}
path {
  stroke: currentColor;
  stroke-width: 2.4;
  fill: none;
  stroke-linecap: round;
}
.advisory {
  color: var(--advisory);
}
.warning {
  color: var(--warning);
}
.critical {
  color: var(--critical);
}
.warning .word,
.critical .word {
  font-weight: 640;
}
.said {
  position: absolute;
  clip-path: inset(50%);
  width: 1px;
  height: 1px;
  overflow: hidden;
}
</style>
