<script setup lang="ts">
import { computed } from "vue";

/** A text as somebody wrote it, in which web addresses are links, such as those of manuals and drawings. */
const { text } = defineProps<{ text: string }>();
const parts = computed(() =>
  text.split(/(https?:\/\/[^\s<>"']*[^\s<>"'.,;:!?)\]])/).map((part, i) => ({ part, link: i % 2 === 1 })),
);
</script>

<template>
  <template v-for="({ part, link }, i) in parts" :key="i"
    ><a v-if="link" :href="part" target="_blank" rel="noopener noreferrer">{{ part }}</a
    ><template v-else>{{ part }}</template></template
  >
</template>
