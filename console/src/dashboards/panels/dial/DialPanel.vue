<script setup lang="ts">
import { isStale } from "@/look/reading";
import FenceMark from "@/look/FenceMark.vue";
import { age, now } from "@/look/clock";
import type { Point } from "@/api/types";
import { digits, limitsOf, marks, scaleOf, share, zones } from "../look";
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

function dial(point: Point) {
  const set = limitsOf(point, limits);
  const scale = scaleOf(panel.look, set, point);
  const value = point.latest?.value;
  return {
    scale,
    zones: zones(set, scale),
    marks: marks(set, scale),
    needle: value === undefined ? undefined : share(value, scale),
    beyond: value !== undefined && (value < scale.lowest || value > scale.highest),
  };
}
</script>

<template>
  <div class="dials">
    <figure
      v-for="point in points"
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
          v-for="zone in dial(point).zones.filter((one) => one.severity !== 'normal')"
          :key="zone.label"
          :d="arc(zone.from, zone.to)"
          :class="['zone', zone.severity, { entered: zone.label === point.latest?.zone }]"
        />
        <g v-for="mark in dial(point).marks" :key="mark.value">
          <path :d="`M${at(mark.at, RADIUS - 9)}L${at(mark.at, RADIUS + 9)}`" class="mark" />
          <text
            :x="Number(at(mark.at, RADIUS + 21).split(' ')[0])"
            :y="Number(at(mark.at, RADIUS + 17).split(' ')[1]) + 4"
          >
            {{ mark.value }}
          </text>
        </g>
        <text :x="Number(at(0, RADIUS).split(' ')[0])" :y="Number(at(0, RADIUS).split(' ')[1]) + 20">
          {{ dial(point).scale.lowest }}
        </text>
        <text :x="Number(at(1, RADIUS).split(' ')[0])" :y="Number(at(1, RADIUS).split(' ')[1]) + 20">
          {{ dial(point).scale.highest }}
        </text>
        <path
          v-if="dial(point).needle !== undefined"
          class="needle"
          :d="`M${at(dial(point).needle ?? 0, RADIUS - 4)}L${at(dial(point).needle ?? 0, 44)}`"
        />
        <text class="digits" y="8">{{ digits(point.latest?.value, point, panel.look) }}</text>
        <text class="unit" y="28">{{ point.latest ? point.unit : "nothing yet" }}</text>
      </svg>
      <figcaption>
        <FenceMark v-if="point.latest?.severity" :severity="point.latest.severity" />
        <span v-if="dial(point).beyond" class="soft small">beyond the scale</span>
        <span v-if="isStale(point, now)" class="soft small">stale, {{ age(point.latest?.time ?? null, now) }}</span>
        <span v-if="point.latest?.quality === 'BAD'" class="soft small">bad quality</span>
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
