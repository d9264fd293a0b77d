<script setup lang="ts">
import { t } from "@/language";
import { api } from "@/api/http";
import type { PointField, PointRow, PointRowView } from "@/api/types";
import { useAction } from "@/look/act";
import EmptyState from "@/look/EmptyState.vue";
import { useLoad } from "@/look/load";
import ProblemNote from "@/look/ProblemNote.vue";
import { usePlaces } from "@/places/places";
import { computed, reactive, ref, shallowRef, useTemplateRef, watch } from "vue";
import { onBeforeRouteLeave } from "vue-router";
import PointTableChanges from "./PointTableChanges.vue";
import { usePoints } from "./points";
import { cellOf, COLUMNS, filled, found, typed, undoing, wished, type Draft } from "./table";

/** The points of a place as a table: many are changed at once, looked at before, and taken back after. */
const { id } = defineProps<{ id: string }>();
const ON_A_PAGE = 50;
const places = usePlaces();
const points = usePoints();
const { data: rows, error: problem, load } = useLoad(() => api.get<PointRow[]>("points/table?place=" + id));
watch(() => id, load);
const { busy, error, run } = useAction();
const draft = shallowRef<Draft>(new Map());
const words = ref("");
const page = ref(1);
const fill = reactive({ field: "tags" as PointField, part: "", text: "" });
const plan = ref<PointRowView[]>();
const done = ref<PointRowView[]>();
const file = useTemplateRef<HTMLInputElement>("file");

const place = computed(() => places.byId.get(id));
const shown = computed(() => found(rows.value ?? [], draft.value, words.value));
const onPage = computed(() => shown.value.slice((page.value - 1) * ON_A_PAGE, page.value * ON_A_PAGE));
watch(words, () => (page.value = 1));
const paths = computed(() =>
  places.editable.map((one) =>
    places
      .path(one.id)
      .map((part) => part.name)
      .join(" > "),
  ),
);

function type(row: PointRow, field: PointField, text: string) {
  draft.value = typed(draft.value, row, field, text);
}

function fillShown() {
  draft.value = filled(draft.value, shown.value, fill.field, fill.part, fill.text);
}

async function look() {
  await run(async () => {
    plan.value = await api.put<PointRowView[]>("points/table?dryRun=true", wished(draft.value));
  });
}

/** What stands in a file is looked at like what was typed. */
async function take() {
  const chosen = file.value?.files?.[0];
  if (!chosen) {
    return;
  }
  await run(async () => {
    plan.value = await api.putCsv<PointRowView[]>("points/table?dryRun=true", await chosen.text());
    draft.value = new Map(
      plan.value
        .filter((row) => row.changed.length)
        .map((row) => [row.id, Object.fromEntries(row.changed.map((cell) => [cell.field, cell.after]))]),
    );
  });
  file.value!.value = "";
}

async function put(wish: { rows: PointRow[] }): Promise<boolean> {
  const ok = await run(async () => {
    done.value = await api.put<PointRowView[]>("points/table", wish);
    draft.value = new Map();
    await Promise.all([load(), points.load()]);
  });
  plan.value = undefined;
  return ok;
}

async function undo() {
  if (done.value && (await put(undoing(done.value)))) {
    done.value = undefined;
  }
}

onBeforeRouteLeave(() => !draft.value.size || window.confirm(t("Leave without saving what you changed?")));
</script>

