<script setup lang="ts">
import { said, t } from "@/language";
import type { Panel, PointSelection } from "@/api/types";
import { usePlaces } from "@/places/places";
import { labelOf } from "@/points/names";
import { usePoints } from "@/points/points";
import { computed } from "vue";

/** Which points a panel shows: chosen ones, and those of a selection that grows by itself. */
const panel = defineModel<Panel>({ required: true });
const points = usePoints();
const places = usePlaces();
const choices = computed(() => points.all.map((point) => ({ id: point.id, label: labelOf(point) })));
const pointIds = computed({
  get: () => panel.value.pointIds,
  set: (ids) => (panel.value = { ...panel.value, pointIds: ids }),
});
const selects = computed({
  get: () => panel.value.selection !== null,
  set: (on) => {
    const first = places.places.find((place) => points.below(place.id).length);
    panel.value = { ...panel.value, selection: on && first ? { placeId: first.id } : null };
  },
});
const below = computed(() => points.below(panel.value.selection?.placeId ?? ""));
const quantities = computed(
  () => new Map(below.value.map((point) => [point.quantity as string, said(point.quantityTitle)] as const)),
);
const tags = computed(() => [...new Set(below.value.flatMap((point) => point.tags))].sort());
const assetKinds = computed(() => [
  ...new Set(below.value.flatMap((point) => places.byId.get(point.placeId)?.assetKind || [])),
]);
const count = computed(() => (panel.value.selection ? points.selected(panel.value.selection).length : 0));

function set(part: Partial<PointSelection>) {
  panel.value = { ...panel.value, selection: { ...(panel.value.selection ?? { placeId: "" }), ...part } };
}
</script>

<template>
  <el-form-item :label="t('Points')" for="panel-points">
    <el-select
      id="panel-points"
      v-model="pointIds"
      multiple
      filterable
      :aria-label="t('Points')"
      :placeholder="panel.selection ? t('no further ones') : panel.kind === 'alerts' ? t('all') : t('choose points')"
    >
      <el-option v-for="one in choices" :key="one.id" :value="one.id" :label="one.label" />
    </el-select>
  </el-form-item>
  <el-form-item>
    <el-checkbox v-model="selects">{{ t("All points of a place, new ones too") }}</el-checkbox>
  </el-form-item>
  <div v-if="panel.selection" class="selection">
    <el-form-item :label="t('Place')" for="panel-place">
      <el-select
        id="panel-place"
        :model-value="panel.selection.placeId"
        filterable
        :aria-label="t('Place')"
        @update:model-value="set({ placeId: $event, quantity: null, tag: null, assetKind: null })"
      >
        <el-option v-for="place in places.places" :key="place.id" :value="place.id" :label="places.label(place)" />
      </el-select>
    </el-form-item>
    <el-form-item :label="t('Only')" for="panel-quantity">
      <el-select
        id="panel-quantity"
        :model-value="panel.selection.quantity ?? ''"
        :aria-label="t('Only this quantity')"
        :empty-values="[undefined]"
        @update:model-value="set({ quantity: $event || null })"
      >
        <el-option value="" :label="t('all quantities')" />
        <el-option v-for="[id, name] in quantities" :key="id" :value="id" :label="name" />
      </el-select>
    </el-form-item>
    <el-form-item v-if="assetKinds.length" :label="t('Of assets')" for="panel-asset-kind">
      <el-select
        id="panel-asset-kind"
        :model-value="panel.selection.assetKind ?? ''"
        :aria-label="t('Only assets of this kind')"
        :empty-values="[undefined]"
        @update:model-value="set({ assetKind: $event || null })"
      >
        <el-option value="" :label="t('of every kind')" />
        <el-option v-for="kind in assetKinds" :key="kind" :value="kind" :label="kind" />
      </el-select>
    </el-form-item>
    <el-form-item v-if="tags.length" :label="t('With tag')" for="panel-tag">
      <el-select
        id="panel-tag"
        :model-value="panel.selection.tag ?? ''"
        :aria-label="t('Only with this tag')"
        :empty-values="[undefined]"
        @update:model-value="set({ tag: $event || null })"
      >
        <el-option value="" :label="t('any or none')" />
        <el-option v-for="tag in tags" :key="tag" :value="tag" :label="tag" />
      </el-select>
    </el-form-item>
    <p class="soft small">
      {{ t("{n} point now. | {n} points now.", { n: count }) }}
    </p>
  </div>
</template>

<style scoped>
.selection {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(200px, 1fr));
  gap: 0 1rem;
}
.selection p {
  grid-column: 1 / -1;
  margin: 0 0 0.75rem;
}
</style>
