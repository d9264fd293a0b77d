<script setup lang="ts">
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
  <el-dialog model-value title="Many devices at once" width="min(46rem, 94vw)" @close="emit('close')">
    <el-radio-group v-model="what" aria-label="What the file holds" @change="report = undefined">
      <el-radio value="devices">devices to bring in now</el-radio>
      <el-radio value="keys">keys, for devices that are scanned later</el-radio>
    </el-radio-group>
    <p class="soft small">
      CSV whose first line names the columns: <span class="mono">{{ COLUMNS[what] }}</span><template
        v-if="what === 'devices'"
      >
        (for personalised ones <span class="mono">dev addr,nwk s key,app s key</span> instead of the key)</template
      >. Labels do not carry the key: load the maker's list once, and a scan is enough.
    </p>
    <input type="file" accept="text/csv,.csv" aria-label="CSV file" @change="read" />
    <el-input v-model="text" type="textarea" :rows="8" class="mono" aria-label="CSV" @input="report = undefined" />
    <div v-if="report" role="status">
      <p>
        <strong>{{ report.accepted }} {{ report.dryRun ? "would be taken" : "are taken" }}</strong
        >, {{ report.refused }} {{ report.refused === 1 ? "line is" : "lines are" }} wrong.
      </p>
      <p v-for="one in report.problems" :key="one.line" class="small">line {{ one.line }}: {{ one.reason }}</p>
    </div>
    <ProblemNote :error="error" />
    <template #footer>
      <el-button @click="emit('close')">Close</el-button>
      <el-button :loading="busy" :disabled="!text" @click="take(true)">Dry run</el-button>
      <el-button type="primary" :loading="busy" :disabled="!report?.dryRun || !report.accepted" @click="take(false)"
        >Take {{ report?.dryRun ? report.accepted : "" }}</el-button
      >
    </template>
  </el-dialog>
</template>
