<script setup lang="ts">
import { said, t } from "@/language";
import { api } from "@/api/http";
import type { Formula, Point, Quantity, Recipe } from "@/api/types";
import { averagingOf, isSame } from "@/limits/averaging";
import { useAction } from "@/look/act";
import { useLoad } from "@/look/load";
import FormDialog from "@/look/FormDialog.vue";
import { useVersion } from "@/look/version";
import { usePlaces } from "@/places/places";
import { computed, reactive, toRaw } from "vue";
import DecimalsField from "./DecimalsField.vue";
import FormulaFields from "./FormulaFields.vue";
import { emptyFormula, isComplete } from "./formulas";
import { usePoints } from "./points";
import { QUANTITIES } from "./quantities";
import { wordsText } from "./words";
import WordsField from "./WordsField.vue";

/** Makes a point, or changes one. */
const { point, placeId, derived } = defineProps<{ point?: Point; placeId?: string; derived?: boolean }>();
const emit = defineEmits<{ close: [] }>();
const places = usePlaces();
const points = usePoints();
const { busy, error, run } = useAction();
const version = useVersion(point && "points/" + point.id);
const form = reactive({
  name: point?.name ?? "",
  placeId: point?.placeId ?? placeId ?? "",
  quantity: point?.quantity ?? ("temperature" as Quantity),
  limitSet: point?.ownLimitSet ? point.limitSet : null,
  direction: point?.direction ?? null,
  note: point?.note ?? null,
  released: point?.released ?? false,
  tags: [...(point?.tags ?? [])],
  shown: { decimals: point?.shown.decimals ?? null, words: { ...point?.shown.words } },
  formula: (point
    ? structuredClone(toRaw(point).formula)
    : derived
      ? emptyFormula("prepared", placeId ?? "")
      : null) as Formula | null,
});
const recipes = useLoad(() => api.get<Recipe[]>("formulas"));
const complete = computed(() => form.name && form.placeId && isComplete(form.formula, recipes.data.value ?? []));
/** What a formula can give; the usual first. */
const quantities = computed(() => {
  const of = form.formula;
  const results =
    of?.kind === "prepared" ? recipes.data.value?.find((one) => one.recipe === of.recipe)?.results : undefined;
  return (Object.entries(QUANTITIES) as [Quantity, string][]).filter(([id]) => !results || results.includes(id));
});

function chosen(quantity: Quantity, name: string) {
  if (!point) {
    form.quantity = quantity;
    form.name ||= name;
  }
}

/** What the device's model says where the point says nothing itself. */
const modelWords = computed(() =>
  point && !Object.keys(point.shown.words ?? {}).length && Object.keys(point.words).length
    ? wordsText(point.words)
    : t("0 = shut"),
);
const tags = computed(() => [...new Set(points.all.flatMap((one) => one.tags))].sort());
const sets = computed(() =>
  places.limits.filter((set) => set.quantity === form.quantity && isSame(set.averaging, averagingOf(form.formula))),
);
/** Limits for means hold for points that are these means: the asset adds them. */
const forMeans = computed(
  () => !form.formula && places.limits.some((set) => set.quantity === form.quantity && set.averaging.rule !== "last"),
);

async function save() {
  const ok = await run(async () => {
    await (point
      ? api.put("points/" + point.id, { ...form, unit: point.unit }, await version())
      : api.post("points", form));
    await points.load();
  }, t("Saved."));
  if (ok) {
    emit("close");
  }
}
</script>

<template>
  <FormDialog
    :title="point ? t('Change {name}', { name: point.name }) : derived ? t('Add derived point') : t('Add point')"
    :error="error"
    :busy="busy"
    :disabled="!complete"
    @save="save"
    @close="emit('close')"
  >
    <el-form-item :label="t('Name')" for="point-name"
      ><el-input id="point-name" v-model="form.name" autofocus
    /></el-form-item>
    <el-form-item :label="t('Place')" for="point-place">
      <el-select id="point-place" v-model="form.placeId" filterable :aria-label="t('Place')">
        <el-option v-for="one in places.editable" :key="one.id" :value="one.id" :label="places.label(one)" />
      </el-select>
    </el-form-item>
    <FormulaFields
      v-model="form.formula"
      :place-id="form.placeId"
      :recipes="recipes.data.value ?? []"
      @chosen="chosen"
    />
    <el-form-item v-if="!point" :label="t('Quantity')" for="point-quantity">
      <el-select id="point-quantity" v-model="form.quantity" filterable :aria-label="t('Quantity')">
        <el-option v-for="[quantity, name] in quantities" :key="quantity" :value="quantity" :label="name" />
      </el-select>
    </el-form-item>
    <el-form-item v-if="form.quantity === 'vibration-velocity'" :label="t('Direction')" for="point-direction">
      <el-select
        id="point-direction"
        v-model="form.direction"
        clearable
        :aria-label="t('Direction')"
        :placeholder="t('none')"
      >
        <el-option v-for="one in ['axial', 'horizontal', 'vertical']" :key="one" :value="one" :label="one" />
      </el-select>
    </el-form-item>
    <el-form-item :label="t('Limit set')" for="point-limits">
      <el-select
        id="point-limits"
        v-model="form.limitSet"
        clearable
        :aria-label="t('Limit set')"
        :placeholder="t('that of its asset')"
      >
        <el-option v-for="set in sets" :key="set.id" :value="set.id" :label="said(set.title)" />
      </el-select>
      <p v-if="forMeans" class="soft small">
        {{ t("Limits for a mean, such as those over 8 h, are given to the asset. It then adds the mean as a point.") }}
      </p>
    </el-form-item>
    <el-form-item :label="t('Note')" for="point-note"
      ><el-input id="point-note" v-model="form.note" type="textarea" :rows="2"
    /></el-form-item>
    <el-form-item :label="t('Tags, by which dashboards and rules select points')" for="point-tags">
      <el-select
        id="point-tags"
        v-model="form.tags"
        multiple
        filterable
        allow-create
        default-first-option
        :aria-label="t('Tags')"
        :placeholder="t('none')"
      >
        <el-option v-for="tag in tags" :key="tag" :value="tag" :label="tag" />
      </el-select>
    </el-form-item>
    <DecimalsField id="point-decimals" v-model="form.shown.decimals" />
    <WordsField id="point-words" v-model="form.shown.words" :placeholder="modelWords" />
    <el-checkbox v-model="form.released">{{ t("Released: people without the right to edit see it") }}</el-checkbox>
  </FormDialog>
</template>
