<script setup lang="ts">
import type { LimitSet, Panel, Point } from "@/api/types";
import { computed } from "vue";
import { inReadingOrder, ROW_HEIGHT } from "./layout";
import PanelView from "./PanelView.vue";

/** A dashboard as it is looked at: twelve columns, one below the other on a phone. */
const {
  panels,
  pointsOf,
  limits,
  open = false,
} = defineProps<{
  panels: Panel[];
  pointsOf: (panel: Panel) => Point[];
  limits: Map<string, LimitSet>;
  open?: boolean;
}>();
const ordered = computed(() => inReadingOrder(panels));
</script>

<template>
  <div class="grid" :style="{ gridAutoRows: ROW_HEIGHT + 'px' }">
    <div
      v-for="panel in ordered"
      :key="panel.id"
      class="cell"
      :style="{ gridColumn: `${panel.x + 1} / span ${panel.w}`, gridRow: `${panel.y + 1} / span ${panel.h}` }"
    >
      <PanelView :panel="panel" :points="pointsOf(panel)" :limits="limits" :open="open" />
    </div>
  </div>
</template>

<style scoped>
.grid {
  display: grid;
  grid-template-columns: repeat(12, minmax(0, 1fr));
}
.cell {
  padding: 5px;
  min-width: 0;
}
@media (max-width: 820px) {
  .grid {
    display: flex;
    flex-direction: column;
  }
}
</style>
