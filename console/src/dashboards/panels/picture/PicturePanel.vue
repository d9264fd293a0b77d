<script setup lang="ts">
import { t } from "@/language";
import { limitsOf } from "@/points/limits";
import FenceMark from "@/look/FenceMark.vue";
import { age, now } from "@/look/clock";
import { isStale } from "@/look/reading";
import { computed, useId } from "vue";
import { wordFor } from "@/look/reading";
import { scaleOf, share, withUnit, wordsFor } from "../look";
import type { ViewProps } from "../view";
import { fillsUp } from "./drawings";

/** A drawing that turns, opens or fills with the newest value of its first point. What is not known now does not move. */
const { panel, points, limits } = defineProps<ViewProps<"picture">>();
const clip = useId();
const point = computed(() => points[0]);
const drawing = computed(() => panel.drawing ?? "pump");
const known = computed(
  () => point.value?.latest && point.value.latest.quality !== "BAD" && !isStale(point.value, now.value),
);
const value = computed(() => (known.value ? point.value?.latest?.value : undefined));
const on = computed(() => value.value !== undefined && value.value >= (panel.onFrom ?? 1));
const filled = computed(() =>
  value.value === undefined ? 0 : share(value.value, scaleOf(panel.look, limitsOf(point.value, limits), point.value)),
);
const severity = computed(() => (known.value ? point.value?.latest?.severity : null));
const fills = computed(() => fillsUp(drawing.value));
const STATES = {
  pump: [t("stands"), t("runs")],
  fan: [t("stands"), t("runs")],
  valve: [t("shut"), t("open")],
  door: [t("shut"), t("open")],
  shed: [t("off"), t("on")],
} as const;
const state = computed(() => {
  const latest = point.value?.latest;
  if (!known.value || !latest || !point.value) {
    return t("unknown");
  }
  const word = wordFor(latest.value, wordsFor(point.value, panel.look));
  const kind = drawing.value;
  return (
    word ??
    (kind in STATES
      ? STATES[kind as keyof typeof STATES][on.value ? 1 : 0]
      : t("{percent} % full", { percent: Math.round(filled.value * 100) }))
  );
});
</script>

