<script setup lang="ts">
import { t } from "@/language";
import type { Panel } from "@/api/types";
import { usePlaces } from "@/places/places";
import { computed } from "vue";

/** The place whose picture a panel shows. */
const panel = defineModel<Panel>({ required: true });
const places = usePlaces();
const choices = computed(() => places.places.filter((place) => place.picture !== null));
</script>

<template>
  <el-form-item :label="t('Place')" for="panel-place">
    <el-select
      id="panel-place"
      :model-value="panel.selection?.placeId"
      filterable
      :aria-label="t('Place')"
      :placeholder="t('a place with a picture')"
      :no-data-text="t('No place has a picture yet. Add one on the page of a place.')"
      @update:model-value="panel = { ...panel, selection: { placeId: $event } }"
    >
      <el-option v-for="place in choices" :key="place.id" :value="place.id" :label="places.label(place)" />
    </el-select>
  </el-form-item>
</template>
