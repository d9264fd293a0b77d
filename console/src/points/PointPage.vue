<script setup lang="ts">
import { said, t } from "@/language";
import { api } from "@/api/http";
import { onChanged, onLive } from "@/api/live";
import type { Alert, CalibrationStretch, Command } from "@/api/types";
import { alertsIn, bandsOf } from "@/alerts/around";
import AlertRows from "@/alerts/AlertRows.vue";
import RuleForm from "@/alerts/RuleForm.vue";
import PointsChart from "@/chart/PointsChart.vue";
import EntryForm from "@/logbook/EntryForm.vue";
import { marksOf, notesUntil, useLogbook } from "@/logbook/logbook";
import LogbookSheet from "@/logbook/LogbookSheet.vue";
import { useView } from "@/chart/view";
import ViewPicker from "@/chart/ViewPicker.vue";
import { useAction } from "@/look/act";
import { moment } from "@/look/clock";
import FenceMark from "@/look/FenceMark.vue";
import HeadroomBar from "@/look/HeadroomBar.vue";
import { useLoad } from "@/look/load";
import ProblemNote from "@/look/ProblemNote.vue";
import StarButton from "@/starred/StarButton.vue";
import { shown, zoneWords } from "@/look/reading";
import ReadingValue from "@/look/ReadingValue.vue";
import ExportMenu from "@/records/ExportMenu.vue";
import { asRead } from "@/look/units";
import { usePlaces } from "@/places/places";
import { computed, ref, useTemplateRef, watch } from "vue";
import BaselineForm from "./BaselineForm.vue";
import BaselineSheet from "./BaselineSheet.vue";
import type { Usual } from "@/chart/lineOption";
import ConsumptionSheet from "./ConsumptionSheet.vue";
import DaysTable from "./DaysTable.vue";
import { doingMarks, doingsOf } from "./doings";
import EraseForm from "./EraseForm.vue";
import PointForm from "./PointForm.vue";
import { usePoints } from "./points";
import SourceTrace from "./SourceTrace.vue";
import CalibrationHistory from "./CalibrationHistory.vue";
import VibrationSheet from "@/vibration/VibrationSheet.vue";
import TrendSheet from "./TrendSheet.vue";

/** The page of a point, made by itself. Its address may hold the point's number, as on the label. */
const { id } = defineProps<{ id: string }>();
const points = usePoints();
const places = usePlaces();
const view = useView(24);
const fixed = ref(true);
const chart = useTemplateRef<InstanceType<typeof PointsChart>>("chart");
const open = ref<"" | "point" | "rule" | "erase" | "baseline">("");
const usual = ref<Usual>();
const { error, run } = useAction();

const point = computed(() => points.byId.get(id) ?? points.all.find((one) => String(one.number) === id));
const read = computed(() => (point.value ? asRead(point.value) : undefined));
const limits = computed(() => places.limitsById.get(point.value?.limitSet ?? ""));
const mayEdit = computed(() => places.may("edit", point.value?.placeId ?? null));
const past = useLoad(async () =>
  point.value ? api.get<Alert[]>(`alerts?state=all&limit=20&point=${point.value.id}`) : [],
);
const inSight = useLoad(async () =>
  point.value ? api.get<Alert[]>(`alerts?state=all&limit=200&point=${point.value.id}&${alertsIn(view.current())}`) : [],
);
onLive("alert", past.load);
onLive("alert", inSight.load);
watch(() => point.value?.id, past.load);
watch(() => [point.value?.id, view.key()].join(), inSight.load);

const logbook = useLogbook(() => "point=" + id + notesUntil(view.chosen.value));
const marks = computed(() => marksOf(logbook.data.value ?? [], view.current().from));
/** What was done to it, which may explain what the line does. */
const stretches = useLoad(async () =>
  point.value && !point.value.formulaText ? api.get<CalibrationStretch[]>(`points/${point.value.id}/calibrations`) : [],
);
const commands = useLoad(async () =>
  point.value?.deviceId ? api.get<Command[]>(`devices/${point.value.deviceId}/commands`) : [],
);
onChanged(["registry"], stretches.load);
onChanged(["commands"], commands.load);
watch(() => point.value?.id, stretches.load);
watch(() => point.value?.deviceId, commands.load);
const doings = computed(() => doingsOf(stretches.data.value ?? [], commands.data.value ?? [], view.current()));
const allMarks = computed(() => [...marks.value, ...doingMarks(doings.value)]);
const picking = ref(false);
const noteAt = ref<number>();

