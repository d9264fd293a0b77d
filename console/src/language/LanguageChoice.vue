<script setup lang="ts">
import { choose, language, LANGUAGES, t } from "@/language";

/** The languages, each by its own name, so that also somebody finds theirs who cannot read the one that is shown. */
</script>

<template>
  <div class="languages" role="group" :aria-label="t('Language')">
    <button
      v-for="(name, id) in LANGUAGES"
      :key="id"
      type="button"
      :lang="id"
      :aria-pressed="id === language"
      @click="id !== language && choose(id)"
    >
      {{ name }}
    </button>
  </div>
</template>

<style scoped>
.languages {
  display: flex;
  flex-wrap: wrap;
  gap: 0.25rem;
}
button {
  min-height: 2.75rem;
  padding: 0.4rem 0.8rem;
  border: 1px solid transparent;
  border-radius: 3px;
  background: none;
  color: inherit;
  font: inherit;
  cursor: pointer;
}
button:hover {
  border-color: var(--line-strong);
}
button[aria-pressed="true"] {
  border-color: var(--moss);
  font-weight: 650;
}
</style>
