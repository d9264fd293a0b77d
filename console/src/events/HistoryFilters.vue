<script setup lang="ts">
import { t } from "@/language";
import { usePlaces } from "@/places/places";

/** The filters of a list of what happened, with its export; a list may have more of its own. */
const filter = defineModel<{
  text: string;
  severity: string;
  place: string;
  person: string;
  since: string;
  until: string;
}>({ required: true });
defineProps<{ exported: string }>();
const places = usePlaces();
</script>

<template>
  <div class="filters">
    <el-input v-model="filter.text" :placeholder="t('Text')" :aria-label="t('Text')" clearable />
    <slot />
    <el-select v-model="filter.severity" :placeholder="t('Any severity')" :aria-label="t('Severity')" clearable>
      <el-option v-for="one in ['advisory', 'warning', 'critical']" :key="one" :value="one" :label="one" />
    </el-select>
    <el-select v-model="filter.place" :placeholder="t('Anywhere')" :aria-label="t('Place')" filterable clearable>
      <el-option v-for="one in places.places" :key="one.id" :value="one.id" :label="one.name" />
    </el-select>
    <el-input v-model="filter.person" :placeholder="t('Person')" :aria-label="t('Person')" clearable />
    <el-input v-model="filter.since" type="date" :aria-label="t('From')"
      ><template #prefix>{{ t("From") }}</template></el-input
    >
    <el-input v-model="filter.until" type="date" :aria-label="t('To')"
      ><template #prefix>{{ t("To") }}</template></el-input
    >
    <a class="el-button" :href="exported" download>{{ t("Export CSV") }}</a>
  </div>
</template>

<style scoped>
.filters {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(170px, 1fr));
  gap: 0.5rem;
  margin-bottom: 0.75rem;
}
@media (max-width: 640px) {
  .filters {
    grid-template-columns: repeat(2, minmax(0, 1fr));
  }
  .filters > :has(input[type="date"]) {
    grid-column: span 2;
  }
}
</style>
