<script setup lang="ts">
import { t } from "@/language";
import { api } from "@/api/http";
import type { Plan } from "@/api/types";
import { useAction } from "@/look/act";
import ProblemNote from "@/look/ProblemNote.vue";
import { labelOf } from "@/points/names";
import { usePlaces } from "@/places/places";
import { usePoints } from "@/points/points";
import { computed, ref, useTemplateRef } from "vue";
import { moved } from "./plans";

/** Marks points and places on a picture, by pointer or by keys. */
const { plan, source } = defineProps<{ plan: Plan; source: string }>();
const emit = defineEmits<{ close: [saved: boolean] }>();
const points = usePoints();
const places = usePlaces();
const { busy, error, run } = useAction();
const STEP = 0.01;
const FAR = 0.05;

const marks = ref(plan.marks.map(({ kind, id, name, x, y }) => ({ kind, id, name, x, y })));
const picture = useTemplateRef<HTMLElement>("picture");
const chosen = ref("");
const dragged = ref<string>();
const marked = computed(() => new Set(marks.value.map((mark) => mark.id)));
const choices = computed(() =>
  [
    ...points
      .below(plan.placeId)
      .map((point) => ({ kind: "point", id: point.id, name: point.name, label: labelOf(point) })),
    ...places.places
      .filter((place) => place.id !== plan.placeId && places.path(place.id).some((one) => one.id === plan.placeId))
      .map((place) => ({ kind: "place", id: place.id, name: place.name, label: place.name })),
  ].filter((one) => !marked.value.has(one.id)),
);

function add(id: string) {
  const choice = choices.value.find((one) => one.id === id);
  if (choice) {
    marks.value.push({ kind: choice.kind, id, name: choice.name, x: 0.5, y: 0.5 });
    chosen.value = "";
  }
}

function change(id: string, to: (mark: (typeof marks.value)[number]) => (typeof marks.value)[number]) {
  marks.value = marks.value.map((mark) => (mark.id === id ? to(mark) : mark));
}

function drag(event: PointerEvent) {
  const frame = picture.value?.getBoundingClientRect();
  if (dragged.value && frame) {
    const at = { x: (event.clientX - frame.left) / frame.width, y: (event.clientY - frame.top) / frame.height };
    change(dragged.value, (mark) => moved({ ...mark, ...at }, 0, 0));
  }
}

const KEYS: Record<string, [number, number]> = {
  ArrowLeft: [-1, 0],
  ArrowRight: [1, 0],
  ArrowUp: [0, -1],
  ArrowDown: [0, 1],
};

function key(event: KeyboardEvent, id: string) {
  const way = KEYS[event.key];
  if (way) {
    const step = event.shiftKey ? FAR : STEP;
    change(id, (mark) => moved(mark, way[0] * step, way[1] * step));
    event.preventDefault();
  } else if (event.key === "Delete" || event.key === "Backspace") {
    marks.value = marks.value.filter((mark) => mark.id !== id);
    event.preventDefault();
  }
}

async function save() {
  const ok = await run(
    () =>
      api.put(`places/${plan.placeId}/plan`, { marks: marks.value.map(({ kind, id, x, y }) => ({ kind, id, x, y })) }),
    t("Saved."),
  );
  if (ok) {
    emit("close", true);
  }
}
</script>

<template>
  <div class="row">
    <el-select
      v-model="chosen"
      filterable
      :aria-label="t('Point or place to mark')"
      :placeholder="t('Mark a point or place …')"
      :no-data-text="t('Everything here is marked')"
      class="choice"
      @change="add"
    >
      <el-option v-for="one in choices" :key="one.id" :value="one.id" :label="one.label" />
    </el-select>
    <el-button @click="emit('close', false)">{{ t("Cancel") }}</el-button>
    <el-button type="primary" :loading="busy" @click="save">{{ t("Save") }}</el-button>
  </div>
  <p class="soft small">
    {{ t("Drag a mark to where it belongs, or move it with the arrow keys (with Shift further); Delete removes it.") }}
  </p>
  <ProblemNote :error="error" />
  <div
    ref="picture"
    class="picture"
    :style="{ aspectRatio: `${plan.width} / ${plan.height}` }"
    @pointermove="drag"
    @pointerup="dragged = undefined"
    @pointercancel="dragged = undefined"
  >
    <img :src="source" :alt="t('Picture of {name}', { name: plan.name })" draggable="false" />
    <button
      v-for="mark in marks"
      :key="mark.id"
      type="button"
      class="mark"
      :class="{ dragged: dragged === mark.id }"
      :style="{ left: mark.x * 100 + '%', top: mark.y * 100 + '%' }"
      :aria-label="
        t('{name}: {x} % from the left, {y} % from the top', {
          name: mark.name,
          x: Math.round(mark.x * 100),
          y: Math.round(mark.y * 100),
        })
      "
      @pointerdown.prevent="((dragged = mark.id), ($event.currentTarget as HTMLElement).focus())"
      @keydown="key($event, mark.id)"
    >
      {{ mark.name }}
    </button>
  </div>
</template>

<style scoped>
.choice {
  flex: 1 1 16rem;
}
.picture {
  position: relative;
  touch-action: none;
  user-select: none;
}
img {
  display: block;
  width: 100%;
  border-radius: 4px;
}
.mark {
  position: absolute;
  transform: translate(-50%, -50%);
  padding: 0.15rem 0.55rem;
  border: 1px dashed var(--heather);
  border-radius: 1rem;
  background: var(--sheet);
  color: var(--ink);
  font: inherit;
  font-size: 0.86rem;
  white-space: nowrap;
  cursor: grab;
}
.dragged {
  cursor: grabbing;
  z-index: 2;
}
</style>
