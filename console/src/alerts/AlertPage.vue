<script setup lang="ts">
import { t } from "@/language";
import { api } from "@/api/http";
import { onChanged, onLive } from "@/api/live";
import type { Alert } from "@/api/types";
import PointsChart from "@/chart/PointsChart.vue";
import { useAction } from "@/look/act";
import { moment } from "@/look/clock";
import FenceMark from "@/look/FenceMark.vue";
import { useLoad } from "@/look/load";
import ProblemNote from "@/look/ProblemNote.vue";
import { usePlaces } from "@/places/places";
import { usePoints } from "@/points/points";
import { computed, ref, watch } from "vue";
import AcknowledgeForm from "./AcknowledgeForm.vue";
import EarlierHere from "./EarlierHere.vue";
import InstructionsList from "./InstructionsList.vue";
import ShelveForm from "./ShelveForm.vue";
import { bandsOf, timeAround } from "./around";
import { history, STATES } from "./states";

/** One alert with everything that happened to it. */
const { id } = defineProps<{ id: string }>();
const places = usePlaces();
const points = usePoints();
const text = ref("");
const answering = ref(false);
const { busy, error, run } = useAction();
const { data: alert, error: problem, load } = useLoad(() => api.get<Alert>("alerts/" + id));
watch(() => id, load);
onLive<Alert>("alert", (changed) => changed.id === id && load());
onChanged(["notices"], load);

const point = computed(() => points.byId.get(alert.value?.pointId ?? ""));
const mayAct = computed(() => places.may("operate", alert.value?.placeId ?? null));
const zone = computed(() => places.zoneOf(alert.value?.placeId));
const around = computed(() => (alert.value ? timeAround(alert.value) : { hours: 6 }));
const steps = computed(() => (alert.value ? history(alert.value, point.value) : []));
const shelving = ref(false);
const people = useLoad(() => api.get<{ name: string }[]>("people").catch(() => []));
const names = computed(() => (people.data.value ?? []).map((person) => person.name));

async function unshelve() {
  await run(async () => {
    await api.remove(`alerts/${id}/shelving`);
    await load();
  }, t("Shelving ended."));
}

async function assign(person: string | null) {
  await run(
    async () => (alert.value = await api.put<Alert>(`alerts/${id}/assignee`, { person })),
    person ? t("Assigned to {person}.", { person }) : t("Assigned to nobody."),
  );
}

async function write() {
  const ok = await run(
    async () => (alert.value = await api.post<Alert>(`alerts/${id}/notes`, { text: text.value })),
    t("Noted."),
  );
  if (ok) {
    text.value = "";
  }
}
</script>

<template>
  <div v-if="alert" class="page">
    <header class="page-head">
      <div>
        <p class="crumbs">
          <RouterLink to="/alerts">{{ t("Alerts") }}</RouterLink> / {{ alert.ruleName }}
        </p>
        <h1>{{ alert.summary }}</h1>
        <p class="row">
          <FenceMark :severity="alert.severity" /> <span>{{ STATES[alert.state] }}</span>
          <RouterLink class="soft" :to="`/places/${alert.placeId}`">{{ alert.path.join(", ") }}</RouterLink>
        </p>
      </div>
      <template v-if="mayAct && !alert.closedAt">
        <el-button v-if="alert.shelf" size="large" @click="unshelve">{{ t("End shelving") }}</el-button>
        <el-button v-else size="large" @click="shelving = true">{{ t("Shelve …") }}</el-button>
        <el-button v-if="!alert.acknowledgedAt" type="primary" size="large" @click="answering = true">{{
          t("Acknowledge")
        }}</el-button>
      </template>
    </header>
    <p v-if="alert.shelf && !alert.closedAt" class="sheet" role="status">
      {{
        t("{until} by {person}: {reason}. Nobody is notified.", {
          until: alert.shelf.until
            ? t("Shelved until {moment}", { moment: moment(alert.shelf.until, zone) })
            : t("Out of service"),
          person: alert.shelf.person,
          reason: alert.shelf.reason,
        })
      }}
    </p>
    <section v-if="mayAct && !alert.closedAt" class="sheet row">
      <label for="alert-assignee"
        ><strong>{{ t("Assigned to") }}</strong></label
      >
      <el-select
        id="alert-assignee"
        :model-value="alert.assignedTo ?? undefined"
        clearable
        :aria-label="t('Assigned to')"
        :placeholder="t('nobody')"
        class="who"
        @update:model-value="(name?: string) => assign(name ?? null)"
      >
        <el-option v-for="name in names" :key="name" :value="name" :label="name" />
      </el-select>
    </section>
    <section v-if="alert.guidance" class="sheet">
      <h2>{{ t("Instructions") }}</h2>
      <InstructionsList :alert="alert" :may-act="mayAct" @changed="alert = $event" />
    </section>
    <section v-if="point" class="sheet">
      <div class="sheet-head">
        <h2>
          <RouterLink :to="`/points/${point.id}`">{{ point.name }}</RouterLink>
        </h2>
      </div>
      <div class="canvas">
        <PointsChart
          :points="[point]"
          :hours="around.hours"
          :stretch="around.stretch"
          :alerts="bandsOf([alert])"
          :limits="places.limitsById.get(point.limitSet ?? '')"
        />
      </div>
    </section>
    <section class="sheet">
      <h2>{{ t("What happened") }}</h2>
      <ol>
        <li v-for="(step, i) in steps" :key="i">
          <span class="soft">{{ moment(step.at, zone) }}</span> <span>{{ step.what }}</span>
        </li>
      </ol>
      <form v-if="mayAct" class="row" @submit.prevent="write">
        <el-input v-model="text" :aria-label="t('A note')" :placeholder="t('What was found, what was done …')" />
        <el-button native-type="submit" :loading="busy" :disabled="!text.trim()">{{ t("Write a note") }}</el-button>
      </form>
      <ProblemNote :error="error" />
    </section>
    <EarlierHere :alert="alert" />
    <ShelveForm v-if="shelving" :alert="alert" @close="((shelving = false), load())" />
    <AcknowledgeForm v-if="answering" :alert="alert" @close="((answering = false), load())" />
  </div>
  <div v-else-if="problem" class="page">
    <ProblemNote :error="problem" />
    <p>
      <RouterLink to="/alerts">{{ t("All alerts") }}</RouterLink>
    </p>
  </div>
</template>

<style scoped>
ol {
  list-style: none;
  padding: 0;
  margin: 0 0 0.75rem;
}
li {
  display: grid;
  grid-template-columns: 10rem 1fr;
  gap: 0.75rem;
  padding: 0.25rem 0;
}
.row .el-input {
  flex: 1 1 16rem;
}
.who {
  max-width: 18rem;
}
.canvas {
  height: 260px;
}
@media (max-width: 720px) {
  li {
    grid-template-columns: 1fr;
    gap: 0;
  }
}
</style>
