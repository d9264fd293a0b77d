<script setup lang="ts">
import { fixed } from "@/look/numbers";
import { t } from "@/language";
import { api } from "@/api/http";
import type { Consumption, Point } from "@/api/types";
import { day, moment } from "@/look/clock";
import { useLoad } from "@/look/load";
import ProblemNote from "@/look/ProblemNote.vue";
import { format } from "@/look/reading";
import { asRead, read, readBy, readDifference } from "@/look/units";
import { computed, ref, watch } from "vue";

/** What a tank or a bin gave each day, and when it was filled up. */
const { point: kept } = defineProps<{ point: Point }>();
const point = computed(() => asRead(kept));
const PERIODS = { 7: t("1 week"), 30: t("1 month"), 90: t("3 months") };
const days = ref(7);
const { data, error, load } = useLoad(() => api.get<Consumption>(`points/${kept.id}/consumption?days=${days.value}`));
watch([() => kept.id, days], load);
const most = computed(() => Math.max(0, ...(data.value?.periods ?? []).map((one) => one.used)));
const written = (value: number) => `${format(value, point.value.decimals)} ${point.value.unit}`;
const amount = (value: number) => written(readDifference(readBy(point.value), value));
const contents = (value: number) => written(read(readBy(point.value), value));
</script>

<template>
  <section class="sheet">
    <div class="sheet-head">
      <h2>{{ t("Consumption") }}</h2>
      <el-radio-group v-model="days" :aria-label="t('Period of the consumption')">
        <el-radio-button v-for="(text, one) in PERIODS" :key="one" :value="Number(one)">{{ text }}</el-radio-button>
      </el-radio-group>
    </div>
    <ProblemNote :error="error" />
    <template v-if="data">
      <p v-if="!data.used && !data.fillings.length" class="soft">
        {{ t("The contents have not changed in this time.") }}
      </p>
      <template v-else>
        <p v-if="data.perDay !== null">
          <strong>{{ t("{amount} a day", { amount: amount(data.perDay) }) }}</strong> {{ t("on average")
          }}<template v-if="data.lastsDays !== null">{{
            t("; what is there lasts {lastsDays} days", { lastsDays: fixed(data.lastsDays, 1) })
          }}</template
          >.
        </p>
        <div class="tables">
          <table>
            <caption class="soft small">
              {{
                t("Used each day")
              }}
            </caption>
            <tbody>
              <tr v-for="one in [...data.periods].reverse()" :key="one.from">
                <th scope="row">{{ day(one.from, kept.timeZone) }}</th>
                <td class="bar"><span :style="{ width: most ? (one.used / most) * 100 + '%' : '0' }"></span></td>
                <td class="number">{{ amount(one.used) }}</td>
              </tr>
            </tbody>
          </table>
          <table v-if="data.fillings.length">
            <caption class="soft small">
              {{
                t("Filled up")
              }}
            </caption>
            <tbody>
              <tr v-for="one in [...data.fillings].reverse()" :key="one.from">
                <th scope="row">{{ moment(one.until, kept.timeZone) }}</th>
                <td class="number">+ {{ amount(one.amount) }}</td>
                <td class="number soft">{{ t("to {contents}", { contents: contents(one.after) }) }}</td>
              </tr>
            </tbody>
          </table>
        </div>
      </template>
      <p class="soft small">
        {{
          t("What falls was used; a rise of {amount} or more was filled in, less is noise. Days of the site.", {
            amount: amount(data.step),
          })
        }}
      </p>
    </template>
  </section>
</template>

<style scoped>
.tables {
  display: grid;
  gap: 1rem 2.5rem;
  grid-template-columns: repeat(auto-fit, minmax(min(360px, 100%), 1fr));
  align-items: start;
}
table {
  border-collapse: collapse;
  width: 100%;
}
caption {
  text-align: left;
  padding-bottom: 0.25rem;
}
th {
  text-align: left;
  font-weight: 400;
  white-space: nowrap;
}
th,
td {
  padding: 0.2rem 0.5rem 0.2rem 0;
}
.bar {
  width: 50%;
}
.bar span {
  display: block;
  height: 0.7rem;
  background: var(--moss);
  opacity: 0.55;
  border-radius: 2px;
}
.number {
  text-align: right;
  white-space: nowrap;
}
</style>
