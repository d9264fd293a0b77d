<script setup lang="ts">
import { t } from "@/language";
import { peopleOf } from "@/alerts/recipients";
import RecipientsField from "@/alerts/RecipientsField.vue";
import { api } from "@/api/http";
import type { ReportSchedule } from "@/api/types";
import { useAction } from "@/look/act";
import FormDialog from "@/look/FormDialog.vue";
import { useLoad } from "@/look/load";
import { reactive } from "vue";

/** When a report is sent by itself, and to whom. */
const { subject, name, schedule, placeId } = defineProps<{
  subject: ReportSchedule["subject"];
  name: string;
  schedule?: ReportSchedule;
  /** The place whose people are offered; left out for a dashboard that spans places. */
  placeId?: string;
}>();
const emit = defineEmits<{ close: [saved: boolean] }>();
const { busy, error, run } = useAction();
const PERIODS = [
  { value: "day", label: t("each day") },
  { value: "week", label: t("each week, on Monday") },
  { value: "month", label: t("each month, on the first") },
];
const form = reactive({
  period: schedule?.period ?? "week",
  at: (schedule?.at ?? "06:00").slice(0, 5),
  recipients: [...(schedule?.recipients ?? [])],
  withReadings: schedule?.withReadings ?? false,
  enabled: schedule?.enabled ?? true,
});
const people = useLoad(async () => (placeId ? peopleOf(placeId) : []));

async function save() {
  const request = { ...form, subject };
  const ok = await run(
    () => (schedule ? api.put("report-schedules/" + schedule.id, request) : api.post("report-schedules", request)),
    t("Saved."),
  );
  if (ok) {
    emit("close", true);
  }
}
</script>

<template>
  <FormDialog
    :title="t('Send report by mail: {name}', { name })"
    :error="error"
    :busy="busy"
    :disabled="!form.recipients.length || !form.at"
    @save="save"
    @close="emit('close', false)"
  >
    <el-form-item :label="t('Send')" for="schedule-period">
      <el-select id="schedule-period" v-model="form.period" :aria-label="t('Send')">
        <el-option v-for="one in PERIODS" :key="one.value" :value="one.value" :label="one.label" />
      </el-select>
    </el-form-item>
    <el-form-item :label="t('Time of day (of the site)')" for="schedule-at">
      <el-input id="schedule-at" v-model="form.at" type="time" class="time" />
    </el-form-item>
    <el-form-item :label="t('Recipients')" for="schedule-recipients">
      <RecipientsField
        id="schedule-recipients"
        v-model="form.recipients"
        :label="t('Recipients')"
        :people="people.data.value ?? []"
      />
    </el-form-item>
    <el-form-item>
      <el-checkbox v-model="form.withReadings">{{ t("Attach the readings as CSV") }}</el-checkbox>
      <el-checkbox v-model="form.enabled">{{ t("Enabled") }}</el-checkbox>
    </el-form-item>
    <p class="soft small">
      {{ t("It holds what you may see. The first one is sent after the period that runs now.") }}
    </p>
  </FormDialog>
</template>

<style scoped>
.time {
  max-width: 9rem;
}
</style>
