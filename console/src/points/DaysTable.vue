<script setup lang="ts">
import { fixed } from "@/look/numbers";
import { said, t } from "@/language";
import type { LimitSet, Point } from "@/api/types";
import { summariesOf } from "@/chart/series";
import { HOUR, useTimeRange } from "@/chart/timeRange";
import { shortDay } from "@/look/clock";
import { useLoad } from "@/look/load";
import ProblemNote from "@/look/ProblemNote.vue";
import { asRead } from "@/look/units";
import { computed, ref, watch } from "vue";

/** What the readings of each day, week or month come to, with the time in each zone. */
const { point: kept, limits } = defineProps<{ point: Point; limits: LimitSet | undefined }>();
const point = computed(() => asRead(kept));
const period = ref<"day" | "week" | "month">("day");
const DAYS = { day: 8, week: 10 * 7, month: 365 };
const looked = useTimeRange(() => DAYS[period.value] * 24);
const { data, error, load } = useLoad(() => {
  // Of a time that is looked at there are as many before its end as there are else before now, or all of it.
  const { from, until } = looked.current();
  const range = { from: Math.min(from, until - DAYS[period.value] * 24 * HOUR), until };
  return summariesOf("points/" + kept.id, point.value, period.value, range);
});
watch([() => kept.id, period, looked.key], load);

function number(value: number | null): string {
  return value === null ? "–" : fixed(value, point.value.decimals);
}

function time(seconds: number): string {
  return seconds < 60
    ? `${seconds} s`
    : seconds < 3600
      ? t("{minutes} min", { minutes: Math.round(seconds / 60) })
      : `${fixed(seconds / 3600, 1)} h`;
}
</script>

<template>
  <section class="sheet">
    <div class="sheet-head">
      <h2>{{ t("By {period}", { period }) }}</h2>
      <el-radio-group v-model="period" :aria-label="t('Period')">
        <el-radio-button value="day">{{ t("days") }}</el-radio-button>
        <el-radio-button value="week">{{ t("weeks") }}</el-radio-button>
        <el-radio-button value="month">{{ t("months") }}</el-radio-button>
      </el-radio-group>
    </div>
    <ProblemNote :error="error" />
    <table v-if="data?.length" class="rows cards">
      <thead>
        <tr>
          <th>{{ t("From") }}</th>
          <th class="amount">{{ t("Lowest") }}</th>
          <th class="amount">{{ t("Mean") }}</th>
          <th class="amount">{{ t("Highest") }}</th>
          <th class="amount">{{ t("Readings") }}</th>
          <th v-if="limits">{{ t("Time in zones") }}</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="one in [...data].reverse()" :key="one.from">
          <td>{{ shortDay(one.from, kept.timeZone, true) }}</td>
          <td class="amount">{{ number(one.min) }}</td>
          <td class="amount">{{ number(one.mean) }}</td>
          <td class="amount">{{ number(one.max) }} {{ point.unit }}</td>
          <td class="amount" :data-name="t('readings')">{{ one.count }}</td>
          <td v-if="limits" class="zones">
            <span
              v-for="zone in limits.zones.filter((each) => one.secondsInZone[each.label])"
              :key="zone.label"
              :class="zone.severity"
            >
              {{ said(zone.label) }} {{ time(one.secondsInZone[zone.label] ?? 0) }}
            </span>
          </td>
        </tr>
      </tbody>
    </table>
    <p v-else-if="data" class="soft">{{ t("No readings in this time.") }}</p>
  </section>
</template>

<style scoped>
.amount {
  text-align: right;
  white-space: nowrap;
  font-variant-numeric: tabular-nums;
}
.zones span {
  margin-right: 0.75rem;
  white-space: nowrap;
}
.zones .warning,
.zones .critical {
  font-weight: 600;
}
</style>
