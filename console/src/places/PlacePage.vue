<script setup lang="ts">
import { said, t } from "@/language";
import { api } from "@/api/http";
import { onLive } from "@/api/live";
import type { Alert, Point, StarterRules } from "@/api/types";
import AlertCards from "@/alerts/AlertCards.vue";
import AlertRows from "@/alerts/AlertRows.vue";
import { useAlerts } from "@/alerts/alerts";
import RuleForm from "@/alerts/RuleForm.vue";
import StarterRulesForm from "@/alerts/StarterRulesForm.vue";
import PointsChart from "@/chart/PointsChart.vue";
import { rangeQuery, words } from "@/chart/timeRange";
import { useView } from "@/chart/view";
import ViewPicker from "@/chart/ViewPicker.vue";
import { marksOf, notesUntil, useLogbook } from "@/logbook/logbook";
import LogbookSheet from "@/logbook/LogbookSheet.vue";
import { useAction } from "@/look/act";
import EmptyState from "@/look/EmptyState.vue";
import FenceMark from "@/look/FenceMark.vue";
import { useLoad } from "@/look/load";
import LinkedText from "@/look/LinkedText.vue";
import ProblemNote from "@/look/ProblemNote.vue";
import StarButton from "@/starred/StarButton.vue";
import { byHeadroom } from "@/look/reading";
import { asRead } from "@/look/units";
import AccessDialog from "@/people/AccessDialog.vue";
import BaselineForm from "@/points/BaselineForm.vue";
import PointForm from "@/points/PointForm.vue";
import PointRows from "@/points/PointRows.vue";
import { usePoints } from "@/points/points";
import StateSortForm from "@/points/StateSortForm.vue";
import ReportForm from "@/reports/ReportForm.vue";
import { computed, ref, watch } from "vue";
import { useRouter } from "vue-router";
import PlanSheet from "@/plans/PlanSheet.vue";
import AssetDirections from "./AssetDirections.vue";
import HolidaysForm from "./HolidaysForm.vue";
import PlaceForm from "./PlaceForm.vue";
import { usePlaces } from "./places";
import PlaceTree from "./PlaceTree.vue";

/** The page of a site, area or asset, made by itself from what belongs to it. */
const { id } = defineProps<{ id: string }>();
const places = usePlaces();
const points = usePoints();
const alerts = useAlerts();
const router = useRouter();
const view = useView(24);
type Form =
  | "place"
  | "below"
  | "point"
  | "derived"
  | "rule"
  | "starter"
  | "baseline"
  | "access"
  | "report"
  | "holidays"
  | "states";
const open = ref<Form | "">("");
const { error, run } = useAction();

const place = computed(() => places.byId.get(id));
const own = computed(() => points.ofPlace(id));
const below = computed(() => points.below(id).sort(byHeadroom));
const mayEdit = computed(() => places.may("edit", id));
const here = computed(() => alerts.open.filter((alert) => places.path(alert.placeId).some((one) => one.id === id)));
const limitSets = computed(() =>
  [...new Set(own.value.map((point) => point.limitSet))].flatMap((set) => places.limitsById.get(set ?? "") ?? []),
);

const past = useLoad(() => api.get<Alert[]>(`alerts?state=all&limit=20&place=${id}`));
onLive("alert", past.load);
watch(() => id, past.load);

/** Rules that nobody made yet for what is measured here. */
const starter = useLoad(async () =>
  place.value?.kind === "asset" && mayEdit.value && own.value.length
    ? api.get<StarterRules>(`assets/${id}/starter-rules`)
    : null,
);
watch([() => id, mayEdit, () => own.value.length], starter.load);
const proposals = computed(() => starter.data.value?.proposals ?? []);

async function adopted(saved: boolean) {
  open.value = "";
  if (saved) {
    await starter.load();
  }
}

const logbook = useLogbook(() => "place=" + id + notesUntil(view.chosen.value));
const marks = computed(() =>
  marksOf(
    (logbook.data.value ?? []).filter((entry) => entry.placeId === id),
    view.current().from,
  ),
);

/** Points of one quantity, side by side if they are directions of one machine. */
const directions = computed(() => own.value.filter((point) => point.direction !== null));
const groups = computed(() => {
  const found = new Map<string, Point[]>();
  own.value
    .filter((point) => point.formula?.kind !== "while")
    .forEach((point) => found.set(point.quantity, [...(found.get(point.quantity) ?? []), point]));
  return [...found.values()];
});

/** Something that moves has a track. */
const moves = computed(() =>
  ["latitude", "longitude"].every((one) => own.value.some((point) => point.quantity === one)),
);
const track = (format: string) => `/api/v1/places/${id}/track?format=${format}&${rangeQuery(view.current())}`;

