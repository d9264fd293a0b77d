<script setup lang="ts">
import { said } from "@/language";
import type { LimitSet } from "@/api/types";
import { computed } from "vue";

/** A column with the zones of a limit set, and a needle at the value. Drawn only; the words stand beside it. */
const { limits, value, top } = defineProps<{ limits?: LimitSet; value?: number; top: number }>();
const HEIGHT = 132;
const y = (of: number) => HEIGHT - (Math.min(Math.max(of, 0), top) / top) * HEIGHT;
const zones = computed(
  () =>
    limits?.zones.map((zone) => {
      const high = y(zone.to ?? top);
      return { ...zone, y: high, height: Math.max(0, y(zone.from ?? 0) - high) };
    }) ?? [],
);
</script>

<template>
  <svg :viewBox="`-2 -3 62 ${HEIGHT + 6}`" width="62" :height="HEIGHT + 6" aria-hidden="true">
    <g v-for="zone in zones" :key="zone.label">
      <rect x="0" :y="zone.y" width="22" :height="zone.height" :class="['zone', zone.severity]" />
      <text x="32" :y="zone.y + zone.height / 2 + 4">{{ said(zone.label) }}</text>
      <path v-if="zone.from !== null" :d="`M0 ${zone.y + zone.height}h26`" class="rail" />
    </g>
    <rect v-if="!zones.length" x="0" y="0" width="22" :height="HEIGHT" class="zone" />
    <rect x="0" y="0" width="22" :height="HEIGHT" class="frame" />
    <g v-if="value !== undefined" :transform="`translate(0 ${y(value)})`" class="needle">
      <path d="M-2 0h28" />
      <path d="M26 0l9 -6v12z" />
    </g>
  </svg>
</template>

<style scoped>
.zone {
  fill: var(--ramp-0);
}
.advisory {
  fill: var(--advisory-fill);
}
.warning {
  fill: var(--warning-fill);
}
.critical {
  fill: var(--critical-fill);
}
.rail {
  stroke: var(--line-strong);
}
.frame {
  fill: none;
  stroke: var(--line-strong);
}
text {
  font-size: 11px;
  fill: var(--ink-soft);
  transform: translateX(12px);
}
.needle {
  transition: transform 0.3s;
}
.needle path {
  stroke: var(--ink);
  stroke-width: 2.5;
  fill: var(--ink);
}
</style>
