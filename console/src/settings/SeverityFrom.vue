<script setup lang="ts">
import { t } from "@/language";
import type { Severity } from "@/api/types";

/** From which severity on something happens, or never. */
const chosen = defineModel<Severity | "none">({ required: true });
const { label, disabled = false } = defineProps<{ label: string; disabled?: boolean }>();
const LEVELS: { value: Severity | "none"; label: string }[] = [
  { value: "none", label: t("never") },
  { value: "advisory", label: t("advisory and worse") },
  { value: "warning", label: t("warning and worse") },
  { value: "critical", label: t("critical only") },
];
</script>

<template>
  <el-select v-model="chosen" :disabled="disabled" :aria-label="label">
    <el-option v-for="one in LEVELS" :key="one.value" :value="one.value" :label="one.label" />
  </el-select>
</template>
