<script setup lang="ts">
import { t } from "@/language";
import type { Panel } from "@/api/types";
import { computed } from "vue";

/** What a panel with text says. */
const panel = defineModel<Panel>({ required: true });
const text = computed({
  get: () => (panel.value.kind === "text" ? (panel.value.text ?? "") : ""),
  set: (words) => (panel.value = { ...panel.value, text: words } as Panel),
});
</script>

<template>
  <el-form-item :label="t('Text (Markdown: **bold**, lists with -, links)')" for="panel-text"
    ><el-input id="panel-text" v-model="text" type="textarea" :rows="6" maxlength="20000"
  /></el-form-item>
</template>
