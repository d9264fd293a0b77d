<script setup lang="ts">
import { limitsOfAll } from "@/points/limits";
import AssetDirections from "@/places/AssetDirections.vue";

import type { ViewProps } from "../view";

/** The directions of a machine side by side on one scale; the worst decides. */
const { points, limits, open } = defineProps<ViewProps<"directions">>();
</script>

<template>
  <AssetDirections class="bare" :points="points" :limits="limitsOfAll(points, limits)" :links="!open" />
</template>

<style scoped>
.bare {
  border: 0;
  padding: 0;
  flex: 1;
}
.bare :deep(.direction) {
  padding: 0.2rem 0.6rem;
}
.bare :deep(.direction .text) {
  gap: 0.1rem;
}
</style>
