<script setup lang="ts">
import { said, t } from "@/language";
import { trimmed } from "@/look/numbers";
import { api } from "@/api/http";
import { onLive } from "@/api/live";
import type { Commissioning, Device, Frame, Point, ResponseCheck } from "@/api/types";
import { useAction } from "@/look/act";
import { every, moment, now } from "@/look/clock";
import { useLoad } from "@/look/load";
import ProblemNote from "@/look/ProblemNote.vue";
import ReadingValue from "@/look/ReadingValue.vue";
import { usePlaces } from "@/places/places";
import { usePoints } from "@/points/points";
import { computed, ref, watch } from "vue";
import { hexProblem } from "@/frames/hex";

/** A device on its way in, step by step, for somebody on a ladder: what is known, and where it stops, what to do. */
const { device } = defineProps<{ device: Device }>();
const places = usePlaces();
const points = usePoints();
const emit = defineEmits<{ done: [] }>();
const { data, error: problem, load } = useLoad(() => api.get<Commissioning>(`devices/${device.id}/commissioning`));
const { busy, error, run } = useAction();
const open = ref(false);
const watched = ref("");
const note = ref("");
watch(() => device.id, load);
watch(data, (now) => now?.done && emit("done"));
onLive<Frame>("frame", (frame) => (frame.deviceId === device.id || frame.deviceId === null) && void load());
onLive("reading", () => running.value && void load());
every(5, () => void load());

const fed = computed(() =>
  device.assignments.map((one) => points.byId.get(one.pointId)).filter((one): one is Point => one !== undefined),
);
const running = computed(() => data.value?.checks.find((check) => check.running));
const mayEdit = computed(() => places.may("edit", device.placeId));
const key = ref("");
const keyProblem = computed(() => hexProblem(key.value, 32));
const mayOperate = computed(() => places.may("operate", device.placeId));
const runningPoint = computed(() => points.byId.get(running.value?.pointId ?? ""));
const reached = computed(() => data.value?.steps.find((step) => step.id === "decoder")?.state === "done");

const WORDS: Record<string, string> = { waiting: t("waiting"), failed: t("stops here") };

function left(check: ResponseCheck): string {
  const seconds = Math.max(0, Math.round((new Date(check.until).getTime() - now.value) / 1000));
  return `${Math.floor(seconds / 60)}:${String(seconds % 60).padStart(2, "0")}`;
}

const amount = (value: number | null, check: ResponseCheck) =>
  value === null ? "–" : `${trimmed(Number(value.toPrecision(5)), 9)} ${check.unit}`;

async function changeKey() {
  const ok = await run(
    () => api.put(`devices/${device.id}/key`, { appKey: key.value.replace(/[\s:-]/g, "") }),
    t("The key is changed; its next join request is awaited."),
  );
  key.value = ok ? "" : key.value;
}

async function begin() {
  const pointId = watched.value || fed.value[0]?.id;
  await run(async () => (data.value = await api.post<Commissioning>(`devices/${device.id}/checks`, { pointId })));
}

async function finish(worked: boolean) {
  const ok = await run(
    async () =>
      (data.value = await api.post<Commissioning>(`checks/${running.value?.id}/result`, { worked, note: note.value })),
    worked ? t("Recorded: it answers.") : t("Recorded: it does not answer."),
  );
  note.value = ok ? "" : note.value;
}
</script>

