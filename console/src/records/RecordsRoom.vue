<script setup lang="ts">
import { api } from "@/api/http";
import type { Records } from "@/api/types";
import { every } from "@/look/clock";
import { useLoad } from "@/look/load";
import ProblemNote from "@/look/ProblemNote.vue";
import BackupSheet from "./BackupSheet.vue";
import ChangesSheet from "./ChangesSheet.vue";
import CheckButton from "./CheckButton.vue";
import KeepingSheet from "./KeepingSheet.vue";
import { bytes, count, span } from "./amounts";
import { computed } from "vue";

/** How much is kept, for how long it lasts, and how to get it back. For owners. */
const { data: records, error, load } = useLoad(() => api.get<Records>("records"));
every(30, () => void load());

const parts = computed(() => {
  const now = records.value;
  if (!now) {
    return [];
  }
  const known = now.detailBytes + now.summaryBytes + now.frameBytes + now.waveformBytes;
  return [
    { name: "every reading", bytes: now.detailBytes },
    { name: "hours and days", bytes: now.summaryBytes },
    { name: "frames", bytes: now.frameBytes },
    { name: "waveforms", bytes: now.waveformBytes },
    { name: "journal, registry, free space in file", bytes: Math.max(0, now.fileBytes - known) },
  ];
});
const points = computed(() =>
  (records.value?.sites ?? []).flatMap((site) => site.points.map((point) => ({ ...point, site: site.name }))),
);
</script>

<template>
  <div class="page">
    <header class="page-head">
      <h1>Records</h1>
      <CheckButton />
    </header>
    <ProblemNote :error="error" />
    <section v-if="records?.trouble" class="sheet trouble" role="alert">
      <h2>Nothing can be written now</h2>
      <p>{{ records.trouble }}. What is here can still be read; writing goes on by itself when that is put right.</p>
    </section>

    <section v-if="records?.clockRemark" class="sheet trouble" role="alert">
      <h2>The clock</h2>
      <p>{{ records.clockRemark }}</p>
    </section>

    <section v-if="records" class="sheet">
      <h2>What is kept</h2>
      <p class="big">
        {{ count(records.readings) }} readings <span class="soft">in</span> {{ bytes(records.fileBytes) }}
      </p>
      <p>
        <template v-if="records.bytesPerYear !== null && records.readingsPerDay !== null">
          At today's rate, {{ count(records.readingsPerDay) }} readings a day, a year takes
          <strong>{{ bytes(records.bytesPerYear) }}</strong>.
          <template v-if="records.diskFullInDays !== null">
            {{ bytes(records.freeBytes) }} are free: the disk is full in
            <strong>{{ span(records.diskFullInDays) }}</strong>.
          </template>
          <template v-else>{{ bytes(records.freeBytes) }} are free: that lasts for longer than a century.</template>
        </template>
        <template v-else>
          {{ bytes(records.freeBytes) }} are free on the disk. There are too few readings yet to say how long it lasts.
        </template>
      </p>
      <table class="rows">
        <tbody>
          <tr v-for="part in parts" :key="part.name">
            <td>{{ part.name }}</td>
            <td class="amount">{{ bytes(part.bytes) }}</td>
            <td class="wide">
              <div class="bar" :style="{ width: `${(100 * part.bytes) / records.fileBytes}%` }"></div>
            </td>
          </tr>
        </tbody>
      </table>
      <p class="soft small">
        <template v-if="records.bytesPerReading !== null"
          >{{ records.bytesPerReading.toFixed(2) }} bytes a reading once it is sealed, summaries included.
        </template>
        {{ count(records.waiting) }} readings are in the journal and are sealed within two hours.
        {{ count(records.frames) }} frames.
      </p>
    </section>

    <section v-if="points.length" class="sheet">
      <h2>Storage by point</h2>
      <table class="rows cards">
        <thead>
          <tr>
            <th>Site</th>
            <th>Point</th>
            <th class="amount">Readings</th>
            <th class="amount">Room</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="point in points" :key="point.pointId">
            <td>{{ point.site }}</td>
            <td>
              <RouterLink :to="`/points/${point.pointId}`">{{ point.place }}, {{ point.name }}</RouterLink>
            </td>
            <td class="amount" data-name="readings">{{ count(point.readings) }}</td>
            <td class="amount">{{ bytes(point.bytes) }}</td>
          </tr>
        </tbody>
      </table>
    </section>

    <KeepingSheet @changed="load" />
    <BackupSheet />
    <ChangesSheet />
  </div>
</template>

<style scoped>
.big {
  font-size: 1.5rem;
  margin: 0 0 0.25rem;
}
.amount {
  text-align: right;
  white-space: nowrap;
  font-variant-numeric: tabular-nums;
}
.wide {
  width: 50%;
  vertical-align: middle;
}
.bar {
  height: 0.6rem;
  background: var(--line-a);
  border-radius: 2px;
}
.trouble {
  border-left: 4px solid var(--critical);
}
</style>
