<script setup lang="ts">
import { t } from "@/language";
import { BEFORES, type Before } from "./before";

/** With which earlier time charts are compared. */
const model = defineModel<Before>({ required: true });
</script>

<template>
  <label class="compare">
    <span class="soft small">{{ t("Compare with") }}</span>
    <el-select v-model="model" :aria-label="t('Compare with')">
      <el-option v-for="(name, id) in BEFORES" :key="id" :value="id" :label="name" />
    </el-select>
  </label>
</template>

<style scoped>
.compare {
  display: inline-flex;
  align-items: center;
  gap: 0.5rem;
}
.compare .el-select {
  width: 10.5rem;
}
</style>