async function remove() {
  const gone = place.value;
  if (gone && (await run(() => api.remove("places/" + id), t("{name} is removed.", { name: gone.name })))) {
    await places.load();
    await router.push(gone.parentId ? "/places/" + gone.parentId : "/places");
  }
}
</script>

<template>
  <div v-if="place" class="page">
    <header class="page-head">
      <div>
        <p class="crumbs">
          <RouterLink to="/places">{{ t("Places") }}</RouterLink>
          <template v-for="one in places.path(id).slice(0, -1)" :key="one.id">
            / <RouterLink :to="`/places/${one.id}`">{{ one.name }}</RouterLink></template
          >
        </p>
        <h1>{{ place.name }}</h1>
        <p class="row">
          <FenceMark :severity="points.severities.get(id) ?? null" />
          <span class="soft">{{
            t("{kind}, {below} points", { kind: place.assetKind || said(place.kind), below: below.length })
          }}</span>
        </p>
        <p v-if="moves" class="row small">
          {{
            t("Where it was {when}, for maps:", {
              when: view.chosen.value
                ? words(view.chosen.value, own[0]?.timeZone)
                : t("in the last {hours} hours", { hours: view.hours.value }),
            })
          }}
          <a :href="track('geojson')" download>GeoJSON</a>
          <a :href="track('kml')" download>KML</a>
        </p>
      </div>
      <StarButton :page="{ kind: 'place', of: id }" />
      <el-button v-if="below.length" @click="open = 'report'">{{ t("Report") }}</el-button>
      <el-dropdown v-if="mayEdit" trigger="click">
        <el-button>{{ t("Change …") }}</el-button>
        <template #dropdown>
          <el-dropdown-menu>
            <el-dropdown-item @click="open = 'place'">{{ t("Name, limits …") }}</el-dropdown-item>
            <el-dropdown-item v-if="place.kind !== 'asset'" @click="open = 'below'">{{
              t("Add a place here")
            }}</el-dropdown-item>
            <el-dropdown-item @click="open = 'point'">{{ t("Add point") }}</el-dropdown-item>
            <el-dropdown-item v-if="below.length > 1" @click="router.push(`/places/${id}/table`)">{{
              t("Points as a table")
            }}</el-dropdown-item>
            <el-dropdown-item v-if="below.length" @click="open = 'derived'">{{
              t("Add derived point")
            }}</el-dropdown-item>
            <el-dropdown-item v-if="place.kind === 'asset' && own.length" @click="open = 'states'">{{
              t("Sort by operating state …")
            }}</el-dropdown-item>
            <el-dropdown-item v-if="below.length" @click="open = 'rule'">{{ t("Add a rule") }}</el-dropdown-item>
            <el-dropdown-item v-if="proposals.length" @click="open = 'starter'">{{
              t("Rules proposed for it ({proposals})", { proposals: proposals.length })
            }}</el-dropdown-item>
            <el-dropdown-item v-if="own.length" @click="open = 'baseline'">{{
              t("Record a baseline")
            }}</el-dropdown-item>
            <el-dropdown-item
              v-if="place.kind === 'asset'"
              @click="router.push({ path: '/packs', query: { asset: id } })"
              >{{ t("Add rules from a pack") }}</el-dropdown-item
            >
            <el-dropdown-item v-if="place.kind === 'site'" @click="open = 'holidays'">{{
              t("Holidays …")
            }}</el-dropdown-item>
            <el-dropdown-item v-if="places.may('manage', id)" @click="open = 'access'">{{
              t("Who has access …")
            }}</el-dropdown-item>
            <el-dropdown-item :disabled="below.length > 0" @click="remove">{{
              t("Remove this place")
            }}</el-dropdown-item>
          </el-dropdown-menu>
        </template>
      </el-dropdown>
    </header>
    <ProblemNote :error="error" />
    <p v-if="proposals.some((one) => one.reason === 'LIMITS')" class="sheet">
      {{ t("Nothing reports yet when limits of {name} are passed.", { name: place.name }) }}
      <el-button link type="primary" @click="open = 'starter'">{{ t("Look at the proposed rules") }}</el-button>
    </p>

    <section v-if="place.guidance" class="sheet">
      <h2>{{ t("Instructions") }}</h2>
      <p class="guidance"><LinkedText :text="place.guidance" /></p>
    </section>

    <section v-if="here.length" class="stack" :aria-label="t('Open alerts')">
      <AlertCards :alerts="here" />
    </section>

    <AssetDirections
      v-if="directions.length > 1"
      :points="directions"
      :limits="places.limitsById.get(directions[0]?.limitSet ?? '')"
    />

    <section v-if="place.kind !== 'asset' && places.children(id).length" class="sheet">
      <h2>{{ t("What is here") }}</h2>
      <PlaceTree :parent="id" />
    </section>

    <PlanSheet v-if="place.picture" :place="place" :may-edit="mayEdit" />

    <section v-if="below.length" class="sheet">
      <h2>{{ t("Points") }}</h2>
      <PointRows :points="below" :with-place="place.kind !== 'asset'" />
    </section>
    <section v-else class="sheet">
      <EmptyState :title="t('No points yet')">
        {{ t("They come with a device:") }} <RouterLink to="/fleet/devices">{{ t("bring one in") }}</RouterLink>{{
          t(", or add one by hand.")
        }}
      </EmptyState>
    </section>

    <section v-if="own.length" class="sheet">
      <div class="sheet-head">
        <h2>{{ t("Over time") }}</h2>
        <ViewPicker :view="view" :time-zone="own[0]?.timeZone" />
      </div>
      <div class="charts">
        <figure v-for="group in groups" :key="group[0]?.quantity">
          <figcaption>
            {{ group.length > 1 ? said(group[0]?.quantityTitle ?? "") : group[0]?.name
            }}{{ group[0] && asRead(group[0]).unit ? ", " + asRead(group[0]).unit : "" }}
          </figcaption>
          <div class="canvas">
            <PointsChart
              :points="group"
              :hours="view.hours.value"
              :limits="places.limitsById.get(group[0]?.limitSet ?? '')"
              :marks="marks"
            />
          </div>
        </figure>
      </div>
    </section>

    <LogbookSheet
      :entries="logbook.data.value"
      :problem="logbook.error.value"
      :place-id="id"
      :marks="marks"
      @changed="logbook.load"
    />

    <PlanSheet v-if="!place.picture && mayEdit && below.length" :place="place" :may-edit="mayEdit" />

    <section v-if="limitSets.length" class="sheet">
      <h2>{{ t("Limits that hold here") }}</h2>
      <p v-for="set in limitSets" :key="set.id">
        <RouterLink :to="`/limits#${set.id}`">{{ said(set.title) }}</RouterLink>
        <span class="soft small">
          ·
          {{
            t("{document} {edition} {clause}. The published document is authoritative.", {
              document: set.source.document,
              edition: set.source.edition,
              clause: set.source.clause,
            })
          }}</span
        >
      </p>
    </section>

    <section v-if="past.data.value?.length" class="sheet">
      <h2>{{ t("Alerts here") }}</h2>
      <AlertRows :alerts="past.data.value" />
    </section>
    <p v-if="below.length">
      <RouterLink :to="{ path: '/alerts', query: { tab: 'events', place: id } }">{{
        t("Everything that happened here")
      }}</RouterLink>
    </p>

    <PlaceForm v-if="open === 'place'" :place="place" @close="open = ''" />
    <PlaceForm v-if="open === 'below'" :parent="id" @close="open = ''" />
    <PointForm
      v-if="open === 'point' || open === 'derived'"
      :place-id="id"
      :derived="open === 'derived'"
      @close="open = ''"
    />
    <RuleForm v-if="open === 'rule'" :place-id="id" @close="open = ''" />
    <BaselineForm v-if="open === 'baseline'" :points="own" @close="open = ''" />
    <ReportForm
      v-if="open === 'report'"
      :of="`places/${id}`"
      :name="place.name"
      :may-edit="mayEdit"
      @close="open = ''"
    />
    <StarterRulesForm
      v-if="open === 'starter' && starter.data.value"
      :asset="place"
      :proposed="starter.data.value"
      @close="adopted"
    />
    <StateSortForm v-if="open === 'states'" :place-id="id" :place-name="place.name" @close="open = ''" />
    <HolidaysForm v-if="open === 'holidays'" :site="place" @close="open = ''" />
    <AccessDialog v-if="open === 'access'" :place="place" @close="open = ''" />
  </div>
  <div v-else-if="places.loaded" class="page">
    <h1>{{ t("There is no such place, or you may not see it") }}</h1>
    <p>
      <RouterLink to="/places">{{ t("All places") }}</RouterLink>
    </p>
  </div>
</template>

<style scoped>
.guidance {
  white-space: pre-line;
  overflow-wrap: anywhere;
  margin: 0;
}
.charts {
  display: grid;
  gap: 1.25rem;
  grid-template-columns: repeat(auto-fit, minmax(min(420px, 100%), 1fr));
}
figure {
  margin: 0;
  min-width: 0;
}
figcaption {
  font-weight: 580;
}
.canvas {
  height: 250px;
}
</style>
