<script setup lang="ts">
import { t } from "@/language";
import { api, Refusal } from "@/api/http";
import type { Dashboard, Panel } from "@/api/types";
import { CAMERA_PATH } from "@/cameras/cameras";
import { POINT_PATH } from "@/chart/series";
import { every } from "@/look/clock";
import { useAction } from "@/look/act";
import { useLoad } from "@/look/load";
import { PLAN_PATH } from "@/plans/plans";
import ProblemNote from "@/look/ProblemNote.vue";
import { computed, provide, ref } from "vue";
import DashboardGrid from "./DashboardGrid.vue";

/** A dashboard behind a read-only link, for who has no account. Asks again every few seconds. */
const { token } = defineProps<{ token: string }>();
const path = "shared/" + encodeURIComponent(token);
let opened = false;
const {
  data: dashboard,
  error,
  load,
} = useLoad(async () => {
  // What an open page asks again is no other opening of the link.
  const found = await api.get<Dashboard>(opened ? path + "?again=true" : path);
  opened = true;
  return found;
});
every(5, () => void load());
provide(PLAN_PATH, (placeId) => ({ plan: `${path}/plans/${placeId}`, picture: `${path}/plans/${placeId}/picture` }));
provide(CAMERA_PATH, (cameraId) => `${path}/cameras/${cameraId}/picture`);
provide(POINT_PATH, (pointId) => `${path}/points/${pointId}`);

const passcode = ref("");
const wanted = computed(() => error.value instanceof Refusal && error.value.kind === "passcode");
const { busy, error: refused, run } = useAction();
async function enter() {
  if (await run(() => api.post(path + "/passcode", { passcode: passcode.value }))) {
    passcode.value = "";
    await load();
  }
}
const points = computed(() => new Map(dashboard.value?.points.map((point) => [point.id, point])));
const pointsOf = (panel: Panel) => (dashboard.value?.shown[panel.id] ?? []).flatMap((id) => points.value.get(id) ?? []);
const limits = computed(() => new Map(dashboard.value?.limitSets.map((set) => [set.id, set])));
</script>

<template>
  <main class="page wide">
    <form v-if="wanted" class="stack passcode" @submit.prevent="enter">
      <h1>{{ t("This dashboard opens with a passcode") }}</h1>
      <p class="soft">
        {{ t("Ask the person who sent you the link for the passcode. You enter it again after 12 hours.") }}
      </p>
      <ProblemNote :error="refused" />
      <label for="passcode">{{ t("Passcode") }}</label>
      <el-input id="passcode" v-model="passcode" type="password" show-password autocomplete="off" autofocus />
      <el-button type="primary" native-type="submit" :loading="busy" :disabled="!passcode">{{ t("Open") }}</el-button>
    </form>
    <ProblemNote v-else :error="error" />
    <template v-if="dashboard && !error">
      <header class="page-head">
        <div>
          <p class="crumbs">{{ t("Shared by {ownerName} to be looked at", { ownerName: dashboard.ownerName }) }}</p>
          <h1>{{ dashboard.name }}</h1>
        </div>
        <span class="brand"><img src="/icon.svg" alt="" width="28" height="28" /> Open Pasture</span>
      </header>
      <DashboardGrid :panels="dashboard.panels" :points-of="pointsOf" :limits="limits" open />
    </template>
  </main>
</template>

<style scoped>
.wide {
  max-width: 1800px;
}
.passcode {
  max-width: 26rem;
  margin: 10vh auto 0;
}
.passcode p {
  margin: 0;
}
.passcode .el-button {
  align-self: flex-start;
}
.brand {
  display: flex;
  align-items: center;
  gap: 0.5rem;
  color: var(--moss);
  font-weight: 640;
}
</style>
