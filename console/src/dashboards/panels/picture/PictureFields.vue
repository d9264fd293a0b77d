<script setup lang="ts">
import { t } from "@/language";
import type { Panel } from "@/api/types";
import { computed } from "vue";
import { fillsUp } from "./drawings";

/** From which value a drawing runs or is open; those that fill have a scale instead. */
const panel = defineModel<Panel>({ required: true });
const onFrom = computed({
  get: () => (panel.value.kind === "picture" ? (panel.value.onFrom ?? 1) : 1),
  set: (value) => (panel.value = { ...panel.value, onFrom: value } as Panel),
});
const fills = computed(() => panel.value.kind === "picture" && fillsUp(panel.value.drawing ?? "pump"));
</script>

<template>
  <el-form-item v-if="!fills" :label="t('Runs, or is open, from')" for="panel-on"
    ><el-input-number id="panel-on" v-model="onFrom" :controls="false" />
  </el-form-item>
</template>
