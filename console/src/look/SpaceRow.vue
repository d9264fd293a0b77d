<script setup lang="ts">
/** In the place of rows of a table that are not in sight. What it looks like stands in it: tables style their rows. */
const { pixels } = defineProps<{ pixels: number }>();
</script>

<template>
  <tr
    v-if="pixels > 0"
    class="space"
    aria-hidden="true"
    :style="{ display: 'block', padding: 0, border: 0, height: pixels + 'px' }"
  ></tr>
</template>
