<script setup lang="ts">
import { t } from "@/language";
import { api } from "@/api/http";
import type { Device } from "@/api/types";
import { useLoad } from "@/look/load";
import ProblemNote from "@/look/ProblemNote.vue";
import { usePoints } from "@/points/points";
import { renderSVG } from "uqr";
import { computed } from "vue";

/** A sheet of labels to print: scanned, each opens its device's page; the number is read from afar. */
const points = usePoints();
const { data: devices, error } = useLoad(() => api.get<Device[]>("devices"));
const labels = computed(() =>
  devices.value?.map((device) => {
    const numbers = device.assignments
      .map((one) => points.byId.get(one.pointId)?.number ?? 0)
      .filter((number) => number > 0);
    return {
      device,
      number: numbers.length ? Math.min(...numbers) : undefined,
      code: renderSVG(`${location.origin}/fleet/devices/${device.id}`, { border: 1 }),
    };
  }),
);
const print = () => window.print();
</script>

<template>
  <div class="page">
    <header class="page-head screen">
      <div>
        <p class="crumbs">
          <RouterLink to="/fleet/devices">{{ t("Devices") }}</RouterLink>
        </p>
        <h1>{{ t("Labels to print") }}</h1>
        <p class="soft">{{ t("A scan opens the device's page. The large number is the lowest of its points.") }}</p>
      </div>
      <el-button type="primary" @click="print">{{ t("Print") }}</el-button>
    </header>
    <ProblemNote :error="error" />
    <div class="labels">
      <article v-for="label in labels" :key="label.device.id" class="label">
        <!-- eslint-disable-next-line vue/no-v-html -- made here from an address -->
        <div class="code" v-html="label.code"></div>
        <div>
          <div class="number">{{ label.number ?? "–" }}</div>
          <strong>{{ label.device.name }}</strong>
          <div class="small">{{ label.device.path.join(", ") }}</div>
          <div class="small mono">{{ label.device.address }}</div>
        </div>
      </article>
    </div>
  </div>
</template>

<style scoped>
.labels {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(290px, 1fr));
  gap: 10px;
}
.label {
  display: grid;
  grid-template-columns: 110px minmax(0, 1fr);
  gap: 10px;
  padding: 8px;
  border: 1px dashed var(--line-strong);
  background: #fff;
  color: #111;
  overflow-wrap: anywhere;
  break-inside: avoid;
}
.code :deep(svg) {
  width: 110px;
  height: 110px;
  display: block;
}
.number {
  font-size: 2.4rem;
  font-weight: 700;
  line-height: 1;
}
@media print {
  .screen {
    display: none;
  }
}
</style>
