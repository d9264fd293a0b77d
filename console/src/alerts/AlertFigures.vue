<script setup lang="ts">
import { t } from "@/language";
import { trimmed } from "@/look/numbers";
import { api } from "@/api/http";
import type { AlertFigures } from "@/api/types";
import FenceMark from "@/look/FenceMark.vue";
import { useLoad } from "@/look/load";
import ProblemNote from "@/look/ProblemNote.vue";
import { ref, watch } from "vue";

/** How good the alerts themselves are: too many, too often, too long. */
const days = ref(30);
const figures = useLoad(() =>
  api.get<AlertFigures>("alerts/figures?since=" + new Date(Date.now() - days.value * 86_400_000).toISOString()),
);
watch(days, figures.load);
const number = (value: number) => trimmed(value, value < 1 ? 2 : 1);
</script>

<template>
  <section class="sheet">
    <div class="head">
      <h2>{{ t("Alert statistics") }}</h2>
      <el-select v-model="days" :aria-label="t('Period')" class="period">
        <el-option :value="1" :label="t('last day')" />
        <el-option :value="7" :label="t('last 7 days')" />
        <el-option :value="30" :label="t('last 30 days')" />
        <el-option :value="365" :label="t('last year')" />
      </el-select>
    </div>
    <ProblemNote :error="figures.error.value" />
    <template v-if="figures.data.value">
      <dl class="numbers">
        <div>
          <dt>{{ t("Alerts") }}</dt>
          <dd>{{ figures.data.value.alerts }}</dd>
        </div>
        <div>
          <dt>{{ t("A day") }}</dt>
          <dd>{{ number(figures.data.value.perDay) }}</dd>
        </div>
        <div>
          <dt>{{ t("Most in 10 minutes") }}</dt>
          <dd>{{ figures.data.value.mostInTenMinutes }}</dd>
        </div>
        <div>
          <dt>{{ t("Time in flood (more than 10 in 10 minutes)") }}</dt>
          <dd>{{ number(figures.data.value.floodPercent) }} %</dd>
        </div>
        <div v-for="one in ['critical', 'warning', 'advisory'] as const" :key="one">
          <dt><FenceMark :severity="one" /></dt>
          <dd>{{ figures.data.value.bySeverity[one] ?? 0 }}</dd>
        </div>
      </dl>
      <template v-if="figures.data.value.stale.length">
        <h3>{{ t("Open for more than a day") }}</h3>
        <ul>
          <li v-for="one in figures.data.value.stale" :key="one.alertId">
            <RouterLink :to="`/alerts/${one.alertId}`">{{ one.summary }}</RouterLink><span class="soft">
              · {{ t("{number} days", { number: number(one.hours / 24) }) }}</span
            >
          </li>
        </ul>
      </template>
      <template v-if="figures.data.value.chattering.length">
        <h3>{{ t("Chattering (three times or more within a minute)") }}</h3>
        <ul>
          <li v-for="one in figures.data.value.chattering" :key="one.rule + one.place">
            {{ one.place }}: {{ one.rule }}
            <span class="soft"
              >· {{ t("{times} times. A dead band or a hold time would calm it.", { times: one.times }) }}</span
            >
          </li>
        </ul>
      </template>
      <template v-if="figures.data.value.top.length">
        <h3>{{ t("Most frequent") }}</h3>
        <table class="rows">
          <thead>
            <tr>
              <th>{{ t("Rule") }}</th>
              <th>{{ t("Place") }}</th>
              <th>{{ t("Times") }}</th>
              <th>{{ t("Share (part)") }}</th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="one in figures.data.value.top" :key="one.rule + one.place">
              <td>{{ one.rule }}</td>
              <td>{{ one.place }}</td>
              <td>{{ one.times }}</td>
              <td>{{ number(one.percent) }} %</td>
            </tr>
          </tbody>
        </table>
      </template>
    </template>
  </section>
</template>

<style scoped>
.head {
  display: flex;
  gap: 1rem;
  justify-content: space-between;
  align-items: baseline;
  flex-wrap: wrap;
}
.period {
  width: 10rem;
}
.numbers {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(150px, 1fr));
  gap: 0.75rem;
  margin: 0.75rem 0;
}
.numbers div {
  border-left: 3px solid var(--line-strong);
  padding-left: 0.6rem;
}
dt {
  color: var(--ink-soft);
  font-size: 0.85rem;
}
dd {
  margin: 0;
  font-size: 1.4rem;
}
</style>
