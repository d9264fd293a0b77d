<script setup lang="ts">
import { said, t } from "@/language";
import { api } from "@/api/http";
import type { Formula, FormulaProposal, Quantity, Recipe, Statistic } from "@/api/types";
import { averagingWords, RULES, STRETCHES, stretchWords } from "@/limits/averaging";
import { useLoad } from "@/look/load";
import ProblemNote from "@/look/ProblemNote.vue";
import { usePlaces } from "@/places/places";
import { computed, watch } from "vue";
import {
  choice,
  emptyFormula,
  freeName,
  INTERVALS,
  intervalWords,
  mayHaveInterval,
  SOURCES,
  type Source,
} from "./formulas";
import { usePoints } from "./points";
import { QUANTITIES } from "./quantities";
import { isRange } from "./states";

/** How a point is derived from others: a prepared formula, an own one, or a statistic. */
const formula = defineModel<Formula | null>({ required: true });
const { placeId, recipes } = defineProps<{ placeId: string; recipes: Recipe[] }>();
/** A proposal was taken: what it gives, and a name for it. */
const emit = defineEmits<{ chosen: [quantity: Quantity, name: string] }>();
const points = usePoints();
const places = usePlaces();
const STATISTICS: Statistic[] = ["mean", "minimum", "maximum", "sum"];

const source = computed<Source>({
  get: () => formula.value?.kind ?? "measured",
  set: (kind) => {
    formula.value = emptyFormula(kind, placeId);
  },
});
const recipe = computed(() =>
  formula.value?.kind === "prepared"
    ? recipes.find((one) => formula.value?.kind === "prepared" && one.recipe === formula.value.recipe)
    : undefined,
);
const proposals = useLoad(() => api.get<FormulaProposal[]>(`places/${placeId}/formulas`));
const title = (id: string) => recipes.find((one) => one.recipe === id)?.title ?? id;
const of = (quantity: string) =>
  points.all
    .filter((point) => point.quantity === quantity)
    .sort((one, other) => (one.placeId === placeId ? -1 : 1) - (other.placeId === placeId ? -1 : 1));

function pick(id: Recipe["recipe"], inputs: Record<string, string>) {
  const found = recipes.find((one) => one.recipe === id);
  const usual = found?.parameters.flatMap((one) => (one.usual === null ? [] : [[one.name, one.usual] as const])) ?? [];
  formula.value = {
    kind: "prepared",
    recipe: id,
    inputs: { ...inputs },
    parameters: Object.fromEntries(usual),
    withinMinutes: null,
    everyMinutes: null,
  };
  emit("chosen", found?.results[0] ?? "other", found?.title ?? "");
}

/** Directions and states have no mean. */
const NOT_AVERAGED = ["wind-direction", "latitude", "longitude", "switch", "count"];
const averaged = computed(() => points.all.filter((one) => !NOT_AVERAGED.includes(one.quantity)));
const stretches = computed(() => {
  const own = formula.value?.kind === "overTime" ? formula.value.averaging.minutes : 0;
  return [...new Set([...STRETCHES, ...(own ? [own] : [])])].sort((one, other) => one - other);
});

function ofPoint() {
  const of = formula.value?.kind === "overTime" ? points.byId.get(formula.value.pointId) : undefined;
  if (of && formula.value?.kind === "overTime") {
    emit("chosen", of.quantity, `${of.name}, ${averagingWords(formula.value.averaging)}`);
  }
}

/** What stands for the values of the point that decides. */
const words = computed(() =>
  formula.value?.kind === "while" ? (points.byId.get(formula.value.whileId)?.words ?? {}) : {},
);

function partOf() {
  const of = formula.value?.kind === "while" ? points.byId.get(formula.value.pointId) : undefined;
  if (of) {
    emit("chosen", of.quantity, `${of.name}, running`);
  }
}

