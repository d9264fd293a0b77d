<script setup lang="ts">
import { t } from "@/language";
import { api, Refusal } from "@/api/http";
import { onChanged } from "@/api/live";
import type { Dashboard, DashboardVersion, Panel, Point } from "@/api/types";
import { useAction } from "@/look/act";
import EmptyState from "@/look/EmptyState.vue";
import { useLoad } from "@/look/load";
import ProblemNote from "@/look/ProblemNote.vue";
import StarButton from "@/starred/StarButton.vue";
import { usePlaces } from "@/places/places";
import { usePoints } from "@/points/points";
import ComparePicker from "@/chart/ComparePicker.vue";
import { oneZone } from "@/chart/timeRange";
import ViewPicker from "@/chart/ViewPicker.vue";
import { useView } from "@/chart/view";
import { computed, defineAsyncComponent, ref, watch } from "vue";
import { onBeforeRouteLeave, useRouter } from "vue-router";
import DashboardGrid from "./DashboardGrid.vue";
import { useHistory } from "./history";
import { bottom, copyOf, durationOf, freshId } from "./layout";
import { merged } from "./merge";
import { KINDS } from "./panels/kinds";
import PanelForm from "./PanelForm.vue";
import ReportForm from "@/reports/ReportForm.vue";
import ShareDialog from "./ShareDialog.vue";
import VersionsMenu from "./VersionsMenu.vue";

/** A dashboard, looked at or edited. */
const { id } = defineProps<{ id: string }>();
const DashboardEditor = defineAsyncComponent(() => import("./DashboardEditor.vue"));
const points = usePoints();
const places = usePlaces();
const router = useRouter();
const { data: dashboard, error: problem, load } = useLoad(() => api.get<Dashboard>("dashboards/" + id));
watch(() => id, load);
const { busy, error, run } = useAction();

/** What is looked at, kept in the address so that a link opens just this view. */
const view = useView();
const seen = computed(() =>
  (dashboard.value?.panels ?? []).map((panel) =>
    view.hours.value && KINDS[panel.kind].range ? { ...panel, range: durationOf(view.hours.value) } : panel,
  ),
);

const looksBack = computed(() => dashboard.value?.panels.some((panel) => KINDS[panel.kind].range));

const { draft, canUndo, canRedo, begin: beginDraft, end, go, undo, redo } = useHistory<Panel[]>();
const name = ref("");
const panelForm = ref<{ panel?: Panel }>();
const sharing = ref(false);
const reporting = ref(false);
const changedElsewhere = ref(false);
/** After two versions were put together: the panels that both had changed. */
const joined = ref<string[]>();

onChanged(["registry"], async () => {
  if (draft.value === undefined) {
    await load();
  } else {
    const other = await api.get<Dashboard>("dashboards/" + id).catch(() => undefined);
    changedElsewhere.value = other !== undefined && other.version !== dashboard.value?.version;
  }
});

/** What a panel shows; while the page is narrowed, only what lies there. */
function pointsOf(panel: Panel): Point[] {
  const all = points.shown(panel);
  const only = draft.value ? "" : view.place.value;
  return only ? all.filter((point) => places.path(point.placeId).some((place) => place.id === only)) : all;
}

const timeZone = computed(() => oneZone((dashboard.value?.panels ?? []).flatMap(points.shown)));

/** The places to which the page can be narrowed: those that hold some of its points, but not all. */
const narrower = computed(() => {
  const all = new Set((dashboard.value?.panels ?? []).flatMap(points.shown));
  const counts = new Map<string, number>();
  all.forEach((point) =>
    places.path(point.placeId).forEach((place) => counts.set(place.id, (counts.get(place.id) ?? 0) + 1)),
  );
  return places.places.filter((place) => {
    const count = counts.get(place.id) ?? 0;
    return count > 0 && (count < all.size || place.id === view.place.value);
  });
});

/** Each step of editing can be taken back. */
const editing = computed({ get: () => draft.value ?? [], set: go });
const dirty = computed(() => draft.value !== undefined && (canUndo.value || name.value !== dashboard.value?.name));

function begin() {
  beginDraft(copyOf(dashboard.value?.panels ?? []));
  name.value = dashboard.value?.name ?? "";
  joined.value = undefined;
  changedElsewhere.value = false;
}

function duplicate(panel: Panel) {
  editing.value = [...editing.value, { ...copyOf(panel), id: freshId(), y: bottom(editing.value) }];
}

function put(panel: Panel) {
  const at = editing.value.findIndex((one) => one.id === panel.id);
  editing.value =
    at < 0
      ? [...editing.value, { ...panel, y: bottom(editing.value) }]
      : editing.value.map((one) =>
          one.id === panel.id ? { ...one, ...panel, x: one.x, y: one.y, w: one.w, h: one.h } : one,
        );
  panelForm.value = undefined;
}

/** Like any other step of editing, it can be taken back, and nothing is saved yet. */
function take(version: DashboardVersion) {
  editing.value = copyOf(version.panels);
  name.value = version.name;
}

async function save() {
  const base = dashboard.value;
  const ok = await run(async () => {
    dashboard.value = await api.put<Dashboard>("dashboards/" + id, {
      name: name.value,
      siteId: base?.siteId ?? null,
      panels: draft.value,
      version: base?.version,
    });
  }, t("Saved."));
  if (ok) {
    end();
    joined.value = undefined;
  } else if (error.value instanceof Refusal && error.value.status === 409) {
    await join();
  }
}

