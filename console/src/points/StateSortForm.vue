<script setup lang="ts">
import { said, t } from "@/language";
import { api } from "@/api/http";
import type { Distribution, Point, StateWish } from "@/api/types";
import SpreadChart from "@/chart/SpreadChart.vue";
import { keptBinsOf } from "@/chart/spread";
import { useAction } from "@/look/act";
import FormDialog from "@/look/FormDialog.vue";
import { useLoad } from "@/look/load";
import { computed, ref, watch } from "vue";
import { choice } from "./formulas";
import { usePoints } from "./points";
import { boundaryOf, isRange, stateProblem, statesFor } from "./states";

/** Sorts the readings of a machine by its operating state: each point and state gets a point of its own. */
const { placeId, placeName } = defineProps<{ placeId: string; placeName: string }>();
const emit = defineEmits<{ close: [] }>();
const points = usePoints();
const { busy, error, run } = useAction();
const DAYS = 30;
/** What usually says the state of a machine, before everything else. */
const SAYING = ["other", "switch", "current", "power", "frequency", "flow", "pressure"];

const rank = (point: Point) =>
  (Object.keys(point.words).length ? 0 : SAYING.includes(point.quantity) ? 1 : 2) + (point.placeId === placeId ? 0 : 3);
const deciding = computed(() =>
  points.all.filter((one) => one.formula?.kind !== "while").sort((one, other) => rank(one) - rank(other)),
);
const stateId = ref("");
const state = computed(() => points.byId.get(stateId.value));
const states = ref<StateWish[]>([]);
const sortable = computed(() =>
  points
    .ofPlace(placeId)
    .filter((one) => one.id !== stateId.value && one.formula?.kind !== "while" && one.formula?.kind !== "overTime"),
);
const chosen = ref(
  points
    .ofPlace(placeId)
    .filter((one) => one.quantity.startsWith("vibration"))
    .map((one) => one.id),
);
const of = computed(() => sortable.value.filter((one) => chosen.value.includes(one.id)));
const problem = computed(() => states.value.map(stateProblem).find(Boolean));
const count = computed(() => of.value.length * states.value.length);

watch(state, (point) => {
  states.value = point ? statesFor(point) : [];
});

/** How long it had which values lately, so that the boundaries can be read from it. */
const spread = useLoad(async () =>
  state.value && !Object.keys(state.value.words).length && state.value.quantity !== "switch"
    ? api.get<Distribution>(
        `points/${state.value.id}/distribution?from=${new Date(Date.now() - DAYS * 86_400_000).toISOString()}&until=${new Date().toISOString()}`,
      )
    : undefined,
);
watch(stateId, spread.load);
const bins = computed(() => (state.value && spread.data.value ? keptBinsOf(spread.data.value) : []));

/** Where two states can be told apart they are, as long as nobody entered anything. */
watch(bins, (found) => {
  const boundary = boundaryOf(found);
  const [lower, upper] = states.value;
  if (boundary !== undefined && lower && upper && states.value.every((one) => isRange(one) && stateProblem(one))) {
    lower.below = boundary;
    upper.atLeast = boundary;
  }
});

async function save() {
  const request = { pointIds: of.value.map((one) => one.id), states: states.value, withinMinutes: null };
  const done = t("One point is added. | {n} points are added.", { n: count.value });
  if (!problem.value && (await run(() => api.post(`points/${stateId.value}/states`, request), done))) {
    await points.load();
    emit("close");
  }
}
</script>

