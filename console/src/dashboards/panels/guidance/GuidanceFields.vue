<script setup lang="ts">
import { t } from "@/language";
import type { Panel } from "@/api/types";
import { computed } from "vue";

/** The steps of a round, a line each. */
const panel = defineModel<Panel>({ required: true });
const lines = computed({
  get: () => (panel.value.kind === "guidance" ? (panel.value.steps ?? []).join("\n") : ""),
  set: (text) =>
    (panel.value = {
      ...panel.value,
      // A line that is being typed may end with a space, or be empty still.
      steps: text.split("\n").filter((line, at, all) => line.trim() || at === all.length - 1),
    } as Panel),
});

/** What is empty at the end is no step. */
function tidy() {
  panel.value = {
    ...panel.value,
    steps: lines.value
      .split("\n")
      .map((line) => line.trim())
      .filter(Boolean),
  } as Panel;
}
</script>

<template>
  <el-form-item :label="t('Steps, a line each')" for="panel-steps"
    ><el-input
      id="panel-steps"
      v-model="lines"
      type="textarea"
      :rows="6"
      maxlength="9000"
      :placeholder="t('Listen to the pump Wipe the probe in tank 2 Read the meter')"
      @blur="tidy"
  /></el-form-item>
</template>
