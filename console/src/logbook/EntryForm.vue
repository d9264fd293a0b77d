<script setup lang="ts">
import { t } from "@/language";
import { api } from "@/api/http";
import type { LogEntry } from "@/api/types";
import { peopleOf } from "@/alerts/recipients";
import { useAction } from "@/look/act";
import FormDialog from "@/look/FormDialog.vue";
import { useLoad } from "@/look/load";
import { computed, ref } from "vue";

/** Writes an entry about a place or a point, answers one, or changes one of the reader's own. */
const { placeId, pointId, answers, entry, at } = defineProps<{
  placeId: string;
  pointId?: string;
  answers?: LogEntry;
  entry?: LogEntry;
  /** The moment that was chosen in a chart. */
  at?: number;
}>();
const emit = defineEmits<{ close: [written: boolean] }>();
const { busy, error, run } = useAction();
const text = ref(entry?.text ?? "");
const time = ref(new Date(entry?.at ?? at ?? Date.now()));
const changedTime = ref(at !== undefined);
const recipients = ref<string[]>([]);
const possible = useLoad(() => (entry ? Promise.resolve([]) : peopleOf(placeId)));
const people = computed(() => (possible.data.value ?? []).filter((one) => one.ways.includes("mail")));
const title = computed(() =>
  entry
    ? t("Change entry")
    : answers
      ? t("Answer to {person}", { person: answers.person })
      : at
        ? t("Note in the chart")
        : t("Write in the logbook"),
);

async function save() {
  const moment = changedTime.value ? { at: time.value.toISOString() } : {};
  const ok = await run(
    () =>
      entry
        ? api.put(`logbook/${entry.id}`, { text: text.value, ...moment })
        : api.post("logbook", {
            placeId,
            pointId,
            answers: answers?.id,
            text: text.value,
            recipients: recipients.value,
            ...moment,
          }),
    entry ? t("Changed.") : t("Written."),
  );
  if (ok) {
    emit("close", true);
  }
}
</script>

<template>
  <FormDialog
    :title="title"
    :save-label="entry ? t('Save') : t('Write entry')"
    :busy="busy"
    :error="error"
    :disabled="!text.trim()"
    @save="save"
    @close="emit('close', false)"
  >
    <blockquote v-if="answers" class="soft">{{ answers.text }}</blockquote>
    <el-form-item :label="t('Text')" for="entry-text">
      <el-input
        id="entry-text"
        v-model="text"
        type="textarea"
        :rows="4"
        maxlength="4000"
        autofocus
        :placeholder="t('What was found, what was done')"
      />
    </el-form-item>
    <el-form-item v-if="!answers" :label="t('Time')">
      <el-date-picker
        v-model="time"
        type="datetime"
        :aria-label="t('Time')"
        format="YYYY-MM-DD HH:mm"
        :clearable="false"
        @change="changedTime = true"
      />
    </el-form-item>
    <el-form-item v-if="people.length" :label="t('Send by mail to')" for="entry-people">
      <el-select
        id="entry-people"
        v-model="recipients"
        multiple
        filterable
        :aria-label="t('Send by mail to')"
        :placeholder="t('nobody')"
      >
        <el-option v-for="one in people" :key="one.recipient" :value="one.recipient" :label="one.name" />
      </el-select>
    </el-form-item>
  </FormDialog>
</template>

<style scoped>
blockquote {
  margin: 0 0 0.75rem;
  padding-left: 0.75rem;
  border-left: 2px solid var(--line-strong);
  white-space: pre-line;
}
</style>
