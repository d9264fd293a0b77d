<script setup lang="ts">
import { t } from "@/language";
import { computed } from "vue";

/** How far back; 0 for what each panel says, where that is offered. */
const model = defineModel<number>({ required: true });
const { own = false } = defineProps<{ own?: boolean }>();
const all = [
  { hours: 1, name: "1 h" },
  { hours: 6, name: "6 h" },
  { hours: 24, name: t("1 day") },
  { hours: 24 * 7, name: t("1 week") },
  { hours: 24 * 30, name: t("1 month") },
  { hours: 24 * 91, name: t("3 months") },
  { hours: 24 * 365, name: t("1 year") },
];
const ranges = computed(() => (own ? [{ hours: 0, name: t("as set") }, ...all] : all));
</script>

<template>
  <div class="ranges" role="group" :aria-label="t('How far back')">
    <button
      v-for="range in ranges"
      :key="range.hours"
      type="button"
      :aria-pressed="model === range.hours"
      @click="model = range.hours"
    >
      {{ range.name }}
    </button>
  </div>
</template>

<style scoped>
.ranges {
  display: inline-flex;
  flex-wrap: wrap;
  border: 1px solid var(--line-strong);
  border-radius: var(--radius);
  overflow: hidden;
}
button {
  font: inherit;
  font-size: 0.9rem;
  padding: 0.3rem 0.65rem;
  border: 0;
  background: var(--sheet);
  color: var(--ink);
  cursor: pointer;
}
button[aria-pressed="true"] {
  background: var(--heather);
  color: var(--sheet);
}
@media (pointer: coarse) {
  button {
    min-height: 44px;
  }
}
</style>
