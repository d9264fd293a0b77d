<script setup lang="ts">
import { t } from "@/language";
import { api } from "@/api/http";
import { useAction } from "@/look/act";
import ProblemNote from "@/look/ProblemNote.vue";
import { usePlaces } from "@/places/places";
import { computed, ref, watch } from "vue";
import type { ViewProps } from "../view";
import { entryOf, keep, kept } from "./round";

/** Steps to go through: ticked off one by one, and then written into the logbook of the place. */
const { panel, open } = defineProps<ViewProps<"guidance">>();
const places = usePlaces();
const steps = computed(() => panel.steps ?? []);
const done = ref<boolean[]>([]);
const remark = ref("");
const { busy, error, run } = useAction();
watch(
  () => [panel.id, steps.value.length] as const,
  ([id, count]) => (done.value = kept(id, count, Date.now())),
  { immediate: true },
);
const placeId = computed(() => panel.selection?.placeId ?? "");
const mayWrite = computed(() => !open && places.may("operate", placeId.value));
const count = computed(() => done.value.filter(Boolean).length);

function ticked() {
  keep(panel.id, done.value, Date.now());
}

function begin() {
  done.value = steps.value.map(() => false);
  remark.value = "";
  ticked();
}

async function write() {
  const text = entryOf(panel.title, steps.value, done.value, remark.value);
  if (await run(() => api.post("logbook", { placeId: placeId.value, text }), t("Written into the logbook."))) {
    begin();
  }
}
</script>

<template>
  <ol class="steps">
    <li v-for="(step, at) in steps" :key="at" :class="{ done: done[at] }">
      <label v-if="mayWrite"><input v-model="done[at]" type="checkbox" @change="ticked" /> {{ step }}</label>
      <template v-else>{{ step }}</template>
    </li>
  </ol>
  <p v-if="!steps.length" class="soft">{{ t("No steps are written yet.") }}</p>
  <form v-if="mayWrite && count" class="stack" @submit.prevent="write">
    <el-input
      v-model="remark"
      :placeholder="t('What you noticed (optional)')"
      :aria-label="t('What you noticed')"
      maxlength="2000"
    />
    <ProblemNote :error="error" />
    <div class="row">
      <el-button type="primary" native-type="submit" :loading="busy">{{
        t("Write into the logbook ({count} of {steps})", { count, steps: steps.length })
      }}</el-button>
      <el-button @click="begin">{{ t("Begin anew") }}</el-button>
    </div>
  </form>
</template>

<style scoped>
.steps {
  margin: 0 0 0.5rem;
  padding-left: 1.6rem;
}
.steps label {
  display: inline-flex;
  gap: 0.5rem;
  align-items: center;
  min-height: 32px;
  cursor: pointer;
}
.steps input {
  width: 1.1rem;
  height: 1.1rem;
  accent-color: var(--moss);
}
.done {
  color: var(--ink-soft);
}
</style>
