<script setup lang="ts">
import { t } from "@/language";
import type { Look, Panel } from "@/api/types";
import DecimalsField from "@/points/DecimalsField.vue";
import WordsField from "@/points/WordsField.vue";

/** How a panel shows values, where that is not what the points say. Empty means the usual. */
const panel = defineModel<Panel>({ required: true });
const { offers, unit } = defineProps<{ offers: ("decimals" | "scale" | "words")[]; unit?: string }>();

function set(part: Partial<Look>) {
  const look = { ...panel.value.look, ...part };
  const usual =
    look.decimals == null && look.lowest == null && look.highest == null && !Object.keys(look.words ?? {}).length;
  panel.value = { ...panel.value, look: usual ? null : look };
}
</script>

<template>
  <div class="look">
    <DecimalsField
      v-if="offers.includes('decimals')"
      id="panel-decimals"
      :model-value="panel.look?.decimals ?? null"
      @update:model-value="set({ decimals: $event })"
    />
    <template v-if="offers.includes('scale')">
      <el-form-item :label="t('Scale from{unit}', { unit: unit ? ` (${unit})` : '' })" for="panel-lowest">
        <el-input-number
          id="panel-lowest"
          :model-value="panel.look?.lowest ?? undefined"
          :controls="false"
          :placeholder="t('usual')"
          @update:model-value="set({ lowest: $event ?? null })"
        />
      </el-form-item>
      <el-form-item :label="t('to')" for="panel-highest">
        <el-input-number
          id="panel-highest"
          :model-value="panel.look?.highest ?? undefined"
          :controls="false"
          :placeholder="t('usual')"
          @update:model-value="set({ highest: $event ?? null })"
        />
      </el-form-item>
    </template>
  </div>
  <WordsField
    v-if="offers.includes('words')"
    id="panel-words"
    :model-value="panel.look?.words ?? {}"
    @update:model-value="set({ words: $event })"
  />
</template>

<style scoped>
.look {
  display: flex;
  flex-wrap: wrap;
  gap: 0 1rem;
}
</style>
