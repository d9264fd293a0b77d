<script setup lang="ts">
import { api } from "@/api/http";
import type { Point } from "@/api/types";
import { useAction } from "@/look/act";
import ProblemNote from "@/look/ProblemNote.vue";
import { usePlaces } from "@/places/places";
import { computed, reactive } from "vue";
import { usePoints } from "./points";
import { QUANTITIES } from "./quantities";

/** Makes a point, or changes one. */
const { point, placeId } = defineProps<{ point?: Point; placeId?: string }>();
const emit = defineEmits<{ close: [] }>();
const places = usePlaces();
const points = usePoints();
const { busy, error, run } = useAction();
const form = reactive({
  name: point?.name ?? "",
  placeId: point?.placeId ?? placeId ?? "",
  quantity: point?.quantity ?? "temperature",
  limitSet: point?.ownLimitSet ? point.limitSet : null,
  direction: point?.direction ?? null,
  note: point?.note ?? null,
  released: point?.released ?? false,
});
const sets = computed(() => places.limits.filter((set) => set.quantity === form.quantity));

async function save() {
  const ok = await run(async () => {
    await (point ? api.put("points/" + point.id, { ...form, unit: point.unit }) : api.post("points", form));
    await points.load();
  }, "Saved.");
  if (ok) {
    emit("close");
  }
}
</script>

<template>
  <el-dialog model-value :title="point ? 'Change ' + point.name : 'Add a point'" @close="emit('close')">
    <el-form label-position="top" @submit.prevent="save">
      <el-form-item label="Name" for="point-name"
        ><el-input id="point-name" v-model="form.name" autofocus
      /></el-form-item>
      <el-form-item label="Of" for="point-place">
        <el-select id="point-place" v-model="form.placeId" filterable aria-label="Of which place">
          <el-option v-for="one in places.editable" :key="one.id" :value="one.id" :label="places.label(one)" />
        </el-select>
      </el-form-item>
      <el-form-item v-if="!point" label="What it measures" for="point-quantity">
        <el-select id="point-quantity" v-model="form.quantity" filterable aria-label="What it measures">
          <el-option v-for="(name, quantity) in QUANTITIES" :key="quantity" :value="quantity" :label="name" />
        </el-select>
      </el-form-item>
      <el-form-item v-if="form.quantity === 'vibration-velocity'" label="Direction" for="point-direction">
        <el-select id="point-direction" v-model="form.direction" clearable aria-label="Direction" placeholder="none">
          <el-option v-for="one in ['axial', 'horizontal', 'vertical']" :key="one" :value="one" :label="one" />
        </el-select>
      </el-form-item>
      <el-form-item label="Limit set" for="point-limits">
        <el-select
          id="point-limits"
          v-model="form.limitSet"
          clearable
          aria-label="Limit set"
          placeholder="that of its asset"
        >
          <el-option v-for="set in sets" :key="set.id" :value="set.id" :label="set.title" />
        </el-select>
      </el-form-item>
      <el-form-item label="Note" for="point-note"
        ><el-input id="point-note" v-model="form.note" type="textarea" :rows="2"
      /></el-form-item>
      <el-checkbox v-model="form.released">Released: people without the right to edit see it</el-checkbox>
      <ProblemNote :error="error" />
    </el-form>
    <template #footer>
      <el-button @click="emit('close')">Cancel</el-button>
      <el-button type="primary" :loading="busy" :disabled="!form.name || !form.placeId" @click="save">Save</el-button>
    </template>
  </el-dialog>
</template>
