<script setup lang="ts">
import { said, t } from "@/language";
import type { Panel } from "@/api/types";
import RangePicker from "@/chart/RangePicker.vue";
import FormDialog from "@/look/FormDialog.vue";
import { labelOf } from "@/points/names";
import { usePoints } from "@/points/points";
import { computed, ref } from "vue";
import { copyOf, durationOf, freshId, hoursOf } from "./layout";
import LookFields from "./LookFields.vue";
import { KINDS } from "./panels/kinds";
import PlaceField from "./PlaceField.vue";
import PointsFields from "./PointsFields.vue";

/** Makes a panel, or changes one. What all kinds have stays when another kind is chosen. */
const { panel } = defineProps<{ panel?: Panel }>();
const emit = defineEmits<{ save: [panel: Panel]; close: [] }>();
const points = usePoints();

const draft = ref<Panel>(panel ? copyOf(panel) : fresh("value", { id: freshId(), title: "" }));
const kind = computed({
  get: () => draft.value.kind,
  set: (chosen) => (draft.value = fresh(chosen, draft.value)),
});
const of = computed(() => KINDS[draft.value.kind]);
const shown = computed(() => points.shown(draft.value));
const title = computed(() => {
  const first = shown.value[0];
  return (
    draft.value.title ||
    (first && shown.value.length === 1 ? labelOf(first) : undefined) ||
    (first && !draft.value.selection ? `${first.path.at(-1) ?? ""}: ${said(first.quantityTitle)}` : of.value.name)
  );
});
/** The unit of its scale, if all its points have one. */
const unit = computed(() => (new Set(shown.value.map((point) => point.unit)).size === 1 ? shown.value[0]?.unit : ""));
const hours = computed({
  get: () => hoursOf(draft.value.range ?? of.value.range ?? null),
  set: (span) => (draft.value = { ...draft.value, range: durationOf(span) }),
});
const complete = computed(
  () =>
    (of.value.points !== "needed" || draft.value.pointIds.length > 0 || draft.value.selection !== null) &&
    (of.value.points !== "place" || draft.value.selection !== null) &&
    !of.value.lacks?.(draft.value),
);

/** A panel of another kind with what all kinds have. */
function fresh(chosen: Panel["kind"], from: Partial<Panel> & { id: string; title: string }): Panel {
  return {
    id: from.id,
    title: from.title,
    kind: chosen,
    pointIds: from.pointIds ?? [],
    selection: from.selection ?? null,
    range: KINDS[chosen].range ? (from.range ?? KINDS[chosen].range ?? null) : null,
    look: from.look ?? null,
    x: from.x ?? 0,
    y: from.y ?? 0,
    ...KINDS[chosen].size,
    // Those that cannot do without something of their own say so until it is chosen.
  } as Panel;
}

/** A setting of the kind's own, by its name. */
function own(key: string): unknown {
  return (draft.value as unknown as Record<string, unknown>)[key];
}

function setOwn(key: string, value: unknown) {
  draft.value = { ...draft.value, [key]: value } as Panel;
}

function save() {
  const none = of.value.points === "none";
  emit("save", {
    ...draft.value,
    title: title.value,
    pointIds: none || of.value.points === "place" ? [] : draft.value.pointIds,
    selection: none ? null : draft.value.selection,
    look: of.value.look.length ? draft.value.look : null,
  });
}
</script>

<template>
  <FormDialog
    :title="panel ? t('Change a panel') : t('Add a panel')"
    :save-label="panel ? t('Change') : t('Add')"
    :disabled="!complete"
    @save="save"
    @close="emit('close')"
  >
    <el-form-item :label="t('Kind')" for="panel-kind">
      <el-select id="panel-kind" v-model="kind" :aria-label="t('Kind')"
        ><el-option v-for="(one, id) in KINDS" :key="id" :value="id" :label="one.name"
      /></el-select>
    </el-form-item>
    <PlaceField v-if="of.points === 'place'" v-model="draft" />
    <PointsFields v-else-if="of.points !== 'none'" v-model="draft" />
    <el-form-item v-for="choice in of.choices" :key="choice.key" :label="choice.label" :for="`panel-${choice.key}`">
      <el-select
        :id="`panel-${choice.key}`"
        :model-value="own(choice.key) ?? choice.options[0]?.value"
        :aria-label="choice.label"
        :empty-values="[undefined]"
        @update:model-value="setOwn(choice.key, $event)"
      >
        <el-option
          v-for="option in choice.options"
          :key="String(option.value)"
          :value="option.value as string"
          :label="option.label"
        />
      </el-select>
    </el-form-item>
    <el-form-item v-if="of.range" :label="t('How far back')"><RangePicker v-model="hours" /></el-form-item>
    <component :is="of.fields" v-if="of.fields" v-model="draft" />
    <LookFields v-if="of.look.length" v-model="draft" :offers="of.look" :unit="unit" />
    <el-form-item :label="t('Title')" for="panel-title"
      ><el-input id="panel-title" v-model="draft.title" :placeholder="title" maxlength="120"
    /></el-form-item>
  </FormDialog>
</template>
