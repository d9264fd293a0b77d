<script setup lang="ts">
import { t } from "@/language";
import { computed } from "vue";
import type { ViewProps } from "../view";
import { markdown } from "./markdown";

/** Words of people, in Markdown. */
const { panel } = defineProps<ViewProps<"text">>();
const html = computed(() => markdown(panel.text ?? ""));
</script>

<template>
  <!-- eslint-disable-next-line vue/no-v-html -- made by markdown(), which lets no HTML, picture or script through -->
  <div v-if="html" class="text" v-html="html"></div>
  <p v-else class="soft">{{ t("Nothing is written yet.") }}</p>
</template>

<style scoped>
.text {
  overflow-wrap: anywhere;
}
.text :deep(:first-child) {
  margin-top: 0;
}
.text :deep(p),
.text :deep(ul),
.text :deep(ol) {
  margin: 0 0 0.5rem;
}
.text :deep(h1),
.text :deep(h2),
.text :deep(h3) {
  font-size: 1.05rem;
  margin: 0.6rem 0 0.3rem;
}
.text :deep(td),
.text :deep(th) {
  border-bottom: 1px solid var(--line);
  padding: 0.15rem 0.75rem 0.15rem 0;
  text-align: left;
}
</style>
