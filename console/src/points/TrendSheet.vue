<script setup lang="ts">
import { t } from "@/language";
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
const PERIODS = { 7: t("1 week"), 30: t("1 month"), 90: t("3 months"), 365: t("1 year") };
const days = ref(30);
const trend = useLoad(async () =>
  trendAsRead(await api.get<Trend>(`points/${kept.id}/trend?days=${days.value}`), point.value),
);
watch([() => kept.id, days], trend.load);
</script>

<template>
  <section class="sheet">
    <div class="sheet-head">
      <h2>{{ t("Trend") }}</h2>
      <el-radio-group v-model="days" :aria-label="t('Period of the trend')">
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
          <span>{{
            t("{zoneWords} ({boundary} {unit}) {aheadWords}, on {day}.", {
              zoneWords: zoneWords(trend.data.value.zone),
              boundary: trend.data.value.boundary,
              unit: point.unit,
              aheadWords: aheadWords(trend.data.value, Date.now()),
              day: day(trend.data.value.reachedAt, kept.timeZone),
            })
          }}</span>
        </p>
        <p v-else-if="trend.data.value.zone" class="soft">
          {{
            t("{zoneWords} is further ahead than can be told from this period.", {
              zoneWords: zoneWords(trend.data.value.zone),
            })
          }}
        </p>
      </template>
      <p class="soft small">
        {{
          t(
            "Median of the slopes between {count} means (Theil and Sen), with its 90 % interval. A forecast assumes that operation stays as it is.",
            { count: trend.data.value.count },
          )
        }}
      </p>
    </template>
  </section>
</template>
