<script setup lang="ts">
import { said, t } from "@/language";
import type { Severity } from "@/api/types";

/** Our mark of a severity: a fence with a rail for each step; the word stands beside it unless it is said elsewhere. Quiet,
 * without colour, where it names what could be and not what is. Without a severity there is no fence: nothing is known. */
const {
  severity,
  word = true,
  quiet = false,
  unknown = t("no limits"),
} = defineProps<{ severity: Severity | null; word?: boolean; quiet?: boolean; unknown?: string }>();
const RAILS: Record<Severity, number[]> = { normal: [], advisory: [12], warning: [9, 15], critical: [8, 12, 16] };
</script>

<template>
  <span class="fence" :class="quiet ? 'quiet' : severity">
    <svg v-if="severity" viewBox="0 0 24 24" aria-hidden="true">
      <path class="post" d="M6 3v18M18 3v18" />
      <path v-for="y in RAILS[severity]" :key="y" class="rail" :d="`M1 ${y}h22`" />
    </svg>
    <span :class="word ? 'word' : 'unseen'">{{ severity ? said(severity) : unknown }}</span>
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
</style>