/** One value takes the place of a range. */
function whileIs(value: number | null) {
  if (formula.value?.kind === "while") {
    formula.value = { ...formula.value, is: value, ...(value === null ? {} : { atLeast: null, below: null }) };
  }
}

const interval = computed(() => formula.value && mayHaveInterval(formula.value, recipes));
const every = computed({
  get: () => (formula.value && "everyMinutes" in formula.value ? (formula.value.everyMinutes ?? 0) : 0),
  set: (minutes) => {
    if (formula.value && "everyMinutes" in formula.value) {
      formula.value.everyMinutes = minutes || null;
    }
  },
});
watch(interval, (possible) => {
  if (formula.value && "everyMinutes" in formula.value && !possible) {
    formula.value.everyMinutes = null;
  }
});

function rename(from: string, to: string) {
  if (formula.value?.kind === "written" && to && !(to in formula.value.inputs)) {
    formula.value.inputs = Object.fromEntries(
      Object.entries(formula.value.inputs).map(([name, point]) => [name === from ? to : name, point]),
    );
  }
}

function addInput() {
  if (formula.value?.kind === "written") {
    formula.value.inputs = { ...formula.value.inputs, [freeName(formula.value.inputs)]: "" };
  }
}

function removeInput(name: string) {
  if (formula.value?.kind === "written") {
    formula.value.inputs = Object.fromEntries(Object.entries(formula.value.inputs).filter(([one]) => one !== name));
  }
}
</script>

