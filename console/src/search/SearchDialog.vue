<script setup lang="ts">
import { t } from "@/language";
import { api } from "@/api/http";
import type { Found } from "@/api/types";
import { useAction } from "@/look/act";
import ProblemNote from "@/look/ProblemNote.vue";
import { computed, ref, useTemplateRef, watch } from "vue";
import { useRouter } from "vue-router";
import { useAlerts } from "@/alerts/alerts";
import { alertsFor, hitOf, pagesFor } from "./found";
import { lately } from "./recent";

/** Finds places, points, devices, rules, dashboards, limits, people, alerts and pages from anywhere; by keyboard too. */
const emit = defineEmits<{ close: [] }>();
const router = useRouter();
const text = ref("");
const field = useTemplateRef<{ focus: () => void }>("field");
const found = ref<Found[]>([]);
/** For which text what is found was found. */
const answered = ref("");
const at = ref(0);
const { error, run } = useAction();
const alerts = useAlerts();
const recent = lately();
const hits = computed(() =>
  text.value.trim()
    ? [...found.value.map(hitOf), ...pagesFor(text.value), ...alertsFor(text.value, alerts.open)]
    : recent,
);
const nothing = computed(
  () =>
    answered.value &&
    answered.value === text.value.trim() &&
    !error.value &&
    !found.value.length &&
    hits.value.length < 2,
);
let waiting: number | undefined;

watch(text, (typed) => {
  window.clearTimeout(waiting);
  waiting = window.setTimeout(() => void look(typed.trim()), 150);
});

async function look(typed: string) {
  await run(async () => {
    const answer = typed ? await api.get<Found[]>("search?text=" + encodeURIComponent(typed)) : [];
    if (typed === text.value.trim()) {
      found.value = answer;
      answered.value = typed;
      at.value = 0;
    }
  });
}

function move(by: number) {
  at.value = Math.min(Math.max(0, at.value + by), Math.max(0, hits.value.length - 1));
  document.getElementById("hit-" + at.value)?.scrollIntoView?.({ block: "nearest" });
}

async function open(index: number) {
  const hit = hits.value[index];
  if (hit) {
    emit("close");
    await router.push(hit.to);
  }
}
</script>

<template>
  <el-dialog
    model-value
    :title="t('Search')"
    width="min(620px, 94vw)"
    top="8vh"
    @open-auto-focus="field?.focus()"
    @opened="field?.focus()"
    @close="emit('close')"
  >
    <el-input
      ref="field"
      v-model="text"
      clearable
      role="combobox"
      :aria-label="t('Search')"
      aria-controls="hits"
      :aria-expanded="hits.length > 0"
      :aria-activedescendant="hits.length ? 'hit-' + at : undefined"
      :placeholder="t('Name, place, or number on the label')"
      @keydown.down.prevent="move(1)"
      @keydown.up.prevent="move(-1)"
      @keydown.enter.prevent="open(at)"
    />
    <ProblemNote :error="error" />
    <p v-if="!text.trim() && recent.length" class="soft small lately">{{ t("Opened lately") }}</p>
    <ul v-if="hits.length" id="hits" role="listbox" :aria-label="t('Found')">
      <li
        v-for="(hit, index) in hits"
        :id="'hit-' + index"
        :key="hit.key"
        role="option"
        :aria-selected="index === at"
        :class="{ at: index === at }"
        @click="open(index)"
        @mousemove="at = index"
      >
        <span class="title">{{ hit.title }}</span>
        <span class="soft small">{{ hit.what }}</span>
        <span class="where soft small">{{ hit.where }}</span>
      </li>
    </ul>
    <p v-if="nothing" class="soft">
      {{ t("Nothing found for “{answered}”. Only what you may see is searched.", { answered }) }}
    </p>
  </el-dialog>
</template>

<style scoped>
.lately {
  margin: 0.75rem 0 0;
}
ul {
  list-style: none;
  margin: 0.75rem 0 0;
  padding: 0;
  max-height: 60vh;
  overflow: auto;
}
li {
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto;
  gap: 0 1rem;
  padding: 0.5rem 0.6rem;
  border-radius: var(--radius);
  cursor: pointer;
  min-height: 44px;
  align-content: center;
}
li.at {
  background: var(--moss-soft);
}
.title {
  overflow-wrap: anywhere;
}
.where:not(:empty) {
  grid-column: 1 / -1;
}
</style>
