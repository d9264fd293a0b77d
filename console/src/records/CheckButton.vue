<script setup lang="ts">
import { t } from "@/language";
import { api } from "@/api/http";
import type { CheckReport } from "@/api/types";
import { useAction } from "@/look/act";
import ProblemNote from "@/look/ProblemNote.vue";
import { count } from "./amounts";
import { ref } from "vue";

/** Reads everything that is stored, or one backup, and says what is wrong with it. */
const { path = "records/check", label = t("Check the records") } = defineProps<{ path?: string; label?: string }>();
const report = ref<CheckReport>();
const { busy, error, run } = useAction();

async function check() {
  report.value = undefined;
  await run(async () => (report.value = await api.post<CheckReport>(path)));
}
</script>

<template>
  <div class="check">
    <el-button :loading="busy" @click="check">{{ busy ? t("Reading everything …") : label }}</el-button>
    <p v-if="report && !report.faults.length" class="ok" role="status">
      {{ t("All is well: {count} readings can be read.", { count: count(report.readings) }) }}
    </p>
    <div v-else-if="report" class="failed" role="status">
      <p v-for="fault in report.faults" :key="fault">{{ fault }}</p>
    </div>
    <ProblemNote :error="error" />
  </div>
</template>

<style scoped>
.check p {
  margin: 0.25rem 0 0;
}
</style>
