<script setup lang="ts">
import { t } from "@/language";
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
    <h2>{{ t("Devices and calibrations") }}</h2>
    <ProblemNote :error="problem" />
    <table v-if="stretches" class="rows cards">
      <thead>
        <tr>
          <th scope="col">{{ t("From") }}</th>
          <th scope="col">{{ t("Until") }}</th>
          <th scope="col">{{ t("Device") }}</th>
          <th scope="col">{{ t("Calibration") }}</th>
          <th scope="col">{{ t("By") }}</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="one in stretches" :key="one.id">
          <td :data-label="t('From')">{{ one.from ? moment(one.from, point.timeZone) : t("the beginning") }}</td>
          <td :data-label="t('Until')">{{ one.until ? moment(one.until, point.timeZone) : t("now") }}</td>
          <td :data-label="t('Device')">
            <RouterLink v-if="one.deviceId" :to="`/fleet/devices/${one.deviceId}`">{{ one.deviceName }}</RouterLink>
            <span v-else class="soft">{{ t("a device that was removed") }}</span>,
            <span class="mono">{{ one.channel }}</span>
          </td>
          <td :data-label="t('Calibration')">
            {{ calibrationWords(one.calibration) }}
            <span class="soft small">{{ one.own ? "" : t("(the model's)") }}</span>
          </td>
          <td :data-label="t('By')">
            {{ one.by || "–" }}
            <div v-if="one.note" class="soft small">{{ one.note }}</div>
          </td>
        </tr>
      </tbody>
    </table>
  </section>
</template>
