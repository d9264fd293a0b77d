<script setup lang="ts">
import { fixed } from "@/look/numbers";
import { t } from "@/language";
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
    { name: t("every reading"), bytes: now.detailBytes },
    { name: t("hours and days"), bytes: now.summaryBytes },
    { name: t("frames"), bytes: now.frameBytes },
    { name: t("waveforms"), bytes: now.waveformBytes },
    { name: t("journal, registry, free space in file"), bytes: Math.max(0, now.fileBytes - known) },
  ];
});
const points = computed(() =>
  (records.value?.sites ?? []).flatMap((site) => site.points.map((point) => ({ ...point, site: site.name }))),
);
</script>

<template>
  <div class="page">
    <header class="page-head">
      <h1>{{ t("Records") }}</h1>
      <CheckButton />
    </header>
    <ProblemNote :error="error" />
    <section v-if="records?.trouble" class="sheet trouble" role="alert">
      <h2>{{ t("Nothing can be written now") }}</h2>
      <p>
        {{
          t("{trouble}. What is here can still be read; writing goes on by itself when that is put right.", {
            trouble: records.trouble,
          })
        }}
      </p>
    </section>

    <section v-if="records?.clockRemark" class="sheet trouble" role="alert">
      <h2>{{ t("The clock") }}</h2>
      <p>{{ records.clockRemark }}</p>
    </section>

    <section v-if="records" class="sheet">
      <h2>{{ t("What is kept") }}</h2>
      <p class="big">
        {{ t("{count} readings", { count: count(records.readings) }) }} <span class="soft">{{ t("in") }}</span>
        {{ bytes(records.fileBytes) }}
      </p>
      <p>
        <template v-if="records.bytesPerYear !== null && records.readingsPerDay !== null">
          {{ t("At today's rate, {count} readings a day, a year takes", { count: count(records.readingsPerDay) }) }}
          <strong>{{ bytes(records.bytesPerYear) }}</strong>.
          <template v-if="records.diskFullInDays !== null">
            {{ t("{bytes} are free: the disk is full in", { bytes: bytes(records.freeBytes) }) }}
            <strong>{{ span(records.diskFullInDays) }}</strong>.
          </template>
          <template v-else>{{
            t("{bytes} are free: that lasts for longer than a century.", { bytes: bytes(records.freeBytes) })
          }}</template>
        </template>
        <template v-else>
          {{
            t("{bytes} are free on the disk. There are too few readings yet to say how long it lasts.", {
              bytes: bytes(records.freeBytes),
            })
          }}
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
          >{{
            t("{bytesPerReading} bytes a reading once it is sealed, summaries included.", {
              bytesPerReading: fixed(records.bytesPerReading, 2),
            })
          }}
        </template>
        {{
          t("{waiting} readings are in the journal and are sealed within two hours. {frames} frames.", {
            waiting: count(records.waiting),
            frames: count(records.frames),
          })
        }}
      </p>
    </section>

    <section v-if="points.length" class="sheet">
      <h2>{{ t("Storage by point") }}</h2>
      <table class="rows cards">
        <thead>
          <tr>
            <th>{{ t("Site") }}</th>
            <th>{{ t("Point") }}</th>
            <th class="amount">{{ t("Readings") }}</th>
            <th class="amount">{{ t("Room") }}</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="point in points" :key="point.pointId">
            <td>{{ point.site }}</td>
            <td>
              <RouterLink :to="`/points/${point.pointId}`">{{ point.place }}, {{ point.name }}</RouterLink>
            </td>
            <td class="amount" :data-name="t('readings')">{{ count(point.readings) }}</td>
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