<template>
  <FormDialog
    :title="t('Sort readings of {placeName} by operating state', { placeName })"
    :save-label="count ? t('Add one point | Add {n} points', { n: count }) : t('Add points')"
    :error="error"
    :busy="busy"
    :disabled="!count || !!problem"
    wide
    @save="save"
    @close="emit('close')"
  >
    <p class="soft">
      {{
        t(
          "A machine that stands still does not vibrate. Sorted by state, each state has a chart, a baseline, a trend and limits of its own.",
        )
      }}
    </p>
    <el-form-item :label="t('Point that says the state')" for="state-point">
      <el-select
        id="state-point"
        v-model="stateId"
        filterable
        :aria-label="t('Point that says the state')"
        :placeholder="t('such as the motor current, the speed, or on and off')"
      >
        <el-option
          v-for="one in deciding"
          :key="one.id"
          :value="one.id"
          :label="`${choice(one)}, ${one.unit || said(one.quantityTitle)}`"
        />
      </el-select>
    </el-form-item>

    <template v-if="state">
      <figure v-if="bins.length && spread.data.value">
        <figcaption class="soft small">
          {{ t("{name}, last {DAYS} days, in {unit}", { name: state.name, DAYS, unit: state.unit }) }}
        </figcaption>
        <div class="canvas">
          <SpreadChart :bins="bins" :curve="[]" :unit="state.unit" :decimals="state.decimals" />
        </div>
      </figure>
      <fieldset>
        <legend>{{ t("States") }}</legend>
        <div v-for="(one, i) in states" :key="i" class="state">
          <el-input
            v-model="one.name"
            :aria-label="t('Name of state {number}', { number: i + 1 })"
            maxlength="40"
            :placeholder="t('name')"
          />
          <template v-if="isRange(one)">
            <el-input-number
              :model-value="one.atLeast ?? undefined"
              :controls="false"
              :aria-label="t('State {number}: from, {unit}', { number: i + 1, unit: state.unit })"
              :placeholder="t('from')"
              @update:model-value="(value?: number | null) => (one.atLeast = value ?? null)"
            />
            <el-input-number
              :model-value="one.below ?? undefined"
              :controls="false"
              :aria-label="t('State {number}: below, {unit}', { number: i + 1, unit: state.unit })"
              :placeholder="t('below')"
              @update:model-value="(value?: number | null) => (one.below = value ?? null)"
            />
          </template>
          <span v-else class="soft value">{{ t("is {is}", { is: one.is }) }}</span>
          <el-button :aria-label="t('Remove state {number}', { number: i + 1 })" @click="states.splice(i, 1)">{{
            t("Remove")
          }}</el-button>
        </div>
        <el-button link type="primary" @click="states.push({ name: '', is: null, atLeast: null, below: null })">{{
          t("Add state")
        }}</el-button>
        <p v-if="problem" class="soft small" role="status">{{ problem }}</p>
      </fieldset>
    </template>

    <fieldset>
      <legend>{{ t("Points to sort") }}</legend>
      <el-checkbox-group v-model="chosen">
        <el-checkbox v-for="one in sortable" :key="one.id" :value="one.id">{{ one.name }}</el-checkbox>
      </el-checkbox-group>
    </fieldset>
    <p v-if="count && !problem" class="soft small">
      {{
        t("New points, with what was recorded: {join}.", {
          join: of.flatMap((one) => states.map((some) => `${one.name}, ${some.name}`)).join("; "),
        })
      }}
    </p>
  </FormDialog>
</template>

<style scoped>
fieldset {
  border: 0;
  margin: 0 0 1rem;
  padding: 0;
}
legend {
  font-weight: 580;
  padding: 0;
  margin-bottom: 0.35rem;
}
.state {
  display: grid;
  gap: 0.5rem;
  grid-template-columns: minmax(0, 2fr) minmax(0, 1fr) minmax(0, 1fr) auto;
  margin-bottom: 0.5rem;
}
.state .value {
  grid-column: 2 / 4;
  align-self: center;
}
@media (max-width: 480px) {
  .state {
    grid-template-columns: minmax(0, 1fr) minmax(0, 1fr) auto;
  }
  .state > :first-child {
    grid-column: 1 / -1;
  }
  .state .value {
    grid-column: 1 / 3;
  }
}
.state .el-input-number {
  width: 100%;
}
figure {
  margin: 0 0 1rem;
}
.canvas {
  height: 180px;
}
</style>
