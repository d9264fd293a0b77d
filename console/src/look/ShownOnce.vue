<script setup lang="ts">
import { t } from "@/language";
import { useTemplateRef } from "vue";
import { say } from "./act";

/** A link or code that is shown this once, with a button that copies it. */
const { value } = defineProps<{ value: string; label: string }>();
const field = useTemplateRef<{ input?: HTMLInputElement }>("field");

async function copy() {
  try {
    await navigator.clipboard.writeText(value);
  } catch {
    // Browsers lend the clipboard to https only; on plain http the old way is left.
    field.value?.input?.select();
    if (!document.execCommand?.("copy")) {
      say(t("Your browser does not let this page copy: the link is selected, copy it yourself."));
      return;
    }
  }
  say(t("Copied."));
}
</script>

<template>
  <div class="once">
    <label for="shown-once">{{ label }}</label>
    <div class="row">
      <el-input id="shown-once" ref="field" :model-value="value" readonly class="mono" />
      <el-button type="primary" @click="copy">{{ t("Copy") }}</el-button>
    </div>
  </div>
</template>

<style scoped>
.once {
  background: var(--heather-soft);
  padding: 0.75rem;
  border-radius: var(--radius);
}
.el-input {
  flex: 1;
}
</style>
