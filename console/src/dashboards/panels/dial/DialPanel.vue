<script setup lang="ts">
import { t } from "@/language";
import { limitsOf } from "@/points/limits";
import { isStale } from "@/look/reading";
import FenceMark from "@/look/FenceMark.vue";
import { age, now } from "@/look/clock";
import { computed } from "vue";
import { digits, marks, scaleOf, share, zones } from "../look";
import PointName from "../PointName.vue";
import type { ViewProps } from "../view";

/** A dial for each point: fixed ends, the zones along the arc, a needle. Only a zone that is entered has a colour. */
const { panel, points, limits, open } = defineProps<ViewProps<"dial">>();
const RADIUS = 80;
const SWEEP = 240;
const angle = (part: number) => ((part * SWEEP - 90 - SWEEP / 2) * Math.PI) / 180;
const at = (part: number, radius: number) =>
  `${(Math.cos(angle(part)) * radius).toFixed(2)} ${(Math.sin(angle(part)) * radius).toFixed(2)}`;

function arc(from: number, to: number): string {
  return `M${at(from, RADIUS)}A${RADIUS} ${RADIUS} 0 ${(to - from) * SWEEP > 180 ? 1 : 0} 1 ${at(to, RADIUS)}`;
}

/** Text beside the arc, below a place on it by so much. */
function beside(part: number, radius: number, below: number) {
  return { x: Math.cos(angle(part)) * radius, y: Math.sin(angle(part)) * radius + below };
}

const dials = computed(() =>
  points.map((point) => {
    const set = limitsOf(point, limits);
    const scale = scaleOf(panel.look, set, point);
    const value = point.latest?.value;
    return {
      point,
      scale,
      abnormal: zones(set, scale).filter((zone) => zone.severity !== "normal"),
      marks: marks(set, scale),
      needle: value === undefined ? undefined : share(value, scale),
      beyond: value !== undefined && (value < scale.lowest || value > scale.highest),
    };
  }),
);
</script>

<template>
  <div class="dials">
    <figure
      v-for="{ point, scale, abnormal, marks: bounds, needle, beyond } in dials"
      :key="point.id"
      :class="{ stale: isStale(point, now), bad: point.latest?.quality === 'BAD' }"
    >
      <svg
        viewBox="-112 -100 224 168"
        role="img"
        :aria-label="`${point.name}: ${digits(point.latest?.value, point, panel.look)} ${point.unit}`"
      >
        <path :d="arc(0, 1)" class="track" />
        <path
          v-for="zone in abnormal"
          :key="zone.label"
          :d="arc(zone.from, zone.to)"
          :class="['zone', zone.severity, { entered: zone.label === point.latest?.zone }]"
        />
        <g v-for="mark in bounds" :key="mark.value">
          <path :d="`M${at(mark.at, RADIUS - 9)}L${at(mark.at, RADIUS + 9)}`" class="mark" />
          <text :x="beside(mark.at, RADIUS + 21, 0).x" :y="beside(mark.at, RADIUS + 17, 4).y">{{ mark.value }}</text>
        </g>
        <text v-bind="beside(0, RADIUS, 20)">{{ scale.lowest }}</text>
        <text v-bind="beside(1, RADIUS, 20)">{{ scale.highest }}</text>
        <path v-if="needle !== undefined" class="needle" :d="`M${at(needle, RADIUS - 4)}L${at(needle, 44)}`" />
        <text class="digits" y="8">{{ digits(point.latest?.value, point, panel.look) }}</text>
        <text class="unit" y="28">{{ point.latest ? point.unit : t("nothing yet") }}</text>
      </svg>
      <figcaption>
        <FenceMark v-if="point.latest?.severity" :severity="point.latest.severity" />
        <span v-if="beyond" class="soft small">{{ t("beyond the scale") }}</span>
        <span v-if="isStale(point, now)" class="soft small">{{
          t("stale, {age}", { age: age(point.latest?.time ?? null, now) })
        }}</span>
        <span v-if="point.latest?.quality === 'BAD'" class="soft small">{{ t("bad quality") }}</span>
        <PointName v-if="points.length > 1" class="small" :point="point" :all="points" :open="open" />
      </figcaption>
    </figure>
  </div>
</template>

<style scoped>
.dials {
  flex: 1;
  min-height: 0;
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(120px, 1fr));
  gap: 0.5rem;
}
figure {
  margin: 0;
  min-height: 0;
  display: flex;
  flex-direction: column;
  align-items: center;
}
svg {
  flex: 1;
  min-height: 96px;
  max-height: 260px;
  width: 100%;
}
.track {
  stroke: var(--ramp-0);
  stroke-width: 14;
  fill: none;
}
.zone {
  stroke: var(--line);
  stroke-width: 14;
  fill: none;
}
.entered.advisory {
  stroke: var(--advisory-fill);
}
.entered.warning {
  stroke: var(--warning-fill);
}
.entered.critical {
  stroke: var(--critical-fill);
}
.mark {
  stroke: var(--line-strong);
  stroke-width: 1.5;
}
.needle {
  stroke: var(--ink);
  stroke-width: 5;
  stroke-linecap: round;
}
text {
  font-size: 12px;
  fill: var(--ink-soft);
  text-anchor: middle;
}
.digits {
  font-size: 32px;
  font-weight: 640;
  fill: var(--ink);
}
.unit {
  font-size: 13px;
}
.stale .digits {
  fill: none;
  stroke: var(--ink-soft);
}
.stale .needle {
  stroke: var(--line-strong);
}
.bad .digits {
  text-decoration: line-through;
  fill: var(--ink-soft);
}
figcaption {
  display: flex;
  flex-wrap: wrap;
  gap: 0 0.6rem;
  justify-content: center;
  align-items: center;
}
</style>
