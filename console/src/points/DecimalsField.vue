<script setup lang="ts">
import { t } from "@/language";
/** With how many decimals values are written; null for the usual. */
const decimals = defineModel<number | null>({ required: true });
defineProps<{ id: string }>();
</script>

<template>
  <el-form-item :label="t('Decimals')" :for="id">
    <el-input-number
      :id="id"
      :model-value="decimals ?? undefined"
      :min="0"
      :max="6"
      :controls="false"
      :placeholder="t('usual')"
      @update:model-value="decimals = $event ?? null"
    />
  </el-form-item>
</template>
