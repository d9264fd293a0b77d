<script setup lang="ts">
import { t } from "@/language";
import { api } from "@/api/http";
import type { Units } from "@/api/types";
import { useAction } from "@/look/act";
import { useLoad } from "@/look/load";
import ProblemNote from "@/look/ProblemNote.vue";
import { useUnitsOf } from "@/look/units";
import { computed, reactive, watch } from "vue";

/** In which units somebody reads values: all metric, all imperial, or one by one. */
const { data, error, load } = useLoad(() => api.get<Units>("session/units"));
const { error: failed, run } = useAction();
const AS_KEPT = "kept";
const chosen = reactive<Record<string, string>>({});

watch(data, (mine) =>
  (mine?.choices ?? []).forEach((one) => (chosen[one.quantity] = mine?.units[one.quantity] ?? AS_KEPT)),
);
const system = computed(() => {
  const all = data.value?.choices ?? [];
  return all.every((one) => chosen[one.quantity] === AS_KEPT)
    ? AS_KEPT
    : all.every((one) => chosen[one.quantity] === one.units[0])
      ? "metric"
      : all.every((one) => chosen[one.quantity] === one.imperial)
        ? "imperial"
        : "own";
});

async function save(wish: { units?: Record<string, string>; system?: string }) {
  await run(async () => useUnitsOf(await api.put<Units>("session/units", wish)), t("Your units are saved."));
  await load();
}

function one() {
  return save({ units: Object.fromEntries(Object.entries(chosen).filter(([, unit]) => unit !== AS_KEPT)) });
}
</script>

<template>
  <section class="sheet">
    <h2>{{ t("Units") }}</h2>
    <p class="soft">
      {{
        t(
          "How you read values, on every device: in lists, charts, reports and notices. Limits, rules and calibrations are entered in the unit of their point, and the sentence of an alert keeps it.",
        )
      }}
    </p>
    <ProblemNote :error="error ?? failed" />
    <template v-if="data">
      <el-radio-group
        :model-value="system"
        :aria-label="t('System of units')"
        @update:model-value="(to) => save(to === AS_KEPT ? { units: {} } : { system: String(to) })"
      >
        <el-radio-button :value="AS_KEPT">{{ t("as kept") }}</el-radio-button>
        <el-radio-button value="metric">{{ t("metric") }}</el-radio-button>
        <el-radio-button value="imperial">{{ t("imperial (US)") }}</el-radio-button>
        <el-radio-button value="own" disabled>{{ t("my own") }}</el-radio-button>
      </el-radio-group>
      <div class="choices">
        <label v-for="choice in data.choices" :key="choice.quantity">
          <span>{{ choice.title }}</span>
          <el-select
            v-model="chosen[choice.quantity]"
            :aria-label="t('Unit of {title}', { title: choice.title })"
            @change="one"
          >
            <el-option :value="AS_KEPT" :label="t('as kept')" />
            <el-option v-for="unit in choice.units" :key="unit" :value="unit" :label="unit" />
          </el-select>
        </label>
      </div>
    </template>
  </section>
</template>

<style scoped>
.choices {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(min(260px, 100%), 1fr));
  gap: 0.5rem 2rem;
  margin-top: 1rem;
}
.choices label {
  display: grid;
  grid-template-columns: 1fr 7rem;
  align-items: center;
  gap: 0.75rem;
}
</style>
