<script setup lang="ts">
import { words } from "@/api/http";

/** A problem in plain words; nothing where there is none. */
defineProps<{ error: unknown }>();
</script>

<template>
  <p v-if="error" class="problem" role="alert">{{ words(error) }}</p>
</template>

<style scoped>
.problem {
  margin: 0;
  padding: 0.6rem 0.8rem;
  border-left: 4px solid var(--critical);
  background: var(--critical-fill);
  color: var(--ink);
  border-radius: 3px;
}
</style>
