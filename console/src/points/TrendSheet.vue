<script setup lang="ts">
import { api } from "@/api/http";
import type { Point, Trend } from "@/api/types";
import { day } from "@/look/clock";
import FenceMark from "@/look/FenceMark.vue";
import { useLoad } from "@/look/load";
import ProblemNote from "@/look/ProblemNote.vue";
import { zoneWords } from "@/look/reading";
import { asRead } from "@/look/units";
import { computed, ref, watch } from "vue";
import { aheadWords, rateWords, trendAsRead } from "./trend";

/** Which way a point goes, and when it reaches the next worse zone if it goes on so. */
const { point: kept } = defineProps<{ point: Point }>();
const point = computed(() => asRead(kept));
const PERIODS = { 7: "1 week", 30: "1 month", 90: "3 months", 365: "1 year" };
const days = ref(30);
const trend = useLoad(async () =>
  trendAsRead(await api.get<Trend>(`points/${kept.id}/trend?days=${days.value}`), point.value),
);
watch([() => kept.id, days], trend.load);
</script>

<template>
  <section class="sheet">
    <div class="sheet-head">
      <h2>Trend</h2>
      <el-radio-group v-model="days" aria-label="Period of the trend">
        <el-radio-button v-for="(text, one) in PERIODS" :key="one" :value="Number(one)">{{ text }}</el-radio-button>
      </el-radio-group>
    </div>
    <ProblemNote :error="trend.error.value" />
    <template v-if="trend.data.value">
      <p v-if="!trend.data.value.clear" class="soft">{{ trend.data.value.reason }}</p>
      <template v-else>
        <p>
          <strong>{{ rateWords(trend.data.value, point.unit) }}</strong>
        </p>
        <p v-if="trend.data.value.reachedAt && trend.data.value.zone" class="row">
          <FenceMark v-if="trend.data.value.severity" :severity="trend.data.value.severity" />
          <span
            >{{ zoneWords(trend.data.value.zone) }} ({{ trend.data.value.boundary }} {{ point.unit }})
            {{ aheadWords(trend.data.value, Date.now()) }}, on
            {{ day(trend.data.value.reachedAt, kept.timeZone) }}.</span
          >
        </p>
        <p v-else-if="trend.data.value.zone" class="soft">
          {{ zoneWords(trend.data.value.zone) }} is further ahead than can be told from this period.
        </p>
      </template>
      <p class="soft small">
        Median of the slopes between {{ trend.data.value.count }} means (Theil and Sen), with its 90 % interval. A
        forecast assumes that operation stays as it is.
      </p>
    </template>
  </section>
</template>
