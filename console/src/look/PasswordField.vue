<script setup lang="ts">
/** A password that is typed: the current one, or a new one to be chosen. */
const { id, label, chosen } = defineProps<{ id: string; label: string; chosen?: boolean }>();
const password = defineModel<string>({ required: true });
</script>

<template>
  <el-form-item :label="label" :for="id">
    <el-input
      :id="id"
      v-model="password"
      type="password"
      :autocomplete="chosen ? 'new-password' : 'current-password'"
      show-password
    />
  </el-form-item>
</template>
