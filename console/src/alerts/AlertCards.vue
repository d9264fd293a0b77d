<script setup lang="ts">
import { t } from "@/language";
import type { Alert } from "@/api/types";
import { computed } from "vue";
import AlertCard from "./AlertCard.vue";

/** Open alerts; those that one thing is behind, such as a gateway that is silent, stand under the first of them. */
const { alerts } = defineProps<{ alerts: Alert[] }>();
const groups = computed(() => {
  const found = new Map<string, Alert[]>();
  for (const alert of alerts) {
    const key = alert.cause || alert.id;
    found.set(key, [...(found.get(key) ?? []), alert]);
  }
  return [...found];
});
</script>

<template>
  <template v-for="[key, [first, ...others]] in groups" :key="key">
    <AlertCard v-if="first" :alert="first" />
    <details v-if="others.length" class="others">
      <summary>{{ t("{others} more alerts with the same cause", { others: others.length }) }}</summary>
      <div class="stack">
        <AlertCard v-for="alert in others" :key="alert.id" :alert="alert" />
      </div>
    </details>
  </template>
</template>

<style scoped>
.others {
  margin-left: 1.25rem;
}
summary {
  min-height: 2.5rem;
  line-height: 2.5rem;
  cursor: pointer;
}
</style>
