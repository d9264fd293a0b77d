<script setup lang="ts">
import { t } from "@/language";
import { limitsOf } from "@/points/limits";
import FenceMark from "@/look/FenceMark.vue";
import ReadingValue from "@/look/ReadingValue.vue";
import { computed, useId } from "vue";
import { marks, scaleOf, share, withUnit } from "../look";
import PointName from "../PointName.vue";
import type { ViewProps } from "../view";
import { OUTLINES } from "./shapes";

/** A vessel for each point, filled as far as its value lies up the scale; limits are rails across it. */
const { panel, points, limits, open } = defineProps<ViewProps<"vessel">>();
const clip = useId();

const vessels = computed(() => {
  const outline = OUTLINES[panel.shape ?? "upright"];
  const y = (part: number) => outline.bottom - part * (outline.bottom - outline.top);
  return points.map((point) => {
    const set = limitsOf(point, limits);
    const scale = scaleOf(panel.look, set, point);
    const value = point.latest?.value;
    const part = value === undefined ? 0 : share(value, scale);
    return {
      point,
      path: outline.path,
      percent: Math.round(part * 100),
      surface: y(part),
      rails: marks(set, scale).map((mark) => ({ ...mark, y: y(mark.at) })),
      left: value === undefined ? undefined : Math.max(0, scale.highest - value),
    };
  });
});
</script>

<template>
  <div class="vessels" :class="{ many: points.length > 1 }">
    <figure
      v-for="{ point, path, percent, surface, rails, left } in vessels"
      :key="point.id"
      :class="{ bad: point.latest?.quality === 'BAD' }"
    >
      <svg viewBox="-4 0 136 120" role="img" :aria-label="t('{name}: {percent} % full', { name: point.name, percent })">
        <clipPath :id="`${clip}-${point.id}`"><path :d="path" /></clipPath>
        <g :clip-path="`url(#${clip}-${point.id})`">
          <path :d="path" class="inside" />
          <rect
            v-if="point.latest && point.latest.quality !== 'BAD'"
            x="0"
            :y="surface"
            width="100"
            height="120"
            :class="['content', point.latest.severity]"
          />
        </g>
        <path :d="path" class="wall" />
        <g v-for="rail in rails" :key="rail.value">
          <path :d="`M4 ${rail.y}H102`" class="rail" />
          <text x="105" :y="rail.y + 3.5">{{ rail.value }}</text>
        </g>
      </svg>
      <figcaption>
        <ReadingValue
          :point="{ ...point, decimals: panel.look?.decimals ?? point.decimals }"
          :big="points.length === 1"
        />
        <span v-if="point.latest && point.latest.quality !== 'BAD'" class="soft small"
          >{{ t("{percent} % full", { percent })
          }}<template v-if="points.length === 1">{{
            t(", {withUnit} left", { withUnit: withUnit(left, point, panel.look) })
          }}</template></span
        >
        <FenceMark v-if="point.latest?.severity" :severity="point.latest.severity" />
        <PointName v-if="points.length > 1" class="small" :point="point" :all="points" :open="open" />
      </figcaption>
    </figure>
  </div>
</template>

<style scoped>
.vessels {
  flex: 1;
  min-height: 0;
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(165px, 1fr));
  grid-auto-rows: minmax(150px, 1fr);
  gap: 0.5rem;
}
figure {
  margin: 0;
  min-height: 0;
  display: grid;
  grid-template-columns: minmax(60px, 1fr) minmax(90px, 1.2fr);
  gap: 0.5rem;
  align-items: center;
}
svg {
  width: 100%;
  height: 100%;
  min-height: 76px;
  max-height: 240px;
}
.inside {
  fill: var(--ramp-0);
}
.content {
  fill: var(--ramp-1);
  transition: y 0.4s;
}
.content.advisory {
  fill: var(--advisory-fill);
}
.content.warning {
  fill: var(--warning-fill);
}
.content.critical {
  fill: var(--critical-fill);
}
.wall {
  fill: none;
  stroke: var(--ink);
  stroke-width: 2;
}
.rail {
  stroke: var(--line-strong);
  stroke-width: 1.5;
}
text {
  font-size: 10px;
  fill: var(--ink-soft);
}
/* Several stand side by side, each with its words below. */
.many {
  grid-template-columns: repeat(auto-fit, minmax(105px, 1fr));
}
.many figure {
  display: flex;
  flex-direction: column;
}
.many svg {
  flex: 1;
}
.many figcaption {
  justify-items: center;
  text-align: center;
}
figcaption {
  display: grid;
  gap: 0.15rem;
  justify-items: start;
}
figcaption :deep(.big .digits) {
  font-size: 1.9rem;
}
</style>
