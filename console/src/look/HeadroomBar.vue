<script setup lang="ts">
import { t } from "@/language";
import type { Latest } from "@/api/types";
import { computed } from "vue";

/** How much of the way to the next worse zone is left. */
const { latest } = defineProps<{ latest: Latest | null }>();
const percent = computed(() => (latest?.headroomPercent == null ? null : Math.round(latest.headroomPercent)));
</script>

<template>
  <span v-if="percent !== null && latest" class="headroom" :class="latest.severity">
    <span class="track" aria-hidden="true"><span class="left" :style="{ width: percent + '%' }" /></span>
    <span class="text">{{ latest.nextZone === null ? t("worst zone") : percent + " %" }}</span>
  </span>
  <span v-else class="soft small">{{ t("no limits") }}</span>
</template>

<style scoped>
.headroom {
  display: inline-flex;
  align-items: center;
  gap: 0.5rem;
  white-space: nowrap;
  max-width: 100%;
}
.track {
  flex: 0 1 5.5rem;
  min-width: 2rem;
  width: 5.5rem;
  height: 0.5rem;
  border-radius: 2px;
  background: var(--ramp-0);
  box-shadow: inset 0 0 0 1px var(--line);
  overflow: hidden;
}
.left {
  display: block;
  height: 100%;
  background: var(--ramp-1);
}
.advisory .left {
  background: var(--advisory);
}
.warning .left {
  background: var(--warning);
}
.critical .left {
  background: var(--critical);
}
.text {
  min-width: 2.6rem;
}
</style>
