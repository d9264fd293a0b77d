<script setup lang="ts">
import { t } from "@/language";
import type { PossibleRecipient } from "@/api/types";
import { computed } from "vue";
import { parted, recipientWords } from "./recipients";

/** Who is notified: people who may see the place, and any e-mail addresses and telephone numbers. */
const { id, label, people } = defineProps<{ id?: string; label: string; people: PossibleRecipient[] }>();
const recipients = defineModel<string[]>({ required: true });

const options = computed(() => {
  const known = people.map((one) => ({
    value: one.recipient,
    label: one.name,
    hint: one.ways.length ? one.ways.join(", ") : t("no address"),
  }));
  const others = recipients.value
    .filter((one) => !known.some((person) => person.value === one))
    .map((one) => ({ value: one, label: recipientWords(one), hint: "" }));
  return [...known, ...others];
});

function changed(values: string[]) {
  recipients.value = [...new Set(values.flatMap((one) => (one.startsWith("person:") ? [one] : parted(one))))];
}
</script>

<template>
  <el-select
    :id="id"
    :model-value="recipients"
    multiple
    filterable
    allow-create
    default-first-option
    :reserve-keyword="false"
    :aria-label="label"
    :placeholder="t('a person, an e-mail address or +44 …')"
    :no-data-text="t('Enter an e-mail address or a telephone number')"
    @update:model-value="changed"
  >
    <el-option v-for="one in options" :key="one.value" :value="one.value" :label="one.label">
      {{ one.label }} <span class="soft small">{{ one.hint }}</span>
    </el-option>
  </el-select>
</template>
