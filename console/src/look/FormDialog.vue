<script setup lang="ts">
import { t } from "@/language";
import ProblemNote from "./ProblemNote.vue";

/** The frame of a form in a dialog: Enter saves, and what is wrong stands below the fields. */
const {
  saveLabel = t("Save"),
  cancelLabel = t("Cancel"),
  busy = false,
  disabled = false,
  wide = false,
} = defineProps<{
  title: string;
  saveLabel?: string;
  cancelLabel?: string;
  error?: unknown;
  busy?: boolean;
  disabled?: boolean;
  wide?: boolean;
}>();
const emit = defineEmits<{ save: []; close: [] }>();
</script>

<template>
  <!-- A tap beside it throws nothing away that was typed. -->
  <el-dialog
    model-value
    :title="title"
    :width="wide ? 'min(900px, 96vw)' : undefined"
    :close-on-click-modal="false"
    @close="emit('close')"
  >
    <el-form label-position="top" @submit.prevent="emit('save')">
      <slot />
      <ProblemNote :error="error" />
    </el-form>
    <template #footer>
      <el-button @click="emit('close')">{{ cancelLabel }}</el-button>
      <el-button type="primary" :loading="busy" :disabled="disabled" @click="emit('save')">{{ saveLabel }}</el-button>
    </template>
  </el-dialog>
</template>