<template>
  <div class="page wide">
    <header class="page-head">
      <div>
        <p class="crumbs">
          <RouterLink :to="'/places/' + id">{{ place?.name ?? t("Place") }}</RouterLink>
        </p>
        <h1>{{ t("Points as a table") }}</h1>
      </div>
      <a class="el-button" :href="`/api/v1/points/table/export?place=${id}`" download>{{ t("Export CSV") }}</a>
      <el-button @click="file?.click()">{{ t("Import CSV") }}</el-button>
      <input ref="file" type="file" accept=".csv,text/csv" hidden @change="take" />
      <el-button :disabled="!draft.size" @click="draft = new Map()">{{ t("Discard") }}</el-button>
      <el-button type="primary" :disabled="!draft.size" :loading="busy" @click="look">{{
        t("See what changes")
      }}</el-button>
    </header>
    <ProblemNote :error="problem ?? error" />
    <p v-if="done" class="done" role="status">
      {{ t("{length} points are changed.", { length: done.filter((row) => row.changed.length).length }) }}
      <el-button size="small" :loading="busy" @click="undo">{{ t("Undo") }}</el-button>
    </p>
    <section v-if="rows?.length" class="sheet stack">
      <div class="row tools">
        <el-input v-model="words" clearable :placeholder="t('Find rows')" :aria-label="t('Find rows')" class="find" />
        <form class="row" @submit.prevent="fillShown">
          <span class="soft small">{{ t("In {shown} rows, in", { shown: shown.length }) }}</span>
          <el-select v-model="fill.field" :aria-label="t('Column')" class="column">
            <el-option v-for="one in COLUMNS" :key="one.field" :value="one.field" :label="one.title" />
          </el-select>
          <el-input
            v-model="fill.part"
            :placeholder="t('all of it')"
            :aria-label="t('Replace this part')"
            class="part"
          />
          <span class="soft small">{{ t("becomes") }}</span>
          <el-input v-model="fill.text" :placeholder="t('nothing')" :aria-label="t('By this')" class="part" />
          <el-button native-type="submit">{{ t("Fill in") }}</el-button>
        </form>
      </div>
      <div class="scrolled">
        <table>
          <thead>
            <tr>
              <th v-for="one in COLUMNS" :key="one.field">{{ one.title }}</th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="row in onPage" :key="row.id">
              <td v-for="{ field, title, rem } in COLUMNS" :key="field" :style="{ minWidth: rem + 'rem' }">
                <select
                  v-if="field === 'released'"
                  :value="cellOf(draft, row, field)"
                  :aria-label="`${title}: ${row.cells?.name}`"
                  :class="{ changed: draft.get(row.id)?.[field] !== undefined }"
                  @change="type(row, field, ($event.target as HTMLSelectElement).value)"
                >
                  <option>{{ t("yes") }}</option>
                  <option>{{ t("no") }}</option>
                </select>
                <input
                  v-else
                  :value="cellOf(draft, row, field)"
                  :aria-label="`${title}: ${row.cells?.name}`"
                  :list="field === 'place' ? 'places' : field === 'limits' ? 'limit-sets' : undefined"
                  :class="{ changed: draft.get(row.id)?.[field] !== undefined }"
                  @input="type(row, field, ($event.target as HTMLInputElement).value)"
                />
              </td>
            </tr>
          </tbody>
        </table>
      </div>
      <datalist id="places"><option v-for="path in paths" :key="path" :value="path" /></datalist>
      <datalist id="limit-sets">
        <option v-for="set in places.limits" :key="set.id" :value="set.title" />
      </datalist>
      <el-pagination
        v-if="shown.length > ON_A_PAGE"
        v-model:current-page="page"
        layout="prev, pager, next, total"
        :page-size="ON_A_PAGE"
        :total="shown.length"
      />
    </section>
    <section v-else-if="rows" class="sheet">
      <EmptyState :title="t('No points to change')">{{
        t("Here are no points, or none that you may change.")
      }}</EmptyState>
    </section>
    <PointTableChanges
      v-if="plan"
      :rows="plan"
      :busy="busy"
      :error="error"
      @save="put(wished(draft))"
      @close="plan = undefined"
    />
  </div>
</template>

<style scoped>
.wide.page {
  max-width: 1800px;
}
.tools {
  justify-content: space-between;
}
.find {
  width: 14rem;
}
.column {
  width: 9rem;
}
.part {
  width: 9rem;
}
.scrolled {
  overflow-x: auto;
}
table {
  border-collapse: collapse;
  width: 100%;
}
th {
  text-align: left;
  font-weight: 640;
  padding: 0.25rem 0.4rem;
}
td {
  padding: 1px;
}
td:first-child {
  position: sticky;
  left: 0;
  background: var(--sheet);
}
a.el-button {
  text-decoration: none;
}
td input,
td select {
  width: 100%;
  min-height: 34px;
  padding: 0.2rem 0.4rem;
  border: 1px solid var(--line);
  border-radius: 3px;
  background: var(--sheet);
  color: inherit;
  font: inherit;
}
.changed {
  border-color: var(--heather) !important;
  box-shadow: inset 3px 0 0 var(--heather);
}
.done {
  display: flex;
  align-items: center;
  gap: 0.75rem;
  margin: 0;
}
</style>
