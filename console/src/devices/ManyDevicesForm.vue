<script setup lang="ts">
import { t } from "@/language";
import { api } from "@/api/http";
import type { ImportReport } from "@/api/types";
import { useAction } from "@/look/act";
import ProblemNote from "@/look/ProblemNote.vue";
import { usePoints } from "@/points/points";
import { ref } from "vue";

/** Brings many devices in from a file, or loads keys for devices that come later; first a dry run. */
const emit = defineEmits<{ close: [] }>();
const points = usePoints();
const what = ref<"devices" | "keys">("devices");
const text = ref("");
const report = ref<ImportReport>();
const { busy, error, run } = useAction();
const COLUMNS = {
  devices: "name,dev eui,model,place,join eui,app key",
  keys: "dev eui,app key,join eui",
};

async function read(event: Event) {
  const file = (event.target as HTMLInputElement).files?.[0];
  if (file) {
    text.value = await file.text();
    report.value = undefined;
  }
}

async function take(dryRun: boolean) {
  const path = what.value === "devices" ? "devices/import" : "keys";
  await run(async () => (report.value = await api.csv<ImportReport>(`${path}?dryRun=${dryRun}`, text.value)));
  if (!dryRun) {
    await points.load();
  }
}
</script>

<template>
  <el-dialog model-value :title="t('Many devices at once')" width="min(46rem, 94vw)" @close="emit('close')">
    <el-radio-group v-model="what" :aria-label="t('What the file holds')" @change="report = undefined">
      <el-radio value="devices">{{ t("devices to bring in now") }}</el-radio>
      <el-radio value="keys">{{ t("keys, for devices that are scanned later") }}</el-radio>
    </el-radio-group>
    <p class="soft small">
      {{ t("CSV whose first line names the columns:") }} <span class="mono">{{ COLUMNS[what] }}</span><template
        v-if="what === 'devices'"
      >
        {{ t("(for personalised ones") }} <span class="mono">dev addr,nwk s key,app s key</span>
        {{ t("instead of the key)") }}</template
      >{{ t(". Labels do not carry the key: load the maker's list once, and a scan is enough.") }}
    </p>
    <input type="file" accept="text/csv,.csv" :aria-label="t('CSV file')" @change="read" />
    <el-input v-model="text" type="textarea" :rows="8" class="mono" aria-label="CSV" @input="report = undefined" />
    <div v-if="report" role="status">
      <p>
        <strong>{{
          report.dryRun
            ? t("{n} would be taken", { n: report.accepted })
            : t("{n} is taken | {n} are taken", { n: report.accepted })
        }}</strong>{{ t(", {n} line is wrong. | , {n} lines are wrong.", { n: report.refused }) }}
      </p>
      <p v-for="one in report.problems" :key="one.line" class="small">
        {{ t("line {line}: {reason}", { line: one.line, reason: one.reason }) }}
      </p>
    </div>
    <ProblemNote :error="error" />
    <template #footer>
      <el-button @click="emit('close')">{{ t("Close") }}</el-button>
      <el-button :loading="busy" :disabled="!text" @click="take(true)">{{ t("Dry run") }}</el-button>
      <el-button type="primary" :loading="busy" :disabled="!report?.dryRun || !report.accepted" @click="take(false)">{{
        t("Take {accepted}", { accepted: report?.dryRun ? report.accepted : "" })
      }}</el-button>
    </template>
  </el-dialog>
</template>