<template>
  <figure v-if="point" :class="[severity, { on, unknown: !known }]">
    <svg viewBox="0 0 120 100" role="img" :aria-label="`${point.name}: ${state}`">
      <g v-if="drawing === 'pump'">
        <path class="part" d="M60 20h44v16H76" />
        <circle class="body" cx="56" cy="52" r="32" />
        <g class="turns" style="transform-origin: 56px 52px">
          <path class="blade" d="M56 52V26M56 52L79 65M56 52L33 65" />
        </g>
        <path class="part" d="M34 84h44" />
      </g>
      <g v-else-if="drawing === 'fan'">
        <circle class="body" cx="60" cy="50" r="42" />
        <g class="turns" style="transform-origin: 60px 50px">
          <path class="wing" d="M60 50C50 30 56 14 68 12C74 28 70 40 60 50Z" />
          <path class="wing" d="M60 50C82 48 94 58 92 70C76 70 66 62 60 50Z" />
          <path class="wing" d="M60 50C50 68 36 72 28 62C36 50 48 46 60 50Z" />
        </g>
        <circle class="hub" cx="60" cy="50" r="6" />
      </g>
      <g v-else-if="drawing === 'valve'">
        <path class="part" d="M4 62h24M92 62h24" />
        <path class="body" d="M28 42V82L60 62ZM92 42V82L60 62Z" />
        <g class="opens quarter" style="transform-origin: 60px 30px"><path class="blade" d="M38 30H82" /></g>
        <path class="part" d="M60 62V30" />
      </g>
      <g v-else-if="drawing === 'door'">
        <path class="part" d="M28 92V10H92V92" />
        <g class="opens swing" style="transform-origin: 28px 50px">
          <rect class="body" x="28" y="10" width="64" height="82" />
          <circle class="hub" cx="82" cy="52" r="4" />
        </g>
      </g>
      <g v-else-if="drawing === 'shed'">
        <path class="body" d="M14 46L60 14L106 46V92H14Z" />
        <path class="part" d="M6 52L60 12L114 52M44 92V64H76V92" />
        <rect class="lamp" x="52" y="36" width="16" height="14" />
      </g>
      <g v-else>
        <clipPath :id="clip">
          <path v-if="drawing === 'tank'" d="M24 16C24 6 96 6 96 16V86C96 96 24 96 24 86Z" />
          <path v-else-if="drawing === 'silo'" d="M36 14C36 4 84 4 84 14V62L66 88H54L36 62Z" />
          <path v-else d="M8 24H74V70H8Z" />
        </clipPath>
        <g :clip-path="`url(#${clip})`">
          <rect class="inside" width="120" height="100" />
          <rect
            class="content"
            x="0"
            width="120"
            height="100"
            :y="drawing === 'lorry' ? 70 - filled * 46 : drawing === 'silo' ? 88 - filled * 82 : 93 - filled * 85"
          />
        </g>
        <path v-if="drawing === 'tank'" class="part" d="M24 16C24 6 96 6 96 16V86C96 96 24 96 24 86Z" />
        <path
          v-else-if="drawing === 'silo'"
          class="part"
          d="M36 14C36 4 84 4 84 14V62L66 88H54L36 62ZM38 62V96M82 62V96"
        />
        <g v-else>
          <path class="part" d="M8 24H74V70H8ZM78 38H98L112 54V70H78Z" />
          <circle class="hub" cx="28" cy="76" r="9" />
          <circle class="hub" cx="94" cy="76" r="9" />
        </g>
      </g>
    </svg>
    <figcaption>
      <strong>{{ state }}</strong>
      <span v-if="fills && known" class="soft small">{{ withUnit(value, point, panel.look) }}</span>
      <FenceMark v-if="severity && severity !== 'normal'" :severity="severity" />
      <span class="soft small">{{ age(point.latest?.time ?? null, now) }}</span>
    </figcaption>
  </figure>
</template>

<style scoped>
figure {
  margin: 0;
  flex: 1;
  min-height: 0;
  display: flex;
  flex-direction: column;
  align-items: center;
}
svg {
  flex: 1;
  min-height: 72px;
  width: 100%;
}
.part,
.blade {
  fill: none;
  stroke: var(--ink);
  stroke-width: 4;
  stroke-linecap: round;
  stroke-linejoin: round;
}
.body {
  fill: var(--ramp-0);
  stroke: var(--ink);
  stroke-width: 4;
  stroke-linejoin: round;
}
.on .body {
  fill: var(--moss-soft);
}
.inside {
  fill: var(--ramp-0);
}
.content,
.wing {
  fill: var(--ramp-1);
}
.content {
  transition: y 0.4s;
}
.hub {
  fill: var(--ink);
}
.lamp {
  fill: var(--ramp-0);
  stroke: var(--ink);
  stroke-width: 3;
}
.on .lamp {
  fill: var(--ramp-1);
}
.advisory .body,
.advisory .content {
  fill: var(--advisory-fill);
}
.warning .body,
.warning .content {
  fill: var(--warning-fill);
}
.critical .body,
.critical .content {
  fill: var(--critical-fill);
}
.unknown svg {
  opacity: 0.55;
}
.unknown .part,
.unknown .body {
  stroke-dasharray: 5 6;
}
.opens {
  transition: transform 0.4s;
}
.quarter {
  transform: rotate(90deg);
}
.on .quarter {
  transform: none;
}
.on .swing {
  transform: scaleX(0.4) skewY(9deg);
}
.on .turns {
  animation: turn 2.4s linear infinite;
}
@keyframes turn {
  to {
    transform: rotate(360deg);
  }
}
@media (prefers-reduced-motion: reduce) {
  .on .turns {
    animation: none;
    transform: rotate(40deg);
  }
}
figcaption {
  display: flex;
  flex-wrap: wrap;
  gap: 0 0.75rem;
  align-items: baseline;
  justify-content: center;
}
</style>