/** Puts what somebody else saved meanwhile together with the draft, to be looked at and saved. */
async function join() {
  const base = dashboard.value;
  const theirs = await api.get<Dashboard>("dashboards/" + id).catch(() => undefined);
  if (!base || !theirs || !draft.value || theirs.version === base.version) {
    return;
  }
  const { panels, both } = merged(base.panels, draft.value, theirs.panels);
  editing.value = panels;
  name.value = name.value === base.name ? theirs.name : name.value;
  dashboard.value = theirs;
  joined.value = both;
  changedElsewhere.value = false;
  error.value = undefined;
}

async function remove() {
  if (await run(() => api.remove("dashboards/" + id), t("The dashboard is removed."))) {
    end();
    await router.push("/dashboards");
  }
}

onBeforeRouteLeave(() => !dirty.value || window.confirm(t("Leave without saving what you changed?")));
</script>

<template>
  <div v-if="dashboard" class="page wide">
    <header class="page-head">
      <div>
        <p class="crumbs">
          <RouterLink to="/dashboards">{{ t("Dashboards") }}</RouterLink> ·
          {{
            t("Owner: {ownerName}{access}", {
              ownerName: dashboard.ownerName,
              access: dashboard.siteId
                ? t(". Visible to everyone with access to {place}", {
                    place: places.byId.get(dashboard.siteId)?.name ?? t("a site"),
                  })
                : t(", private"),
            })
          }}
        </p>
        <h1 v-if="!draft">{{ dashboard.name }}</h1>
        <el-input v-else v-model="name" :aria-label="t('Name of the dashboard')" size="large" />
      </div>
      <StarButton v-if="!draft" :page="{ kind: 'dashboard', of: id }" />
      <el-button v-if="!draft && dashboard.panels.length" @click="reporting = true">{{ t("Report") }}</el-button>
      <template v-if="!draft && dashboard.mayEdit">
        <el-button type="primary" @click="sharing = true">{{ t("Share") }}</el-button>
        <el-button @click="begin">{{ t("Edit") }}</el-button>
      </template>
      <template v-if="draft">
        <el-button @click="panelForm = {}">{{ t("Add a panel") }}</el-button>
        <VersionsMenu :dashboard="id" @take="take" />
        <el-button :disabled="!canUndo" @click="undo">{{ t("Undo") }}</el-button>
        <el-button :disabled="!canRedo" @click="redo">{{ t("Redo") }}</el-button>
        <el-button @click="end">{{ t("Discard") }}</el-button>
        <el-button type="primary" :loading="busy" @click="save">{{ t("Save") }}</el-button>
      </template>
    </header>
    <ProblemNote :error="error" />
    <div v-if="!draft && (looksBack || narrower.length)" class="view">
      <ViewPicker v-if="looksBack" :view="view" :time-zone="timeZone" own />
      <ComparePicker v-if="looksBack" v-model="view.before.value" />
      <label v-if="narrower.length" class="only">
        <span class="soft small">{{ t("Only") }}</span>
        <el-select v-model="view.place.value" filterable :aria-label="t('Only this place')" :empty-values="[undefined]">
          <el-option value="" :label="t('all places')" />
          <el-option v-for="place in narrower" :key="place.id" :value="place.id" :label="places.label(place)" />
        </el-select>
      </label>
    </div>
    <p v-if="draft && changedElsewhere" role="status">
      {{ t("Somebody else saved this dashboard meanwhile.") }}
      <el-button @click="join">{{ t("Take in their changes") }}</el-button>
    </p>
    <p v-if="draft && joined" role="status">
      {{ t("The changes of both are together now.") }}
      <template v-if="joined.length"
        >{{ t("You both changed {join}: yours is kept.", { join: joined.join(", ") }) }}
      </template>
      {{ t("Look it over, then save.") }}
    </p>
    <DashboardEditor
      v-if="draft"
      v-model="editing"
      :points-of="pointsOf"
      :limits="places.limitsById"
      @edit="panelForm = { panel: $event }"
      @duplicate="duplicate"
    />
    <DashboardGrid
      v-else-if="dashboard.panels.length"
      :panels="seen"
      :points-of="pointsOf"
      :limits="places.limitsById"
    />
    <section v-else class="sheet">
      <EmptyState :title="t('An empty dashboard')">{{ t("Press Edit, then add a panel.") }}</EmptyState>
    </section>
    <p v-if="draft">
      <el-button link @click="remove">{{ t("Remove this dashboard and its links") }}</el-button>
    </p>
    <PanelForm v-if="panelForm" :panel="panelForm.panel" @save="put" @close="panelForm = undefined" />
    <ReportForm
      v-if="reporting"
      :of="`dashboards/${id}`"
      :name="dashboard.name"
      :may-edit="dashboard.mayEdit"
      @close="reporting = false"
    />
    <ShareDialog v-if="sharing" :dashboard="dashboard" @close="sharing = false" />
  </div>
  <div v-else-if="problem" class="page">
    <ProblemNote :error="problem" />
    <p>
      <RouterLink to="/dashboards">{{ t("All dashboards") }}</RouterLink>
    </p>
  </div>
</template>

<style scoped>
.view {
  display: flex;
  flex-wrap: wrap;
  gap: 0.5rem 1.5rem;
  align-items: center;
}
.only {
  display: inline-flex;
  align-items: center;
  gap: 0.5rem;
}
.only .el-select {
  width: 15rem;
}
.wide {
  max-width: 1800px;
}
</style>
