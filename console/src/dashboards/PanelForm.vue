<script setup lang="ts">
import type { Panel } from "@/api/types";
import { usePlaces } from "@/places/places";
import { usePoints } from "@/points/points";
import { computed, reactive } from "vue";
import RangePicker from "@/chart/RangePicker.vue";
import { durationOf, hoursOf, usualSize } from "./layout";

/** Makes a panel, or changes one. */
const { panel } = defineProps<{ panel?: Panel }>();
const emit = defineEmits<{ save: [panel: Panel]; close: [] }>();
const points = usePoints();
const places = usePlaces();
const KINDS = [
  { id: "value", name: "Value with age and headroom" },
  { id: "line", name: "Line over time with limits" },
  { id: "directions", name: "Directions of a machine side by side" },
  { id: "alerts", name: "Open alerts" },
  { id: "asked", name: "Polled devices: intervals, and writing values" },
  { id: "text", name: "Text" },
] as const;
const form = reactive({
  kind: panel?.kind ?? ("value" as Panel["kind"]),
  title: panel?.title ?? "",
  pointIds: panel?.pointIds ?? [],
  hours: hoursOf(panel?.range ?? null),
  text: panel?.text ?? "",
});
const choices = computed(() =>
  points.all.map((point) => ({ id: point.id, label: `${places.byId.get(point.placeId)?.name ?? ""}: ${point.name}` })),
);
const title = computed(
  () =>
    form.title ||
    choices.value.find((one) => one.id === form.pointIds[0])?.label ||
    KINDS.find((one) => one.id === form.kind)?.name ||
    "",
);

function save() {
  emit("save", {
    ...(panel ?? {
      id: crypto.randomUUID?.() ?? String(Date.now()),
      assetId: null,
      x: 0,
      y: 0,
      ...usualSize(form.kind),
    }),
    kind: form.kind,
    title: title.value,
    pointIds: form.kind === "text" ? [] : form.pointIds,
    range: form.kind === "line" ? durationOf(form.hours) : null,
    text: form.kind === "text" ? form.text : null,
  });
}
</script>

<template>
  <el-dialog model-value :title="panel ? 'Change a panel' : 'Add a panel'" @close="emit('close')">
    <el-form label-position="top" @submit.prevent="save">
      <el-form-item label="Kind" for="panel-kind">
        <el-select id="panel-kind" v-model="form.kind" aria-label="Kind"
          ><el-option v-for="kind in KINDS" :key="kind.id" :value="kind.id" :label="kind.name"
        /></el-select>
      </el-form-item>
      <el-form-item v-if="form.kind !== 'text'" label="Points" for="panel-points">
        <el-select
          id="panel-points"
          v-model="form.pointIds"
          multiple
          filterable
          aria-label="Points"
          placeholder="choose points"
        >
          <el-option v-for="one in choices" :key="one.id" :value="one.id" :label="one.label" />
        </el-select>
      </el-form-item>
      <el-form-item v-if="form.kind === 'line'" label="How far back"><RangePicker v-model="form.hours" /></el-form-item>
      <el-form-item v-if="form.kind === 'text'" label="Text" for="panel-text"
        ><el-input id="panel-text" v-model="form.text" type="textarea" :rows="4"
      /></el-form-item>
      <el-form-item label="Title" for="panel-title"
        ><el-input id="panel-title" v-model="form.title" :placeholder="title"
      /></el-form-item>
    </el-form>
    <template #footer>
      <el-button @click="emit('close')">Cancel</el-button>
      <el-button
        type="primary"
        :disabled="form.kind !== 'text' && form.kind !== 'alerts' && !form.pointIds.length"
        @click="save"
        >{{ panel ? "Change" : "Add" }}</el-button
      >
    </template>
  </el-dialog>
</template>
