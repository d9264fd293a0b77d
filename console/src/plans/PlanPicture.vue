<script setup lang="ts">
import { t } from "@/language";
import type { Plan, Point, Severity } from "@/api/types";
import FenceMark from "@/look/FenceMark.vue";
import { shown, shownUnit } from "@/look/reading";

/** The picture of a place with the newest values where they were measured. */
const {
  plan,
  source,
  points,
  severities,
  open = false,
} = defineProps<{
  plan: Plan;
  source: string;
  points: Map<string, Point>;
  /** How places are now, where that is known; else as it was when the plan was fetched. */
  severities?: Map<string, Severity | null>;
  /** Looked at without an account: marks lead nowhere. */
  open?: boolean;
}>();

function severityOf(mark: Plan["marks"][number]) {
  return mark.kind === "point"
    ? (points.get(mark.id)?.latest?.severity ?? null)
    : severities
      ? (severities.get(mark.id) ?? null)
      : mark.severity;
}

function to(mark: Plan["marks"][number]): string {
  return mark.kind === "point" ? `/points/${mark.id}` : `/places/${mark.id}`;
}
</script>

<template>
  <div class="picture" :style="{ aspectRatio: `${plan.width} / ${plan.height}`, '--ratio': plan.width / plan.height }">
    <img :src="source" :alt="t('Picture of {name}', { name: plan.name })" :width="plan.width" :height="plan.height" />
    <component
      :is="open ? 'span' : 'RouterLink'"
      v-for="mark in plan.marks"
      :key="mark.id"
      :to="open ? undefined : to(mark)"
      class="mark"
      :class="severityOf(mark)"
      :style="{ left: mark.x * 100 + '%', top: mark.y * 100 + '%' }"
      :title="mark.name"
    >
      <FenceMark v-if="severityOf(mark)" :severity="severityOf(mark)" :word="false" />
      <template v-if="mark.kind === 'point'">
        <span class="name">{{ mark.name }}</span>
        <strong v-if="points.get(mark.id)"
          >{{ shown(points.get(mark.id)!) }} {{ shownUnit(points.get(mark.id)!) }}</strong
        >
      </template>
      <strong v-else>{{ mark.name }}</strong>
    </component>
  </div>
</template>

<style scoped>
.picture {
  position: relative;
  width: 100%;
  margin: 0 auto;
  container-type: inline-size;
}
img {
  display: block;
  width: 100%;
  height: 100%;
  object-fit: contain;
  border-radius: 4px;
}
.mark {
  position: absolute;
  transform: translate(-50%, -50%);
  display: flex;
  align-items: center;
  gap: 0.3rem;
  padding: 0.1rem 0.45rem;
  border: 1px solid var(--line-strong);
  border-radius: 1rem;
  background: var(--sheet);
  color: var(--ink);
  font-size: 0.86rem;
  line-height: 1.5;
  text-decoration: none;
  white-space: nowrap;
}
.mark:hover,
.mark:focus-visible {
  z-index: 2;
  border-color: var(--heather);
}
.mark.advisory {
  border-color: var(--advisory);
}
.mark.warning {
  border-color: var(--warning);
  z-index: 1;
}
.mark.critical {
  border-color: var(--critical);
  border-width: 2px;
  z-index: 1;
}
.name {
  color: var(--ink-soft);
}
/* Where it is narrow only values stand, and a touch shows the point. */
@container (max-width: 560px) {
  .name,
  .mark.normal :deep(.fence) {
    display: none;
  }
  .mark {
    padding: 0 0.35rem;
    font-size: 0.76rem;
  }
}
</style>