<template>
  <el-form-item :label="t('Source')" for="point-source">
    <el-select id="point-source" v-model="source" :aria-label="t('Source')">
      <el-option v-for="(text, one) in SOURCES" :key="one" :value="one" :label="text" />
    </el-select>
  </el-form-item>

  <template v-if="formula?.kind === 'prepared'">
    <div v-if="!formula.recipe && proposals.data.value?.length" class="proposals">
      <p class="soft small">{{ t("The points of this place are enough for:") }}</p>
      <el-button
        v-for="one in proposals.data.value"
        :key="one.recipe + JSON.stringify(one.inputs)"
        size="small"
        @click="pick(one.recipe, one.inputs)"
        >{{ title(one.recipe) }}<template v-if="one.needs"> …</template></el-button
      >
    </div>
    <ProblemNote :error="proposals.error.value" />
    <el-form-item :label="t('Formula')" for="formula-recipe">
      <el-select
        id="formula-recipe"
        :model-value="formula.recipe || undefined"
        filterable
        :aria-label="t('Formula')"
        :placeholder="t('choose one')"
        @update:model-value="(id: Recipe['recipe']) => pick(id, {})"
      >
        <el-option v-for="one in recipes" :key="one.recipe" :value="one.recipe" :label="said(one.title)" />
      </el-select>
    </el-form-item>
    <div v-if="recipe" class="two">
      <el-form-item
        v-for="input in recipe.inputs"
        :key="input.name"
        :label="t('Point for {name}', { name: input.name })"
        :for="'formula-in-' + input.name"
      >
        <el-select
          :id="'formula-in-' + input.name"
          v-model="formula.inputs[input.name]"
          filterable
          :aria-label="t('Point for {name}', { name: input.name })"
          :no-data-text="t('No point measures {quantity}', { quantity: QUANTITIES[input.quantity] ?? input.quantity })"
        >
          <el-option v-for="one in of(input.quantity)" :key="one.id" :value="one.id" :label="choice(one)" />
        </el-select>
      </el-form-item>
      <el-form-item
        v-for="one in recipe.parameters"
        :key="one.name"
        :label="`${said(one.title)}, ${one.unit}`"
        :for="'formula-set-' + one.name"
      >
        <el-input-number
          :id="'formula-set-' + one.name"
          v-model="formula.parameters[one.name]"
          :min="one.lowest"
          :max="one.highest"
          :controls="false"
        />
      </el-form-item>
    </div>
    <p v-if="recipe?.total" class="soft small">
      {{ t("A total: it begins at 0 with the first reading of its input.") }}
    </p>
  </template>

  <template v-else-if="formula?.kind === 'written'">
    <el-form-item :label="t('Formula')" for="formula-text">
      <el-input id="formula-text" v-model="formula.text" class="mono" />
    </el-form-item>
    <p class="soft small">
      {{
        t(
          '+ - * / ^ ( ), comparisons, and abs, sqrt, ln, exp, round, min, max, mean, sum, clamp(x, low, high), when(condition, then, else), table(x, x1, y1, x2, y2 …), levels(x, band, from 1, from 2 …) for 0, 1, 2 with a dead band. "previous" is the value before, "a.before" that of an input, known(previous, 0) what counts at first. Values are in the units of their points.',
        )
      }}
    </p>
    <div v-for="name in Object.keys(formula.inputs)" :key="name" class="input">
      <el-input
        :model-value="name"
        class="mono"
        :aria-label="t('Name of input {name}', { name })"
        @change="(to: string) => rename(name, to)"
      />
      <el-select
        v-model="formula.inputs[name]"
        filterable
        :aria-label="t('Point for {name}', { name })"
        :placeholder="t('point')"
      >
        <el-option v-for="one in points.all" :key="one.id" :value="one.id" :label="`${choice(one)}, ${one.unit}`" />
      </el-select>
      <el-button
        :aria-label="t('Remove input {name}', { name })"
        :disabled="Object.keys(formula.inputs).length < 2"
        @click="removeInput(name)"
        >{{ t("Remove") }}</el-button
      >
    </div>
    <el-button link type="primary" @click="addInput">{{ t("Add input") }}</el-button>
  </template>

  <div v-else-if="formula?.kind === 'over'" class="two">
    <el-form-item :label="t('Statistic')" for="formula-statistic">
      <el-select id="formula-statistic" v-model="formula.statistic" :aria-label="t('Statistic')">
        <el-option v-for="one in STATISTICS" :key="one" :value="one" :label="one" />
      </el-select>
    </el-form-item>
    <el-form-item :label="t('Quantity of the points')" for="formula-quantity">
      <el-select
        id="formula-quantity"
        v-model="formula.selection.quantity"
        filterable
        :aria-label="t('Quantity of the points')"
        @change="(quantity: Quantity) => emit('chosen', quantity, '')"
      >
        <el-option v-for="(name, quantity) in QUANTITIES" :key="quantity" :value="quantity" :label="name" />
      </el-select>
    </el-form-item>
    <el-form-item :label="t('In')" for="formula-place">
      <el-select id="formula-place" v-model="formula.selection.placeId" filterable :aria-label="t('In which place')">
        <el-option v-for="one in places.places" :key="one.id" :value="one.id" :label="places.label(one)" />
      </el-select>
    </el-form-item>
    <p class="soft small">{{ t("All measured points of the place and below it, those that are added later too.") }}</p>
  </div>

  <div v-else-if="formula?.kind === 'overTime'" class="two">
    <el-form-item :label="t('Of the point')" for="formula-of">
      <el-select
        id="formula-of"
        v-model="formula.pointId"
        filterable
        :aria-label="t('Of the point')"
        :placeholder="t('point')"
        @change="ofPoint"
      >
        <el-option v-for="one in averaged" :key="one.id" :value="one.id" :label="`${choice(one)}, ${one.unit}`" />
      </el-select>
    </el-form-item>
    <el-form-item :label="t('What its values come to')" for="formula-rule">
      <el-select
        id="formula-rule"
        v-model="formula.averaging.rule"
        :aria-label="t('What its values come to')"
        @change="ofPoint"
      >
        <el-option
          v-for="one in ['mean', 'energy-mean', 'maximum', 'minimum'] as const"
          :key="one"
          :value="one"
          :label="RULES[one]"
        />
      </el-select>
    </el-form-item>
    <el-form-item :label="t('Over')" for="formula-stretch">
      <el-select
        id="formula-stretch"
        v-model="formula.averaging.minutes"
        filterable
        :aria-label="t('Over how long')"
        @change="ofPoint"
      >
        <el-option v-for="one in stretches" :key="one" :value="one" :label="stretchWords(one)" />
      </el-select>
    </el-form-item>
    <p class="soft small">
      {{
        t(
          "A value stands until the next one, for a quarter of the stretch or 15 min at most, whichever is longer. There is no reading while less than half of the stretch is known.",
        )
      }}
    </p>
  </div>

  <template v-else-if="formula?.kind === 'while'">
    <div class="two">
      <el-form-item :label="t('Readings of')" for="formula-part-of">
        <el-select
          id="formula-part-of"
          v-model="formula.pointId"
          filterable
          :aria-label="t('Readings of')"
          :placeholder="t('point')"
          @change="partOf"
        >
          <el-option v-for="one in points.all" :key="one.id" :value="one.id" :label="`${choice(one)}, ${one.unit}`" />
        </el-select>
      </el-form-item>
      <el-form-item :label="t('While this point')" for="formula-while">
        <el-select
          id="formula-while"
          v-model="formula.whileId"
          filterable
          :aria-label="t('While this point')"
          :placeholder="t('point')"
        >
          <el-option v-for="one in points.all" :key="one.id" :value="one.id" :label="`${choice(one)}, ${one.unit}`" />
        </el-select>
      </el-form-item>
      <el-form-item :label="t('Has the value')" for="formula-is">
        <el-select
          v-if="Object.keys(words).length"
          id="formula-is"
          :model-value="formula.is ?? undefined"
          clearable
          :aria-label="t('Has the value')"
          :placeholder="t('any of the range')"
          @update:model-value="(value?: number) => whileIs(value ?? null)"
        >
          <el-option v-for="(word, value) in words" :key="value" :value="Number(value)" :label="word" />
        </el-select>
        <el-input-number
          v-else
          id="formula-is"
          :model-value="formula.is ?? undefined"
          :controls="false"
          :placeholder="t('any of the range')"
          @update:model-value="(value?: number | null) => whileIs(value ?? null)"
        />
      </el-form-item>
    </div>
    <div v-if="isRange(formula)" class="two">
      <el-form-item :label="t('Or from')" for="formula-from">
        <el-input-number id="formula-from" v-model="formula.atLeast" :controls="false" :placeholder="t('any')" />
      </el-form-item>
      <el-form-item :label="t('Below')" for="formula-below">
        <el-input-number id="formula-below" v-model="formula.below" :controls="false" :placeholder="t('any')" />
      </el-form-item>
    </div>
  </template>

  <el-form-item
    v-if="formula && 'withinMinutes' in formula"
    :label="t('Maximum age of inputs, min')"
    for="formula-within"
  >
    <el-input-number
      id="formula-within"
      v-model="formula.withinMinutes"
      :min="1"
      :max="10080"
      :controls="false"
      placeholder="60"
    />
  </el-form-item>
  <el-form-item v-if="formula && interval" :label="t('Readings')" for="formula-every">
    <el-select id="formula-every" v-model="every" :aria-label="t('Readings')">
      <el-option :value="0" :label="t('Whenever an input has one')" />
      <el-option v-for="minutes in INTERVALS" :key="minutes" :value="minutes" :label="intervalWords(minutes)" />
    </el-select>
  </el-form-item>
</template>

<style scoped>
.two {
  display: grid;
  gap: 0 1rem;
  grid-template-columns: repeat(auto-fit, minmax(min(15rem, 100%), 1fr));
}
.proposals {
  margin-bottom: 1rem;
}
.proposals .el-button {
  margin: 0 0.5rem 0.4rem 0;
}
.input {
  display: grid;
  gap: 0.5rem;
  grid-template-columns: 5rem minmax(0, 1fr) auto;
  margin-bottom: 0.5rem;
}
</style>
