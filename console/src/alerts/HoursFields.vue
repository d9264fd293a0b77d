<script setup lang="ts">
import { t } from "@/language";
import type { ActiveHours } from "@/api/types";
import { computed } from "vue";
import { dayName, DAYS, usualHours } from "./states";

/** Always, in some hours of the week, or outside of them. */
const { label, always = t("always") } = defineProps<{ id?: string; label: string; always?: string }>();
const hours = defineModel<ActiveHours | null>({ required: true });

const when = computed({
  get: () => (hours.value === null ? t("always") : hours.value.outside ? "outside" : "within"),
  set: (to) => (hours.value = to === "always" ? null : { ...(hours.value ?? usualHours()), outside: to === "outside" }),
});

function set(change: Partial<ActiveHours>) {
  if (hours.value) {
    hours.value = { ...hours.value, ...change };
  }
}
</script>

<template>
  <div class="row hours">
    <el-select :id="id" v-model="when" :aria-label="label" class="when">
      <el-option value="always" :label="always" />
      <el-option value="within" :label="t('in these hours')" />
      <el-option value="outside" :label="t('outside these hours')" />
    </el-select>
    <template v-if="hours">
      <el-select
        :model-value="hours.days ?? []"
        multiple
        collapse-tags
        :aria-label="t('Days, {label}', { label })"
        :placeholder="t('every day')"
        class="when"
        @update:model-value="(days: typeof hours.days) => set({ days })"
      >
        <el-option v-for="day in DAYS" :key="day" :value="day" :label="dayName(day)" />
      </el-select>
      <el-input
        :model-value="hours.from.slice(0, 5)"
        type="time"
        :aria-label="t('from, {label}', { label })"
        class="time"
        @update:model-value="(from: string) => set({ from })"
      />
      {{ t("to") }}
      <el-input
        :model-value="hours.until.slice(0, 5)"
        type="time"
        :aria-label="t('until, {label}', { label })"
        class="time"
        @update:model-value="(until: string) => set({ until })"
      />
      <el-checkbox
        :model-value="hours.siteHolidays ?? true"
        @update:model-value="(on) => set({ siteHolidays: on === true })"
        >{{ t("holidays of the site are days off") }}</el-checkbox
      >
    </template>
  </div>
</template>

<style scoped>
.hours {
  flex-wrap: wrap;
}
.when {
  width: 12rem;
}
.time {
  width: 7.5rem;
}
</style>
