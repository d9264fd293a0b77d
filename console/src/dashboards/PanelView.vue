<script setup lang="ts">
import { t } from "@/language";
import type { LimitSet, Panel, Point } from "@/api/types";
import { allAsRead, asRead, panelAsRead } from "@/look/units";
import { computed } from "vue";
import { KINDS } from "./panels/kinds";

/** One panel as it is looked at: its title, and what its kind draws. */
const {
  panel,
  points,
  limits,
  open = false,
} = defineProps<{ panel: Panel; points: Point[]; limits: Map<string, LimitSet>; open?: boolean }>();
const kind = computed(() => KINDS[panel.kind]);
const first = computed(() => points.slice(0, kind.value.most ?? points.length).map(asRead));
const bounds = computed(() => allAsRead(limits));
const drawn = computed(() => panelAsRead(panel, first.value));
const nothing = computed(() =>
  kind.value.points !== "needed" || points.length
    ? undefined
    : panel.selection
      ? t("No point is selected now. Points that are added later appear here by themselves.")
      : panel.pointIds.length
        ? t("Its points are gone, or you may not see them.")
        : t("No points are chosen yet."),
);
</script>

<template>
  <article class="panel" :class="panel.kind">
    <h2 v-if="panel.title">{{ panel.title }}</h2>
    <p v-if="nothing" class="soft">{{ nothing }}</p>
    <component :is="kind.view" v-else :panel="drawn" :points="first" :limits="bounds" :open="open" />
    <p v-if="!nothing && points.length > first.length" class="soft small">
      {{
        t("{first} of {points} points. Narrow the selection, or use a table with bars.", {
          first: first.length,
          points: points.length,
        })
      }}
    </p>
  </article>
</template>

<style scoped>
.panel {
  height: 100%;
  background: var(--sheet);
  border: 1px solid var(--line);
  border-radius: var(--radius);
  padding: 0.6rem 0.8rem;
  display: flex;
  flex-direction: column;
  overflow: auto;
}
h2 {
  font-size: 0.95rem;
  color: var(--ink-soft);
  margin-bottom: 0.2rem;
}
</style>