<template>
  <section class="sheet">
    <h2>{{ data?.done ? t("How it came in") : t("On its way in") }}</h2>
    <ProblemNote :error="problem" />
    <p v-if="data?.done" class="row">
      {{ t("All {steps} steps are passed.", { steps: data.steps.length }) }}
      <el-button link type="primary" :aria-expanded="open" @click="open = !open">{{
        open ? t("Hide them") : t("Show them")
      }}</el-button>
    </p>
    <ol v-if="data && (open || !data.done)" class="steps">
      <li v-for="step in data.steps" :key="step.id" :class="step.state">
        <svg viewBox="0 0 20 20" width="20" height="20" aria-hidden="true">
          <circle cx="10" cy="10" r="8" />
          <path v-if="step.state === 'done'" d="M6 10.5l3 3 5.5-7" />
          <path v-else-if="step.state === 'failed'" d="M10 5.5v5.5M10 14v.5" />
        </svg>
        <div>
          <strong>{{ said(step.title) }}</strong>
          <span v-if="WORDS[step.state]" class="word">{{ WORDS[step.state] }}</span>
          <span v-if="step.at" class="soft small time">{{ moment(step.at) }}</span>
          <div v-if="step.words" class="small">{{ said(step.words) }}</div>
          <div v-if="step.todo" class="small todo">{{ said(step.todo) }}</div>
          <form v-if="step.id === 'key' && step.state === 'failed' && mayEdit" class="row" @submit.prevent="changeKey">
            <el-input
              v-model="key"
              class="mono key"
              autocomplete="off"
              :placeholder="t('32 hex digits')"
              :aria-label="t('Application key')"
            />
            <el-button native-type="submit" :loading="busy" :disabled="!key || keyProblem !== ''">{{
              t("Change the key")
            }}</el-button>
            <span v-if="keyProblem" class="small">{{ keyProblem }}</span>
          </form>
        </div>
      </li>
    </ol>
    <div v-if="running" class="check" role="status">
      <p>
        <strong>{{ t("Provoke it now, and watch {pointName}.", { pointName: running.pointName }) }}</strong>
        {{ t("Nobody is alerted meanwhile; {left} left.", { left: left(running) }) }}
      </p>
      <p class="big"><ReadingValue v-if="runningPoint" :point="runningPoint" /></p>
      <p class="soft">
        {{
          t("Before {before} · since then from {lowest} to {highest}", {
            before: amount(running.before, running),
            lowest: amount(running.lowest, running),
            highest: amount(running.highest, running),
          })
        }}
      </p>
      <template v-if="mayOperate">
        <el-input v-model="note" maxlength="500" :placeholder="t('warmed by hand')" :aria-label="t('What you did')" />
        <div class="row">
          <el-button type="primary" size="large" :loading="busy" @click="finish(true)">{{ t("It answers") }}</el-button>
          <el-button size="large" :loading="busy" @click="finish(false)">{{ t("It does not") }}</el-button>
        </div>
      </template>
    </div>
    <div v-else-if="mayOperate && fed.length && reached" class="row">
      <el-select
        v-if="fed.length > 1"
        v-model="watched"
        :placeholder="fed[0]?.name"
        :aria-label="t('Point to watch')"
        class="pick"
      >
        <el-option v-for="point in fed" :key="point.id" :value="point.id" :label="point.name" />
      </el-select>
      <el-button :loading="busy" @click="begin">{{ t("Provoke and check") }}</el-button>
    </div>
    <ProblemNote :error="error" />
    <details v-if="data?.checks.some((check) => !check.running)">
      <summary>{{ t("Checks so far") }}</summary>
      <p v-for="check in data.checks.filter((one) => !one.running)" :key="check.id" class="small">
        <span class="soft">{{ moment(check.from) }}, {{ check.person }}</span>
        {{
          t("{pointName}: {answer}, from {lowest} to {highest}{note}", {
            pointName: check.pointName,
            answer:
              check.worked === null
                ? t("nobody said what was seen")
                : check.worked
                  ? t("answers")
                  : t("does not answer"),
            lowest: amount(check.lowest, check),
            highest: amount(check.highest, check),
            note: check.note ? ". " + check.note : "",
          })
        }}
      </p>
    </details>
  </section>
</template>

<style scoped>
.steps {
  list-style: none;
  margin: 0 0 0.75rem;
  padding: 0;
}
.steps li {
  display: grid;
  grid-template-columns: 28px minmax(0, 1fr);
  padding: 0.35rem 0;
  overflow-wrap: anywhere;
}
circle {
  fill: none;
  stroke: var(--line-strong);
  stroke-width: 2;
}
path {
  fill: none;
  stroke: var(--sheet);
  stroke-width: 2.4;
  stroke-linecap: round;
}
.done circle {
  fill: var(--moss);
  stroke: var(--moss);
}
.waiting circle {
  stroke: var(--heather);
  stroke-dasharray: 5 4;
}
.failed circle {
  fill: var(--warning);
  stroke: var(--warning);
}
.later {
  color: var(--ink-soft);
}
.word,
.time {
  margin-left: 0.5rem;
}
.key {
  max-width: 24rem;
}
.failed .word,
.failed .todo {
  color: var(--warning);
}
.waiting .word {
  color: var(--heather);
}
.check {
  border: 2px solid var(--heather);
  border-radius: var(--radius);
  padding: 0.75rem 1rem;
}
.check p {
  margin: 0 0 0.5rem;
}
.check .row {
  margin-top: 0.6rem;
}
.big {
  font-size: 2rem;
}
.pick {
  max-width: 18rem;
}
</style>
