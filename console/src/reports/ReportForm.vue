<script setup lang="ts">
import { t } from "@/language";
import { api } from "@/api/http";
import type { ReportSchedule } from "@/api/types";
import { useAction } from "@/look/act";
import { saveAs } from "@/look/download";
import FormDialog from "@/look/FormDialog.vue";
import { computed, ref } from "vue";
import ScheduleForm from "./ScheduleForm.vue";
import ScheduleList from "./ScheduleList.vue";
import { PERIODS, reportAddress, type Period } from "./periods";

/** Makes a report of a place or a dashboard as PDF, to be shown or sent to somebody. */
const { of, name, mayEdit = false } = defineProps<{ of: string; name: string; mayEdit?: boolean }>();
const emit = defineEmits<{ close: [] }>();
const period = ref<Period>("recent");
const range = ref<[Date, Date] | null>(null);
const { busy, error, run } = useAction();
const subject = computed(() => ({
  kind: of.startsWith("places/") ? ("place" as const) : ("dashboard" as const),
  id: of.slice(of.indexOf("/") + 1),
}));
const address = computed(() => reportAddress(of, period.value, range.value));

const scheduling = ref(false);
const changed = ref<ReportSchedule>();

function schedule(one: ReportSchedule | undefined) {
  changed.value = one;
  scheduling.value = true;
}

async function make() {
  const path = address.value;
  if (
    path &&
    (await run(async () => saveAs(await api.blob(path), `report ${name}.pdf`), t("The report is downloaded.")))
  ) {
    emit("close");
  }
}
</script>

<template>
  <ScheduleForm
    v-if="scheduling"
    :subject="subject"
    :name="name"
    :schedule="changed"
    :place-id="subject.kind === 'place' ? subject.id : undefined"
    @close="scheduling = false"
  />
  <FormDialog
    v-else
    :title="t('Report: {name}', { name })"
    :save-label="t('Download PDF')"
    :error="error"
    :busy="busy"
    :disabled="!address"
    @save="make"
    @close="emit('close')"
  >
    <el-form-item :label="t('Period')" for="report-period">
      <el-select id="report-period" v-model="period" :aria-label="t('Period')">
        <el-option v-for="one in PERIODS" :key="one.id" :value="one.id" :label="one.name" />
      </el-select>
    </el-form-item>
    <el-form-item v-if="period === 'own'" :label="t('From and until')">
      <el-date-picker
        v-model="range"
        type="datetimerange"
        :aria-label="t('From and until')"
        :start-placeholder="t('from')"
        :end-placeholder="t('until')"
        format="YYYY-MM-DD HH:mm"
      />
    </el-form-item>
    <p class="soft small">
      {{
        t(
          "Figures and courses of all points that you may see, alerts with what was done, limits with their sources, and lines to sign on.",
        )
      }}
    </p>
    <ScheduleList v-if="mayEdit" :subject="subject" @edit="schedule" />
  </FormDialog>
</template>
