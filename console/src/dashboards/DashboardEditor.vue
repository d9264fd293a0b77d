<script setup lang="ts">
import { t } from "@/language";
import type { LimitSet, Panel, Point } from "@/api/types";
import { GridStack, type GridStackNode } from "gridstack";
import "gridstack/dist/gridstack.min.css";
import { nextTick, onBeforeUnmount, onMounted, useTemplateRef, watch } from "vue";
import { COLUMNS, ROW_HEIGHT } from "./layout";
import PanelView from "./PanelView.vue";

/** A dashboard while it is edited: panels are dragged and resized, or moved with the arrow keys. */
const panels = defineModel<Panel[]>({ required: true });
const { pointsOf, limits } = defineProps<{ pointsOf: (panel: Panel) => Point[]; limits: Map<string, LimitSet> }>();
const emit = defineEmits<{ edit: [panel: Panel]; duplicate: [panel: Panel] }>();
const host = useTemplateRef<HTMLElement>("host");
let grid: GridStack | null = null;

onMounted(() => {
  if (host.value) {
    grid = GridStack.init(
      { column: COLUMNS, cellHeight: ROW_HEIGHT, margin: 5, mode: "float", handle: ".grip" },
      host.value,
    );
    grid?.on("change", (_event: Event, nodes: GridStackNode[]) => {
      const moved = new Map(nodes.map((node) => [String(node.id), node]));
      panels.value = panels.value.map((panel) => {
        const node = moved.get(panel.id);
        return node
          ? { ...panel, x: node.x ?? panel.x, y: node.y ?? panel.y, w: node.w ?? panel.w, h: node.h ?? panel.h }
          : panel;
      });
    });
  }
});
onBeforeUnmount(() => grid?.destroy(false));

// Panels that came or went are told to the grid; those that stayed it knows.
watch(
  () => panels.value.map((panel) => panel.id).join(),
  async () => {
    await nextTick();
    const known = new Set(panels.value.map((panel) => panel.id));
    grid?.engine.nodes
      .filter((node) => !known.has(String(node.id)))
      .forEach((node) => node.el && grid?.removeWidget(node.el, false, false));
    host.value?.querySelectorAll<HTMLElement>(".grid-stack-item").forEach((element) => {
      if (!grid?.engine.nodes.some((node) => node.el === element)) {
        grid?.makeWidget(element);
      }
    });
  },
);
// Undo moves panels from outside.
watch(panels, (now) => {
  now.forEach((panel) => {
    const node = grid?.engine.nodes.find((one) => one.id === panel.id);
    if (node?.el && (node.x !== panel.x || node.y !== panel.y || node.w !== panel.w || node.h !== panel.h)) {
      grid?.update(node.el, { x: panel.x, y: panel.y, w: panel.w, h: panel.h });
    }
  });
});

function key(event: KeyboardEvent, panel: Panel) {
  const step = { ArrowLeft: [-1, 0], ArrowRight: [1, 0], ArrowUp: [0, -1], ArrowDown: [0, 1] }[event.key];
  const element = host.value?.querySelector<HTMLElement>(`[gs-id="${panel.id}"]`);
  if (!step || !element) {
    return;
  }
  event.preventDefault();
  const [dx = 0, dy = 0] = step;
  const change = event.shiftKey
    ? { w: Math.min(COLUMNS - panel.x, Math.max(1, panel.w + dx)), h: Math.max(1, panel.h + dy) }
    : { x: Math.min(COLUMNS - panel.w, Math.max(0, panel.x + dx)), y: Math.max(0, panel.y + dy) };
  grid?.update(element, change);
}
</script>

<template>
  <p class="soft small">
    {{
      t("Drag a panel by its bar, or reach the bar with Tab and use the arrow keys; with Shift they change the size.")
    }}
  </p>
  <div ref="host" class="grid-stack">
    <div
      v-for="panel in panels"
      :key="panel.id"
      class="grid-stack-item"
      :gs-id="panel.id"
      :gs-x="panel.x"
      :gs-y="panel.y"
      :gs-w="panel.w"
      :gs-h="panel.h"
    >
      <div class="grid-stack-item-content">
        <div class="bar">
          <button
            type="button"
            class="grip"
            :aria-label="t('Move {title}', { title: panel.title })"
            @keydown="key($event, panel)"
          >
            ⠿
          </button>
          <span class="grow"></span>
          <button type="button" @click="emit('edit', panel)">{{ t("change") }}</button>
          <button type="button" @click="emit('duplicate', panel)">{{ t("duplicate") }}</button>
          <button
            type="button"
            :aria-label="t('Remove {title}', { title: panel.title })"
            @click="panels = panels.filter((one) => one.id !== panel.id)"
          >
            {{ t("remove") }}
          </button>
        </div>
        <div class="body"><PanelView :panel="panel" :points="pointsOf(panel)" :limits="limits" /></div>
      </div>
    </div>
  </div>
</template>

<style scoped>
.grid-stack {
  background: var(--moss-soft);
  border-radius: var(--radius);
  min-height: 240px;
}
.grid-stack-item-content {
  display: flex;
  flex-direction: column;
  overflow: hidden !important;
}
.bar {
  display: flex;
  gap: 0.25rem;
  background: var(--moss);
  color: var(--sheet);
  border-radius: var(--radius) var(--radius) 0 0;
}
.bar button {
  border: 0;
  background: none;
  color: inherit;
  font: inherit;
  font-size: 0.85rem;
  padding: 0.15rem 0.5rem;
  cursor: pointer;
}
.grip {
  cursor: grab !important;
  flex: 1;
  text-align: left;
}
.grow {
  flex: 0;
}
.body {
  flex: 1;
  min-height: 0;
  pointer-events: none;
}
</style>
