<script setup lang="ts">
import { said, t } from "@/language";
import { api } from "@/api/http";
import type { LimitQuestion, LimitSet } from "@/api/types";
import { useLoad } from "@/look/load";
import ProblemNote from "@/look/ProblemNote.vue";
import { usePlaces } from "@/places/places";
import { computed, nextTick, ref, useTemplateRef } from "vue";
import { averagingWords } from "./averaging";
import { answered } from "./questions";

/** Asks what a thing is, and ends at the limit sets that fit it, with the reasons. */
const { useLabel = t("Use these limits") } = defineProps<{ useLabel?: string }>();
const emit = defineEmits<{ close: []; found: [sets: LimitSet[]] }>();
const places = usePlaces();
const questions = useLoad(() => api.get<LimitQuestion[]>("limits/questions"));
const answers = ref<string[]>([]);
const way = computed(() => answered(questions.data.value ?? [], answers.value));
const sets = computed(() => way.value.sets?.flatMap((id) => places.limitsById.get(id) ?? []));
const heading = useTemplateRef("heading");

/** Focus goes along, so that a screen reader says the next question. */
async function go(to: string[]) {
  answers.value = to;
  await nextTick();
  heading.value?.focus();
}
</script>

<template>
  <el-dialog
    model-value
    :title="t('Find the limits that fit')"
    width="min(40rem, 94vw)"
    append-to-body
    @close="emit('close')"
  >
    <ProblemNote :error="questions.error.value" />
    <ol v-if="way.taken.length" class="taken">
      <li v-for="(step, i) in way.taken" :key="step.question.id">
        <span class="soft small">{{ said(step.question.text) }}</span>
        <el-button
          link
          type="primary"
          :aria-label="t('Change: {text}', { text: step.answer.text })"
          @click="go(answers.slice(0, i))"
          >{{ said(step.answer.text) }}</el-button
        >
      </li>
    </ol>
    <template v-if="way.next">
      <h3 ref="heading" tabindex="-1">{{ said(way.next.text) }}</h3>
      <p v-if="way.next.hint" class="soft small">{{ said(way.next.hint) }}</p>
      <div class="answers">
        <button v-for="one in way.next.answers" :key="one.id" type="button" @click="go([...answers, one.id])">
          {{ said(one.text) }}
        </button>
      </div>
    </template>
    <template v-else-if="sets">
      <h3 ref="heading" tabindex="-1">
        {{
          sets.length === 0
            ? t("No limits that ship fit")
            : sets.length === 1
              ? t("This limit set fits")
              : t("These fit")
        }}
      </h3>
      <ul class="found">
        <li v-for="set in sets" :key="set.id">
          <RouterLink :to="`/limits#${set.id}`" @click="emit('close')">{{ said(set.title) }}</RouterLink>
          <span class="soft small">
            · {{ t("compares the {averagingWords}", { averagingWords: averagingWords(set.averaging) }) }}</span
          >
        </li>
      </ul>
      <p v-for="reason in way.reasons" :key="reason" class="because">{{ said(reason) }}</p>
    </template>
    <template #footer>
      <el-button v-if="answers.length" @click="go(answers.slice(0, -1))">{{ t("Back") }}</el-button>
      <el-button @click="emit('close')">{{ t("Close") }}</el-button>
      <el-button v-if="sets?.length" type="primary" @click="emit('found', sets)">{{ useLabel }}</el-button>
    </template>
  </el-dialog>
</template>

<style scoped>
.taken {
  list-style: none;
  margin: 0 0 1rem;
  padding: 0 0 0.6rem;
  border-bottom: 1px solid var(--line);
}
.taken li {
  display: flex;
  flex-wrap: wrap;
  gap: 0 0.6rem;
  align-items: baseline;
}
.taken .el-button {
  white-space: normal;
  text-align: start;
  height: auto;
}
h3 {
  outline: none;
}
.answers {
  display: grid;
  gap: 0.4rem;
}
.answers button {
  min-height: 44px;
  padding: 0.5rem 0.8rem;
  border: 1px solid var(--line);
  border-radius: 4px;
  background: var(--paper);
  color: var(--ink);
  font: inherit;
  text-align: start;
  cursor: pointer;
}
.answers button:hover {
  border-color: var(--heather);
}
.found {
  margin: 0 0 0.6rem;
  padding-inline-start: 1.2rem;
}
.because {
  margin: 0.2rem 0;
}
</style>
