<script setup lang="ts">
import { t } from "@/language";
import { api } from "@/api/http";
import type { DecodeAgainReport, Device } from "@/api/types";
import { useAction } from "@/look/act";
import { moment } from "@/look/clock";
import ProblemNote from "@/look/ProblemNote.vue";
import { count } from "@/records/amounts";
import { ref } from "vue";

/** Reads stored frames of a device again: first the differences, then, if wanted, the change. It can be undone. */
const { device } = defineProps<{ device: Device }>();
const emit = defineEmits<{ close: [] }>();
const range = ref<[Date, Date]>([new Date(Date.now() - 7 * 86_400_000), new Date()]);
const note = ref("");
const report = ref<DecodeAgainReport>();
const { busy, error, run } = useAction();

async function decode(dryRun: boolean) {
  const body = { from: range.value[0].toISOString(), until: range.value[1].toISOString(), note: note.value, dryRun };
  return run(async () => (report.value = await api.post<DecodeAgainReport>(`devices/${device.id}/decode-again`, body)));
}

async function change() {
  if (await decode(false)) {
    emit("close");
  }
}
</script>

<template>
  <el-dialog :model-value="true" :title="t('Read stored frames again')" width="min(46rem, 94vw)" @close="emit('close')">
    <p>
      {{
        t(
          "After a layout, a calibration or an assignment was put right: the frames of {name} are read with {modelName} as it is now. First you see what would change.",
          { name: device.name, modelName: device.modelName },
        )
      }}
    </p>
    <el-form label-position="top" @submit.prevent>
      <el-form-item :label="t('Frames that came in from and until')">
        <el-date-picker
          v-model="range"
          type="datetimerange"
          :clearable="false"
          :aria-label="t('Frames that came in from and until')"
          format="YYYY-MM-DD HH:mm"
        />
      </el-form-item>
      <el-form-item :label="t('Why (is kept with the change)')" for="again-note">
        <el-input
          id="again-note"
          v-model="note"
          maxlength="300"
          :placeholder="t('the span of the sensor was entered wrong')"
        />
      </el-form-item>
    </el-form>
    <el-button :loading="busy" @click="decode(true)">{{ t("Show what would change") }}</el-button>
    <div v-if="report" role="status">
      <p>
        {{ t("{count} frames:", { count: count(report.frames) }) }}
        <strong>{{ t("{count} readings would change", { count: count(report.changed) }) }}</strong>{{
          t(", {added} are new, {same} stay", { added: count(report.added), same: count(report.same) })
        }}<template v-if="report.undecodable">{{
          t("; {count} frames cannot be decoded", { count: count(report.undecodable) })
        }}</template
        >.
      </p>
      <table v-if="report.differences.length" class="rows">
        <thead>
          <tr>
            <th>{{ t("Time") }}</th>
            <th>{{ t("Point") }}</th>
            <th>{{ t("Before") }}</th>
            <th>{{ t("After") }}</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="(one, i) in report.differences.slice(0, 8)" :key="i">
            <td>{{ moment(one.time) }}</td>
            <td>{{ one.point }}</td>
            <td>{{ one.before ?? "–" }}</td>
            <td>{{ one.after }}</td>
          </tr>
        </tbody>
      </table>
      <p v-if="report.changed + report.added > 8" class="soft small">
        {{ t("and {count} more", { count: count(report.changed + report.added - 8) }) }}
      </p>
    </div>
    <ProblemNote :error="error" />
    <template #footer>
      <el-button @click="emit('close')">{{ t("Cancel") }}</el-button>
      <el-button
        type="primary"
        :loading="busy"
        :disabled="!report || report.changed + report.added === 0"
        @click="change"
        >{{ t("Change these readings") }}</el-button
      >
    </template>
  </el-dialog>
</template>
