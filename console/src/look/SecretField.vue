<script setup lang="ts">
import { t } from "@/language";
/** A secret that is entered and never shown again; empty leaves it as it is. */
defineProps<{ id: string; label: string; placeholder: string }>();
const secret = defineModel<string>({ required: true });
</script>

<template>
  <el-form-item :label="t('{label}; never shown again', { label })" :for="id"
    ><el-input :id="id" v-model="secret" type="password" autocomplete="new-password" :placeholder="placeholder"
  /></el-form-item>
</template>
