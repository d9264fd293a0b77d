<script setup lang="ts">
import LanguageChoice from "@/language/LanguageChoice.vue";

/** The sheet on which somebody comes in. */
defineProps<{ title: string }>();
</script>

<template>
  <main class="door">
    <div class="sheet">
      <p class="brand"><img src="/icon.svg" alt="" width="40" height="40" />Open Pasture</p>
      <h1>{{ title }}</h1>
      <slot />
      <LanguageChoice />
    </div>
  </main>
</template>

<style scoped>
.door {
  min-height: 100vh;
  display: grid;
  place-items: center;
  padding: 1rem;
  background: linear-gradient(var(--paper) 62%, var(--moss-soft) 62%);
}
.sheet {
  width: min(27rem, 100%);
  display: grid;
  gap: 0.9rem;
  padding: 1.5rem;
}
.brand {
  margin: 0;
  display: flex;
  align-items: center;
  gap: 0.6rem;
  font-weight: 680;
  color: var(--moss);
}
</style>
