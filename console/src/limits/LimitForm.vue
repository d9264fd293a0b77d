<script setup lang="ts">
import { api } from "@/api/http";
import type { LimitSet } from "@/api/types";
import { useAction } from "@/look/act";
import ProblemNote from "@/look/ProblemNote.vue";
import { useVersion } from "@/look/version";
import { usePlaces } from "@/places/places";
import { reactive } from "vue";

/** Adjusts the boundaries of a set of one's own; neighbouring zones share theirs. */
const { set } = defineProps<{ set: LimitSet }>();
const emit = defineEmits<{ close: [] }>();
const places = usePlaces();
const { busy, error, run } = useAction();
const version = useVersion("limits/" + set.id);
const form = reactive({ title: set.title, boundaries: set.zones.slice(1).map((zone) => zone.from ?? 0) });

async function save() {
  const zones = set.zones.map((zone, i) => ({
    ...zone,
    from: i === 0 ? null : (form.boundaries[i - 1] ?? null),
    to: i === set.zones.length - 1 ? null : (form.boundaries[i] ?? null),
  }));
  const ok = await run(async () => {
    await api.put("limits/" + set.id, { ...set, title: form.title, zones }, await version());
    await places.load();
  }, "Saved; it holds at once.");
  if (ok) {
    emit("close");
  }
}
</script>

<template>
  <el-dialog model-value :title="'Adjust ' + set.title" @close="emit('close')">
    <el-form label-position="top" @submit.prevent="save">
      <el-form-item label="Title" for="limit-title"><el-input id="limit-title" v-model="form.title" /></el-form-item>
      <el-form-item
        v-for="(zone, i) in set.zones.slice(1)"
        :key="zone.label"
        :label="`${set.zones[i]?.label} | ${zone.label}, ${set.unit}`"
      >
        <el-input-number v-model="form.boundaries[i]" :controls="false" :aria-label="`Boundary to ${zone.label}`" />
      </el-form-item>
      <ProblemNote :error="error" />
    </el-form>
    <template #footer>
      <el-button @click="emit('close')">Cancel</el-button>
      <el-button type="primary" :loading="busy" @click="save">Save</el-button>
    </template>
  </el-dialog>
</template>
