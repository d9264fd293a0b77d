<script setup lang="ts">
import { t } from "@/language";
import { useAlerts } from "@/alerts/alerts";
import { api, Refusal } from "@/api/http";
import { onChanged } from "@/api/live";
import type { Dashboard } from "@/api/types";
import EmptyState from "@/look/EmptyState.vue";
import { moment, now } from "@/look/clock";
import ProblemNote from "@/look/ProblemNote.vue";
import { worst } from "@/look/severity";
import FenceMark from "@/look/FenceMark.vue";
import { usePlaces } from "@/places/places";
import { usePoints } from "@/points/points";
import NoticeBars from "@/shell/NoticeBars.vue";
import { computed, onBeforeUnmount, onMounted, ref, shallowReactive, watch } from "vue";
import { useRoute, useRouter } from "vue-router";
import DashboardGrid from "./DashboardGrid.vue";
import { secondsOf, zoomFor } from "./wall";

/** A screen on a wall: dashboards in turn, each as large as fits, without the rooms beside them. */
const route = useRoute();
const router = useRouter();
const alerts = useAlerts();
const places = usePlaces();
const points = usePoints();
const boards = computed(() =>
  String(route.query.boards ?? "")
    .split(",")
    .filter(Boolean),
);
const seconds = computed(() => secondsOf(route.query.seconds));
const turn = ref(0);
const rests = ref(false);
const since = ref(Date.now());
const id = computed(() => boards.value[turn.value % boards.value.length]);
/** Each as it was loaded last: while the service is away the wall goes on with what it knows. */
const known = shallowReactive(new Map<string, Dashboard>());
const problem = ref<unknown>();
const dashboard = computed(() => (id.value ? known.get(id.value) : undefined));
const severity = computed(() => worst(alerts.waiting.map((alert) => alert.severity)));

async function load() {
  const wanted = id.value;
  if (!wanted) {
    return;
  }
  try {
    known.set(wanted, await api.get<Dashboard>("dashboards/" + wanted));
    problem.value = undefined;
  } catch (error) {
    problem.value = error;
    if (error instanceof Refusal && error.status === 404) {
      known.delete(wanted);
    }
  }
}
watch(id, load, { immediate: true });
onChanged(["registry"], load);

function go(steps: number) {
  turn.value = (turn.value + steps + boards.value.length) % Math.max(1, boards.value.length);
  since.value = Date.now();
}
watch(now, (at) => {
  if (!rests.value && boards.value.length > 1 && at - since.value >= seconds.value * 1000) {
    go(1);
  }
});

/** What is left of the window below the head. */
const space = ref(0);
const body = ref<HTMLElement>();
const zoom = computed(() => zoomFor(dashboard.value?.panels ?? [], space.value));
function measure() {
  space.value = window.innerHeight - (body.value?.getBoundingClientRect().top ?? 0) - 8;
}

/** The buttons go when nobody moves anything. */
const touched = ref(Date.now());
const idle = computed(() => now.value - touched.value > 5_000);
function touch() {
  touched.value = Date.now();
}

/** Keeps the screen on, where the browser can. */
async function stayAwake() {
  if (document.visibilityState === "visible") {
    await navigator.wakeLock?.request("screen").catch(() => undefined);
  }
}

function fullScreen() {
  void (document.fullscreenElement ? document.exitFullscreen() : document.documentElement.requestFullscreen()).catch(
    () => undefined,
  );
}

function onKey(event: KeyboardEvent) {
  touch();
  const steps = { ArrowRight: 1, ArrowLeft: -1 }[event.key];
  if (steps) {
    go(steps);
  } else if (event.key === " " && !(event.target instanceof HTMLButtonElement)) {
    event.preventDefault();
    rests.value = !rests.value;
  }
}

onMounted(() => {
  measure();
  void stayAwake();
  window.addEventListener("resize", measure);
  window.addEventListener("keydown", onKey);
  document.addEventListener("visibilitychange", stayAwake);
});
onBeforeUnmount(() => {
  window.removeEventListener("resize", measure);
  window.removeEventListener("keydown", onKey);
  document.removeEventListener("visibilitychange", stayAwake);
});
</script>

<template>
  <main id="main" class="wall" tabindex="-1" @pointermove="touch" @pointerdown="touch">
    <NoticeBars />
    <header>
      <h1>{{ dashboard?.name ?? "…" }}</h1>
      <span v-if="boards.length > 1" class="soft small">{{
        t("{number} of {boards}", { number: (turn % boards.length) + 1, boards: boards.length })
      }}</span>
      <RouterLink v-if="alerts.waiting.length" to="/alerts" class="waiting"
        ><FenceMark :severity="severity" /><span>{{
          t("{n} alert waits | {n} alerts wait", { n: alerts.waiting.length })
        }}</span></RouterLink
      >
      <span class="tools" :class="{ idle }">
        <template v-if="boards.length > 1">
          <el-button @click="go(-1)">{{ t("Back") }}</el-button>
          <el-button @click="rests = !rests">{{ rests ? t("Go on") : t("Stay here") }}</el-button>
          <el-button @click="go(1)">{{ t("Next") }}</el-button>
        </template>
        <el-button @click="fullScreen">{{ t("Full screen") }}</el-button>
        <el-button @click="router.push('/dashboards')">{{ t("Leave") }}</el-button>
      </span>
      <time>{{ moment(now) }}</time>
    </header>
    <ProblemNote v-if="problem && !dashboard" :error="problem" />
    <div ref="body" class="body">
      <div v-if="dashboard?.panels.length" :key="dashboard.id" :style="{ zoom }">
        <DashboardGrid :panels="dashboard.panels" :points-of="points.shown" :limits="places.limitsById" />
      </div>
      <EmptyState v-else-if="!boards.length" :title="t('No dashboards are chosen')">
        {{ t("Open") }} <RouterLink to="/dashboards">{{ t("Dashboards") }}</RouterLink> {{ t("and press") }}
        <em>{{ t("Wall screen") }}</em>.
      </EmptyState>
    </div>
  </main>
</template>

<style scoped>
.wall {
  min-height: 100vh;
  background: var(--paper);
}
.wall:focus {
  outline: none;
}
header {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 0.25rem 1rem;
  padding: 0.4rem 0.9rem;
}
h1 {
  margin: 0;
  font-size: 1.4rem;
}
.waiting {
  display: inline-flex;
  align-items: center;
  gap: 0.6rem;
  color: inherit;
  font-weight: 640;
  text-decoration: none;
}
.waiting span:last-child {
  text-decoration: underline;
}
.tools {
  margin-left: auto;
  transition: opacity 0.4s;
}
.tools.idle:not(:focus-within) {
  opacity: 0;
}
time {
  font-variant-numeric: tabular-nums;
  font-weight: 640;
}
.body {
  padding: 0 0.5rem;
}
</style>
