<script setup lang="ts">
import type { Point } from "@/api/types";

import { nameAmong } from "@/points/names";

/** The name of a point on a panel, which leads to its page for who has an account. */
const { point, all, open } = defineProps<{ point: Point; all: Point[]; open: boolean }>();
</script>

<template>
  <component
    :is="open ? 'span' : 'RouterLink'"
    :to="`/points/${point.id}`"
    class="name"
    :title="point.path.join(' › ')"
  >
    {{ nameAmong(point, all) }}
  </component>
</template>

<style scoped>
.name {
  color: inherit;
  overflow-wrap: anywhere;
}
</style>
