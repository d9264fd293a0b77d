<script setup lang="ts">
import { t } from "@/language";
import FenceMark from "@/look/FenceMark.vue";
import { usePoints } from "@/points/points";
import type { Severity } from "@/api/types";
import { starredPages } from "./starred";

/** Starred pages, with what is wrong there. */
const points = usePoints();

function severity({ kind, of }: { kind: string; of: string }): Severity | null {
  const found =
    kind === "place" ? points.severities.get(of) : kind === "point" ? points.byId.get(of)?.latest?.severity : null;
  return found && found !== "normal" ? found : null;
}
</script>

<template>
  <div v-if="starredPages.length" class="starred" role="group" :aria-label="t('Starred')">
    <span class="soft small">{{ t("Starred") }}</span>
    <RouterLink v-for="one in starredPages" :key="one.to" :to="one.to">
      {{ one.name }} <FenceMark v-if="severity(one.page)" :severity="severity(one.page)" />
    </RouterLink>
  </div>
</template>

<style scoped>
.starred {
  display: grid;
  gap: 0.1rem;
  margin-top: 0.6rem;
  padding: 0.6rem 0.6rem 0;
  border-top: 1px solid var(--line);
}
a {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 0 0.5rem;
  padding: 0.25rem 0;
  color: var(--ink);
  text-decoration: none;
  overflow-wrap: anywhere;
}
a:hover,
.router-link-active {
  text-decoration: underline;
}
@media (pointer: coarse) {
  a {
    min-height: 44px;
  }
}
</style>
