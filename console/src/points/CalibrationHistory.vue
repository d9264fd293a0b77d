<script setup lang="ts">
import type { CalibrationStretch, Point } from "@/api/types";
import { moment } from "@/look/clock";
import ProblemNote from "@/look/ProblemNote.vue";
import { calibrationWords } from "./trace";

/** By which devices and calibrations a point was measured; shown as soon as there was more than one. */
const { point, stretches, problem } = defineProps<{
  point: Point;
  stretches: CalibrationStretch[] | undefined;
  problem: unknown;
}>();
</script>

<template>
  <section v-if="problem || (stretches && (stretches.length > 1 || stretches[0]?.own))" class="sheet">
    <h2>Devices and calibrations</h2>
    <ProblemNote :error="problem" />
    <table v-if="stretches" class="rows cards">
      <thead>
        <tr>
          <th scope="col">From</th>
          <th scope="col">Until</th>
          <th scope="col">Device</th>
          <th scope="col">Calibration</th>
          <th scope="col">By</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="one in stretches" :key="one.id">
          <td data-label="From">{{ one.from ? moment(one.from, point.timeZone) : "the beginning" }}</td>
          <td data-label="Until">{{ one.until ? moment(one.until, point.timeZone) : "now" }}</td>
          <td data-label="Device">
            <RouterLink v-if="one.deviceId" :to="`/fleet/devices/${one.deviceId}`">{{ one.deviceName }}</RouterLink>
            <span v-else class="soft">a device that was removed</span>, <span class="mono">{{ one.channel }}</span>
          </td>
          <td data-label="Calibration">
            {{ calibrationWords(one.calibration) }}
            <span class="soft small">{{ one.own ? "" : "(the model's)" }}</span>
          </td>
          <td data-label="By">
            {{ one.by || "–" }}
            <div v-if="one.note" class="soft small">{{ one.note }}</div>
          </td>
        </tr>
      </tbody>
    </table>
  </section>
</template>
