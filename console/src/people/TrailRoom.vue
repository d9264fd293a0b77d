<script setup lang="ts">
import { said, t } from "@/language";
import { api } from "@/api/http";
import type { TrailEntry } from "@/api/types";
import { moment } from "@/look/clock";
import { usePages } from "@/look/pages";
import ProblemNote from "@/look/ProblemNote.vue";
import { computed, reactive, watch } from "vue";
import { useRoute } from "vue-router";

/** Who changed what, the newest first. */
const PAGE = 100;
const KINDS = [
  "sign-in",
  "token",
  "password",
  "person",
  "grant",
  "rule",
  "limit-set",
  "point",
  "device",
  "device-model",
  "gateway",
  "inlet",
  "outlet",
  "site",
  "area",
  "asset",
  "assignment",
  "dashboard",
  "share-link",
  "pack",
];
const route = useRoute();
const wanted = reactive({ person: "", kind: "", id: String(route.query.id ?? ""), days: null as [Date, Date] | null });
const query = computed(() => {
  const params = new URLSearchParams();
  for (const name of ["person", "kind", "id"] as const) {
    if (wanted[name]) {
      params.set(name, wanted[name]);
    }
  }
  if (wanted.days) {
    params.set("since", wanted.days[0].toISOString());
    params.set("until", new Date(wanted.days[1].getTime() + 86_400_000).toISOString());
  }
  return params.toString();
});

const {
  items: entries,
  more,
  busy,
  error,
  load,
} = usePages<TrailEntry>(PAGE, (after) =>
  api.get<TrailEntry[]>(
    `trail?limit=${PAGE}${after ? "&after=" + after.number : ""}${query.value ? "&" + query.value : ""}`,
  ),
);
watch(query, () => load(), { immediate: true });

/** A sign-in says what it was; of a thing that was changed, which parts are other ones now. */
function whatWas(entry: TrailEntry): string {
  const deed = ["sign-in", "token", "password"].includes(entry.kind);
  const what = said(entry.kind.replace(/-/g, " "));
  const parts = entry.action === "changed" ? ": " + Object.keys(entry.changes).join(", ") : "";
  return deed ? `${what}: ${said(entry.action)}` : `${said(entry.action)} ${what} ${entry.name}${parts}`;
}

function shown(value: unknown): string {
  if (value === null || value === undefined) {
    return t("nothing");
  }
  const text = typeof value === "object" ? JSON.stringify(value) : String(value);
  return text.length > 200 ? text.slice(0, 200) + " …" : text;
}
</script>

<template>
  <div class="page">
    <header class="page-head">
      <h1>{{ t("Audit trail") }}</h1>
      <a class="export" :href="`/api/v1/trail/export?${query}`" download="trail.csv">{{ t("Export as CSV") }}</a>
    </header>
    <section class="sheet filters">
      <el-input v-model.lazy="wanted.person" clearable :placeholder="t('Anybody')" :aria-label="t('Person')" />
      <el-select
        v-model="wanted.kind"
        clearable
        filterable
        :placeholder="t('Everything')"
        :aria-label="t('Kind of thing')"
      >
        <el-option v-for="kind in KINDS" :key="kind" :value="kind" :label="said(kind.replace('-', ' '))" />
      </el-select>
      <el-date-picker
        v-model="wanted.days"
        type="daterange"
        :start-placeholder="t('From')"
        :end-placeholder="t('To')"
      />
      <el-button v-if="wanted.id" link @click="wanted.id = ''">{{ t("Filtered to one item: show all") }}</el-button>
    </section>
    <ProblemNote :error="error" />
    <section class="sheet">
      <details v-for="entry in entries" :key="entry.number" class="entry">
        <summary>
          <span class="when">{{ moment(entry.at) }}</span>
          <span
            ><strong>{{ entry.person || t("somebody unknown") }}</strong>
            <span class="soft small source">{{ entry.source }}</span></span
          >
          <span>{{ whatWas(entry) }}</span>
        </summary>
        <dl v-if="Object.keys(entry.changes).length">
          <template v-for="(difference, part) in entry.changes" :key="part">
            <dt>{{ part }}</dt>
            <dd>
              <template v-if="entry.action === 'changed'"
                ><span class="soft">{{ shown(difference.before) }}</span> → </template
              >{{ shown(entry.action === "removed" ? difference.before : difference.after) }}
            </dd>
          </template>
        </dl>
        <p v-else class="soft">{{ t("No further details.") }}</p>
        <el-button v-if="entry.id && wanted.id !== entry.id" link @click="wanted.id = entry.id">{{
          t("Show all changes of this item")
        }}</el-button>
      </details>
      <p v-if="entries && !entries.length" class="soft">{{ t("No matching entries.") }}</p>
      <p v-if="!entries && !error" class="soft">{{ t("Loading …") }}</p>
      <el-button v-if="more" :loading="busy" @click="load(true)">{{ t("Load older entries") }}</el-button>
    </section>
  </div>
</template>

<style scoped>
.filters {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(11rem, 1fr));
  gap: 0.5rem;
  align-items: center;
}
.entry {
  border-top: 1px solid var(--line);
}
.entry:first-child {
  border-top: 0;
}
.source {
  margin-left: 0.5rem;
}
.filters :deep(.el-date-editor) {
  width: auto;
  min-width: 0;
}
summary::after {
  content: "›";
  color: var(--ink-soft);
  justify-self: end;
}
.entry[open] summary::after {
  transform: rotate(90deg);
}
summary {
  display: grid;
  grid-template-columns: 10rem minmax(8rem, 14rem) minmax(0, 1fr) 1rem;
  gap: 0 1rem;
  padding: 0.5rem 0;
  min-height: 2.5rem;
  align-items: center;
  cursor: pointer;
}
dl {
  display: grid;
  grid-template-columns: max-content minmax(0, 1fr);
  gap: 0.25rem 1rem;
  margin: 0 0 0.75rem 1rem;
}
dt {
  color: var(--ink-soft);
}
dd {
  margin: 0;
  overflow-wrap: anywhere;
}
@media (max-width: 640px) {
  summary {
    grid-template-columns: minmax(0, 1fr) 1rem;
    gap: 0.125rem;
  }
  summary > span {
    grid-column: 1;
  }
  summary::after {
    grid-area: 1 / 2;
  }
}
</style>
