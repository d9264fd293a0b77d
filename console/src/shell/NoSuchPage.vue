<script setup lang="ts">
import { t } from "@/language";
</script>

<template>
  <div class="page">
    <h1>{{ t("There is no such page") }}</h1>
    <p>
      {{ t("The address may be mistyped, or what it showed was removed.") }}
      <RouterLink to="/now">{{ t("To what is going on now") }}</RouterLink>
    </p>
  </div>
</template>
