<script setup lang="ts">
import { t } from "@/language";
import { computed, ref } from "vue";
import { wordsOf, wordsText } from "./words";

/** Words for values, typed one a line. What cannot be read is said, and changes nothing. */
const words = defineModel<Record<string, string>>({ required: true });
const { id, placeholder = t("0 = shut") } = defineProps<{ id: string; placeholder?: string }>();
const text = ref(wordsText(words.value));
const read = computed(() => wordsOf(text.value));

function take(typed: string) {
  text.value = typed;
  if (!read.value.problem) {
    words.value = read.value.words;
  }
}
</script>

<template>
  <el-form-item :label="t('Words for values, one a line')" :for="id">
    <el-input
      :id="id"
      :model-value="text"
      type="textarea"
      :rows="2"
      :placeholder="placeholder"
      @update:model-value="take"
    />
    <p v-if="read.problem" class="problem small" role="alert">{{ read.problem }}</p>
  </el-form-item>
</template>

<style scoped>
.problem {
  color: var(--critical);
  margin: 0;
}
</style>
