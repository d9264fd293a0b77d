<script setup lang="ts">
/** What to say and do where there is nothing yet. */
defineProps<{ title: string }>();
</script>

<template>
  <div class="empty">
    <svg viewBox="0 0 96 40" aria-hidden="true">
      <path d="M12 6v28M48 6v28M84 6v28M2 14c30 4 62-4 92 0M2 25c30 4 62-4 92 0" />
    </svg>
    <p>
      <strong>{{ title }}</strong>
    </p>
    <div class="soft"><slot /></div>
  </div>
</template>

<style scoped>
.empty {
  text-align: center;
  padding: 1.2rem 0.5rem;
}
svg {
  width: 96px;
  stroke: var(--line-strong);
  stroke-width: 2;
  fill: none;
  opacity: 0.7;
}
p {
  margin: 0.4rem 0 0.2rem;
}
</style>
