<script setup lang="ts">
import { t } from "@/language";
import type { Panel } from "@/api/types";
import { usePlaces } from "@/places/places";
import { computed } from "vue";

/** Where the time is that a clock shows: at a site, or wherever somebody looks at it. */
const panel = defineModel<Panel>({ required: true });
const places = usePlaces();
const zones = computed(() => {
  const known = panel.value.kind === "clock" ? panel.value.zone : null;
  return [...new Set([...places.places.flatMap((place) => place.zone ?? []), ...(known ? [known] : [])])];
});
const zone = computed({
  get: () => (panel.value.kind === "clock" ? (panel.value.zone ?? "") : ""),
  set: (chosen) => (panel.value = { ...panel.value, zone: chosen || null } as Panel),
});
</script>

<template>
  <el-form-item :label="t('Time of')" for="panel-zone">
    <el-select id="panel-zone" v-model="zone" :aria-label="t('Time of')" :empty-values="[undefined]">
      <el-option value="" :label="t('the viewer\'s own')" />
      <el-option v-for="one in zones" :key="one" :value="one" :label="one" />
    </el-select>
  </el-form-item>
</template>
