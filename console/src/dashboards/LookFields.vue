<script setup lang="ts">
import type { Look, Panel } from "@/api/types";
import { computed, ref } from "vue";
import { wordsOf, wordsText } from "./words";

/** How a panel shows values, where that is not what the points say. Empty means the usual. */
const panel = defineModel<Panel>({ required: true });
const { offers, unit } = defineProps<{ offers: ("decimals" | "scale" | "words")[]; unit?: string }>();
const text = ref(wordsText(panel.value.look?.words ?? {}));
const read = computed(() => wordsOf(text.value));

function set(part: Partial<Look>) {
  const look = { ...panel.value.look, ...part };
  const usual =
    look.decimals == null && look.lowest == null && look.highest == null && !Object.keys(look.words ?? {}).length;
  panel.value = { ...panel.value, look: usual ? null : look };
}

function words(typed: string) {
  text.value = typed;
  if (!read.value.problem) {
    set({ words: read.value.words });
  }
}
</script>

<template>
  <div class="look">
    <el-form-item v-if="offers.includes('decimals')" label="Decimals" for="panel-decimals">
      <el-input-number
        id="panel-decimals"
        :model-value="panel.look?.decimals ?? undefined"
        :min="0"
        :max="6"
        :controls="false"
        placeholder="usual"
        @update:model-value="set({ decimals: $event ?? null })"
      />
    </el-form-item>
    <template v-if="offers.includes('scale')">
      <el-form-item :label="`Scale from${unit ? ` (${unit})` : ''}`" for="panel-lowest">
        <el-input-number
          id="panel-lowest"
          :model-value="panel.look?.lowest ?? undefined"
          :controls="false"
          placeholder="usual"
          @update:model-value="set({ lowest: $event ?? null })"
        />
      </el-form-item>
      <el-form-item label="to" for="panel-highest">
        <el-input-number
          id="panel-highest"
          :model-value="panel.look?.highest ?? undefined"
          :controls="false"
          placeholder="usual"
          @update:model-value="set({ highest: $event ?? null })"
        />
      </el-form-item>
    </template>
  </div>
  <el-form-item v-if="offers.includes('words')" label="Words for values, one a line" for="panel-words">
    <el-input
      id="panel-words"
      :model-value="text"
      type="textarea"
      :rows="2"
      placeholder="0 = shut"
      @update:model-value="words"
    />
    <p v-if="read.problem" class="problem small" role="alert">{{ read.problem }}</p>
  </el-form-item>
</template>

<style scoped>
.look {
  display: flex;
  flex-wrap: wrap;
  gap: 0 1rem;
}
.problem {
  color: var(--critical);
  margin: 0;
}
</style>