function pick(at: number) {
  picking.value = false;
  noteAt.value = at;
}

/** Quantities that say how much is in something. */
const CONTENTS = ["level", "fill", "volume"];

async function release() {
  await run(async () => {
    await api.post(`points/${point.value?.id}/release`);
    await points.load();
  }, t("Released: others see it now."));
}
</script>

<template>
  <div v-if="point" class="page">
    <header class="page-head">
      <div>
        <p class="crumbs">
          <RouterLink to="/places">{{ t("Places") }}</RouterLink>
          <template v-for="one in places.path(point.placeId)" :key="one.id">
            / <RouterLink :to="`/places/${one.id}`">{{ one.name }}</RouterLink></template
          >
        </p>
        <h1>{{ point.name }}</h1>
        <p class="soft small">
          {{
            t("Point {number}, {quantity}{note}", {
              number: point.number,
              quantity: said(point.quantityTitle),
              note: point.note ? ". " + point.note : "",
            })
          }}
        </p>
      </div>
      <StarButton :page="{ kind: 'point', of: point.id }" />
      <template v-if="mayEdit">
        <el-button v-if="!point.released" type="primary" @click="release">{{ t("Release") }}</el-button>
        <el-button @click="open = 'rule'">{{ t("Add a rule") }}</el-button>
        <el-button @click="open = 'baseline'">{{ t("Record a baseline") }}</el-button>
        <el-button @click="open = 'erase'">{{ t("Erase readings …") }}</el-button>
        <el-button @click="open = 'point'">{{ t("Change …") }}</el-button>
      </template>
    </header>
    <ProblemNote :error="error" />

    <section class="sheet now">
      <ReadingValue :point="point" big />
      <template v-if="point.latest?.zone && limits">
        <div>
          <FenceMark :severity="point.latest.severity" />
          <div>
            <strong>{{ zoneWords(point.latest.zone) }}</strong>{{ ": " }}
            <span class="soft">
              {{ said(limits.zones.find((zone) => zone.label === point?.latest?.zone)?.meaning ?? "") }}</span
            >
          </div>
        </div>
        <div>
          <span class="soft small">{{ t("Headroom") }}</span><br />
          <HeadroomBar :latest="point.latest" />
          <div v-if="point.latest.nextBoundary !== null" class="soft small">
            {{
              t("to {zoneWords} at {nextBoundary} {unit}", {
                zoneWords: zoneWords(point.latest.nextZone ?? ""),
                nextBoundary: read?.latest?.nextBoundary,
                unit: read?.unit,
              })
            }}
          </div>
        </div>
      </template>
      <p v-else-if="point.latest?.quality === 'BAD'" class="soft">
        {{
          t(
            "Sensor fault: the value {shown} {unit} cannot be, or the sensor reports that it has failed. It is not judged.",
            { shown: shown(point), unit: read?.unit },
          )
        }}
      </p>
      <p v-else class="soft">
        {{ t("No limits hold for this point.") }}
        <el-button v-if="mayEdit" link type="primary" @click="open = 'point'">{{ t("Choose a limit set") }}</el-button>
      </p>
    </section>

    <section class="sheet">
      <div class="sheet-head over-time">
        <h2>{{ t("Over time") }}</h2>
        <ViewPicker :view="view" :time-zone="point.timeZone" />
        <el-checkbox v-if="limits" v-model="fixed">{{ t("fixed scale") }}</el-checkbox>
        <RouterLink
          :to="{ path: '/records/compare', query: { ...view.query.value, points: point.id, compare: 'before' } }"
          >{{ t("Compare …") }}</RouterLink
        >
        <el-button
          v-if="places.may('operate', point.placeId)"
          :aria-pressed="picking"
          :type="picking ? 'primary' : undefined"
          @click="picking = !picking"
          >{{ picking ? t("Cancel note") : t("Add note") }}</el-button
        >
        <ExportMenu
          :points="[point.id]"
          :range="view.current"
          @picture="(format) => void chart?.keep(point?.name ?? '', format)"
        />
      </div>
      <p v-if="picking" class="row" role="status">
        {{ t("Press the moment in the chart that the note is about.") }}
        <el-button link type="primary" @click="pick(Date.now())">{{ t("Now") }}</el-button>
      </p>
      <div class="canvas">
        <PointsChart
          ref="chart"
          :points="[point]"
          :hours="view.hours.value"
          :limits="limits"
          :fixed="fixed"
          :usual="usual"
          :marks="allMarks"
          :alerts="bandsOf(inSight.data.value ?? [])"
          :picking="picking"
          @pick="pick"
        />
      </div>
      <ol v-if="doings.length" class="doings small" :aria-label="t('What was done')">
        <li v-for="one in doings" :key="one.label">
          <span class="letter">{{ one.label }}</span>
          <span class="soft">{{ moment(new Date(one.at).toISOString(), point.timeZone) }}</span>
          <span>{{ one.text }}{{ one.by ? t(", by {by}", { by: one.by }) : "" }}</span>
        </li>
      </ol>
      <p v-if="limits" class="soft small source">
        {{ t("Limits:") }} <RouterLink :to="`/limits#${limits.id}`">{{ said(limits.title) }}</RouterLink>{{
          t(", {document} {edition}{own}. The published document is authoritative.", {
            document: limits.source.document,
            edition: limits.source.edition,
            own: point.ownLimitSet ? t("; chosen for this point alone") : "",
          })
        }}
      </p>
    </section>

    <LogbookSheet
      :entries="logbook.data.value"
      :problem="logbook.error.value"
      :place-id="point.placeId"
      :point-id="point.id"
      :marks="marks"
      @changed="logbook.load"
    />

    <VibrationSheet v-if="point.quantity.startsWith('vibration-')" :point="point" />

    <TrendSheet :point="point" />

    <ConsumptionSheet v-if="CONTENTS.includes(point.quantity)" :point="point" />

    <BaselineSheet :point="point" :may-edit="mayEdit" @usual="usual = $event" @record="open = 'baseline'" />

    <DaysTable :point="point" :limits="limits" />

    <SourceTrace :point="point" />
    <CalibrationHistory
      v-if="!point.formulaText"
      :point="point"
      :stretches="stretches.data.value"
      :problem="stretches.error.value"
    />

    <section v-if="past.data.value?.length" class="sheet">
      <h2>{{ t("Alerts of this point") }}</h2>
      <AlertRows :alerts="past.data.value" />
    </section>

    <EntryForm
      v-if="noteAt"
      :place-id="point.placeId"
      :point-id="point.id"
      :at="noteAt"
      @close="((noteAt = undefined), logbook.load())"
    />
    <PointForm v-if="open === 'point'" :point="point" @close="open = ''" />
    <EraseForm v-if="open === 'erase'" :point="point" @close="open = ''" />
    <BaselineForm v-if="open === 'baseline'" :points="[point]" @close="open = ''" />
    <RuleForm v-if="open === 'rule'" :point="point" :place-id="point.placeId" @close="open = ''" />
  </div>
  <div v-else-if="points.loaded" class="page">
    <h1>{{ t("There is no such point, or you may not see it") }}</h1>
    <p>
      <RouterLink to="/places">{{ t("All places") }}</RouterLink>
    </p>
  </div>
</template>

<style scoped>
.doings {
  list-style: none;
  margin: 0.5rem 0 0;
  padding: 0;
}
.doings li {
  display: flex;
  flex-wrap: wrap;
  gap: 0 0.75rem;
  padding: 0.15rem 0;
}
.letter {
  font-weight: 580;
  min-width: 1ch;
}
.now {
  display: flex;
  flex-wrap: wrap;
  gap: 0.75rem 3rem;
  align-items: center;
}
.over-time h2 {
  flex-basis: 100%;
}
.canvas {
  height: 340px;
}
.source {
  margin: 0.5rem 0 0;
}
</style>
