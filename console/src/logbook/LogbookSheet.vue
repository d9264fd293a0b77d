<script setup lang="ts">
import { t } from "@/language";
import { api } from "@/api/http";
import type { LogEntry } from "@/api/types";
import type { ChartMark } from "@/chart/lineOption";
import { useAction } from "@/look/act";
import { moment } from "@/look/clock";
import ProblemNote from "@/look/ProblemNote.vue";
import { usePlaces } from "@/places/places";
import { computed, ref } from "vue";
import EntryForm from "./EntryForm.vue";
import { threads } from "./logbook";

/** What people wrote about a place or a point: read, written, answered, changed, removed. */
const {
  entries,
  problem,
  placeId,
  pointId,
  marks = [],
} = defineProps<{
  entries: LogEntry[] | undefined;
  problem?: unknown;
  placeId: string;
  pointId?: string;
  /** Those that have a mark in the page's chart. */
  marks?: ChartMark[];
}>();
const emit = defineEmits<{ changed: [] }>();
const places = usePlaces();
const { error, run } = useAction();
const SHOWN = 5;
const all = ref(false);
const writing = ref(false);
const answering = ref<LogEntry>();
const changing = ref<LogEntry>();
const removed = ref<LogEntry>();
const zone = computed(() => places.zoneOf(placeId));
const mayWrite = computed(() => places.may("operate", placeId));
const found = computed(() => threads(entries ?? []));
const shown = computed(() => (all.value ? found.value : found.value.slice(0, SHOWN)));
const labels = computed(() => new Map(marks.map((mark) => [mark.id, mark.label])));

function about(entry: LogEntry): string {
  const place = entry.placeId === placeId ? "" : (entry.path.at(-1) ?? "");
  return [place, entry.pointId === pointId ? "" : entry.pointName].filter(Boolean).join(", ");
}

async function remove(entry: LogEntry) {
  if (await run(() => api.remove("logbook/" + entry.id))) {
    removed.value = entry;
    emit("changed");
  }
}

async function restore(entry: LogEntry) {
  if (await run(() => api.post(`logbook/${entry.id}/undo`))) {
    removed.value = undefined;
    emit("changed");
  }
}

function closed(written: boolean) {
  writing.value = false;
  answering.value = undefined;
  changing.value = undefined;
  if (written) {
    emit("changed");
  }
}
</script>

<template>
  <section class="sheet">
    <div class="sheet-head">
      <h2>{{ t("Logbook") }}</h2>
      <el-button v-if="mayWrite" @click="writing = true">{{ t("Write entry …") }}</el-button>
    </div>
    <ProblemNote :error="problem ?? error" />
    <p v-if="removed" class="row" role="status">
      {{ t("The entry of {person} is removed.", { person: removed.person }) }}
      <el-button link type="primary" @click="restore(removed)">{{ t("Undo") }}</el-button>
    </p>
    <p v-if="entries && !found.length" class="soft">
      {{ t("No entries yet. What was found and done here is kept with its time, and marked in charts.") }}
    </p>
    <ol>
      <li v-for="{ entry, answers } in shown" :key="entry.id">
        <article v-for="one in [entry, ...answers]" :key="one.id" :class="{ answer: one !== entry }">
          <p class="small soft head">
            <span
              v-if="labels.get(one.id)"
              class="mark"
              :title="t('Mark {get} in the chart', { get: labels.get(one.id) })"
              >{{ labels.get(one.id) }}</span
            >
            <time :datetime="one.at">{{ moment(one === entry ? one.at : one.writtenAt, zone) }}</time>
            <strong>{{ one.person }}</strong>
            <span v-if="about(one)">{{ about(one) }}</span>
            <span v-if="one.changedAt">{{ t("changed {moment}", { moment: moment(one.changedAt, zone) }) }}</span>
          </p>
          <p class="text">{{ one.text }}</p>
          <p v-if="mayWrite" class="actions">
            <el-button link type="primary" @click="answering = one">{{ t("Answer") }}</el-button>
            <el-button v-if="one.own" link type="primary" @click="changing = one">{{ t("Change") }}</el-button>
            <el-button
              v-if="one.own || places.may('manage', one.placeId)"
              link
              type="primary"
              :aria-label="
                t('Remove the entry of {person}, {moment}', { person: one.person, moment: moment(one.at, zone) })
              "
              @click="remove(one)"
              >{{ t("Remove") }}</el-button
            >
          </p>
        </article>
      </li>
    </ol>
    <el-button v-if="!all && found.length > SHOWN" link type="primary" @click="all = true">{{
      t("Show all {found}", { found: found.length })
    }}</el-button>
    <EntryForm
      v-if="writing || answering || changing"
      :place-id="(answering ?? changing)?.placeId ?? placeId"
      :point-id="answering || changing ? undefined : pointId"
      :answers="answering"
      :entry="changing"
      @close="closed"
    />
  </section>
</template>

<style scoped>
ol {
  list-style: none;
  margin: 0;
  padding: 0;
}
li {
  padding: 0.6rem 0;
  border-top: 1px solid var(--line);
}
li:first-child {
  border-top: 0;
}
.head {
  display: flex;
  flex-wrap: wrap;
  gap: 0.15rem 0.75rem;
  margin: 0;
}
.mark {
  min-width: 1.35rem;
  padding: 0 0.3rem;
  border: 1px solid var(--ink-soft);
  border-radius: 0.7rem;
  color: var(--ink);
  text-align: center;
}
.text {
  margin: 0.15rem 0 0;
  white-space: pre-line;
  overflow-wrap: anywhere;
}
.actions {
  margin: 0;
}
.answer {
  margin: 0.5rem 0 0 1.25rem;
  padding-left: 0.75rem;
  border-left: 2px solid var(--line);
}
</style>
