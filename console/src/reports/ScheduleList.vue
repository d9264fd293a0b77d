<script setup lang="ts">
import { t } from "@/language";
import { api } from "@/api/http";
import type { ReportSchedule } from "@/api/types";
import { useAction } from "@/look/act";
import { moment } from "@/look/clock";
import ConfirmButton from "@/look/ConfirmButton.vue";
import { useLoad } from "@/look/load";
import ProblemNote from "@/look/ProblemNote.vue";
import { computed } from "vue";
import { scheduleWords } from "./periods";

/** The reports of a place or a dashboard that are sent by themselves. */
const { subject } = defineProps<{ subject: ReportSchedule["subject"] }>();
const emit = defineEmits<{ edit: [schedule: ReportSchedule | undefined] }>();
const { busy, error, run } = useAction();
const all = useLoad(() => api.get<ReportSchedule[]>("report-schedules"));
const own = computed(() =>
  (all.data.value ?? []).filter((one) => one.subject.kind === subject.kind && one.subject.id === subject.id),
);

async function send(schedule: ReportSchedule) {
  if (
    await run(() => api.post(`report-schedules/${schedule.id}/sending`), t("The report was handed to the mail server."))
  ) {
    await all.load();
  }
}

async function remove(schedule: ReportSchedule) {
  if (await run(() => api.remove("report-schedules/" + schedule.id), t("Removed."))) {
    await all.load();
  }
}
</script>

<template>
  <h3>{{ t("Sent by mail") }}</h3>
  <ProblemNote :error="error ?? all.error.value" />
  <p v-if="!own.length" class="soft small">{{ t("Nobody receives this report regularly.") }}</p>
  <ul>
    <li v-for="one in own" :key="one.id">
      <p>
        {{ scheduleWords(one) }}
        <span v-if="one.nextAt" class="soft">· {{ t("next {moment}", { moment: moment(one.nextAt) }) }}</span>
        <span v-else class="soft">· {{ t("not enabled") }}</span>
      </p>
      <p v-if="one.problem" class="problem small" role="status">
        {{ t("Not delivered: {problem}", { problem: one.problem }) }}
      </p>
      <p v-else-if="one.lastAt" class="soft small">
        {{ t("Last delivered {moment}", { moment: moment(one.lastAt) }) }}
      </p>
      <el-button link type="primary" :loading="busy" @click="send(one)">{{ t("Send now") }}</el-button>
      <el-button link type="primary" @click="emit('edit', one)">{{ t("Change …") }}</el-button>
      <ConfirmButton link :says="t('This report is not sent any more.')" :action="t('Remove')" @confirm="remove(one)" />
    </li>
  </ul>
  <el-button @click="emit('edit', undefined)">{{ t("Send regularly …") }}</el-button>
</template>

<style scoped>
h3 {
  margin: 1rem 0 0.25rem;
}
ul {
  list-style: none;
  margin: 0 0 0.5rem;
  padding: 0;
}
li {
  padding: 0.4rem 0;
  border-top: 1px solid var(--line);
}
li p {
  margin: 0;
}
.problem {
  color: var(--warning);
}
</style>
