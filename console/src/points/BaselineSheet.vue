<script setup lang="ts">
import { fixed } from "@/look/numbers";
import { t } from "@/language";
import { api } from "@/api/http";
import { onChanged } from "@/api/live";
import type { Baseline, Point } from "@/api/types";
import type { Usual } from "@/chart/lineOption";
import { useAction } from "@/look/act";
import { moment } from "@/look/clock";
import { useLoad } from "@/look/load";
import ProblemNote from "@/look/ProblemNote.vue";
import { asRead } from "@/look/units";
import { computed, watch } from "vue";
import { baselineAsRead, comparisonWords, rangeWords } from "./baselines";

/** What a point measured while the condition of its machine was known, and how it is beside that now. */
const { point: kept, mayEdit } = defineProps<{ point: Point; mayEdit: boolean }>();
const point = computed(() => asRead(kept));
const emit = defineEmits<{ usual: [Usual | undefined]; record: [] }>();
const { data, error, load } = useLoad(async () =>
  (await api.get<Baseline[]>(`points/${kept.id}/baselines`)).map((one) => baselineAsRead(one, point.value)),
);
const { error: failed, run } = useAction();
watch(() => kept.id, load);
watch(
  () => kept.latest?.time,
  () => data.value?.length && void load(),
);
onChanged(["registry"], load);

const reference = computed(() => data.value?.find((one) => one.reference && one.values));
watch(
  () => reference.value?.id,
  () => emit("usual", reference.value?.values ?? undefined),
);

async function compareWith(one: Baseline) {
  await run(
    () => api.put("baselines/" + one.id, { name: one.name, good: true, reference: true, note: one.note }),
    t("The point is compared with '{name}'.", { name: one.name }),
  );
  await load();
}

async function remove(one: Baseline) {
  await run(() => api.remove("baselines/" + one.id), t("Removed '{name}'.", { name: one.name }));
  await load();
}
</script>

<template>
  <section v-if="error || data?.length" class="sheet">
    <div class="sheet-head">
      <h2>{{ t("Baselines") }}</h2>
      <el-button v-if="mayEdit" link type="primary" @click="emit('record')">{{ t("Record another") }}</el-button>
    </div>
    <ProblemNote :error="error ?? failed" />
    <p v-if="reference?.now">{{ comparisonWords(reference, point.decimals) }}</p>
    <table v-if="data" class="rows cards">
      <thead>
        <tr>
          <th scope="col">{{ t("Condition") }}</th>
          <th scope="col">{{ t("Period") }}</th>
          <th scope="col">{{ t("Median") }}</th>
          <th scope="col">{{ t("Normal range") }}</th>
          <th scope="col">{{ t("By") }}</th>
          <th v-if="mayEdit"></th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="one in data" :key="one.id">
          <td :data-label="t('Condition')">
            {{ one.name }}
            <div class="soft small">
              {{ one.good ? t("good") : t("bad") }}{{ one.reference ? t(", compared with") : "" }}
            </div>
          </td>
          <td :data-label="t('Period')">
            {{
              t("{from} to {until}", {
                from: moment(one.from, kept.timeZone),
                until: moment(one.until, kept.timeZone),
              })
            }}
          </td>
          <template v-if="one.values">
            <td :data-label="t('Median')">{{ fixed(one.values.median, point.decimals) }} {{ point.unit }}</td>
            <td :data-label="t('Normal range')">
              {{ rangeWords(one, point.decimals) }}
              <div class="soft small">{{ t("{count} readings", { count: one.values.count }) }}</div>
            </td>
          </template>
          <td v-else colspan="2" :data-label="t('State')">
            {{
              one.state === "recording"
                ? t("Recording until {moment}", { moment: moment(one.until, kept.timeZone) })
                : one.problem
            }}
          </td>
          <td :data-label="t('By')">
            {{ one.by }}
            <div v-if="one.note" class="soft small">{{ one.note }}</div>
          </td>
          <td v-if="mayEdit">
            <div class="row">
              <el-button
                v-if="one.good && !one.reference && one.values"
                link
                type="primary"
                @click="compareWith(one)"
                >{{ t("Compare with this") }}</el-button
              >
              <el-button link @click="remove(one)">{{ t("Remove") }}</el-button>
            </div>
          </td>
        </tr>
      </tbody>
    </table>
  </section>
</template>
