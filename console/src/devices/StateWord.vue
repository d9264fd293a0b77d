<script setup lang="ts">
import { STATE_WORDS } from "./stateWords";
/** The state of a gateway or device in a word, with a filled, half or empty post. */
const { state } = defineProps<{ state: string }>();
</script>

<template>
  <span class="state" :class="state"
    ><svg viewBox="0 0 10 18" width="8" height="15" aria-hidden="true">
      <rect x="1" y="1" width="8" height="16" rx="2" /></svg
    >{{ STATE_WORDS[state] ?? state }}</span
  >
</template>

<style scoped>
.state {
  display: inline-flex;
  align-items: center;
  gap: 0.4rem;
  white-space: nowrap;
}
rect {
  fill: none;
  stroke: var(--line-strong);
  stroke-width: 2;
}
.online rect,
.up rect {
  fill: var(--moss);
  stroke: var(--moss);
}
.connecting rect,
.joined rect {
  fill: var(--ramp-0);
  stroke: var(--moss);
}
.silent,
.silent-gateway,
.silent-battery,
.silent-inlet,
.degraded,
.down {
  color: var(--warning);
  font-weight: 600;
}
.silent rect,
.silent-gateway rect,
.silent-battery rect,
.silent-inlet rect,
.degraded rect,
.down rect {
  stroke: var(--warning);
}
</style>
