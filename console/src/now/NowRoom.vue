<script setup lang="ts">
import { t } from "@/language";
import { api } from "@/api/http";
import { onChanged, onLive } from "@/api/live";
import { keptSince } from "@/api/offline";
import type { Device, Gateway, HeardGateway } from "@/api/types";
import AlertCards from "@/alerts/AlertCards.vue";
import { useAlerts } from "@/alerts/alerts";
import { age, every, now } from "@/look/clock";
import EmptyState from "@/look/EmptyState.vue";
import FenceMark from "@/look/FenceMark.vue";
import { useLoad } from "@/look/load";
import ProblemNote from "@/look/ProblemNote.vue";
import { byHeadroom, isStale } from "@/look/reading";
import PointRows from "@/points/PointRows.vue";
import { usePlaces } from "@/places/places";
import { usePoints } from "@/points/points";
import { useSession } from "@/shell/session";
import { computed, ref } from "vue";
import { sentence, silentByCause } from "./silence";

const SHOWN = 8;
const places = usePlaces();
const points = usePoints();
const alerts = useAlerts();
const session = useSession();
const all = ref(false);

const fleet = useLoad(async () => {
  const [devices, gateways, heard] = await Promise.all([
    api.get<Device[]>("devices"),
    api.get<Gateway[]>("gateways"),
    api.get<HeardGateway[]>("gateways/heard"),
  ]);
  return { devices, gateways, heard };
});
onLive("resync", fleet.load);
onChanged(["registry", "heard-gateways"], fleet.load);
onLive<Device>("device", (device) => {
  const known = fleet.data.value;
  const old = known?.devices.find((one) => one.id === device.id);
  if (known && (!old || old.state !== device.state)) {
    void fleet.load();
  }
});
// A device falls silent by nothing happening, so that nothing tells.
every(30, () => void fleet.load());

const sites = computed(() => places.places.filter((place) => place.kind === "site"));
const judged = computed(() => points.all.filter((point) => point.latest?.headroomPercent != null).sort(byHeadroom));
const silent = computed(() => silentByCause(fleet.data.value?.devices ?? [], fleet.data.value?.gateways ?? []));
const stale = computed(() => points.all.filter((point) => isStale(point, now.value)).length);
const outside = computed(() => judged.value.filter((point) => point.latest?.severity !== "normal").length);
/** What could not be loaded; while there is something, nothing is said to be well. */
const problem = computed(() => alerts.problem ?? points.problem ?? places.problem ?? fleet.error.value);
const complete = computed(
  () =>
    alerts.loaded &&
    points.loaded &&
    places.loaded &&
    fleet.data.value !== undefined &&
    !problem.value &&
    !keptSince.value,
);
const headline = computed(() =>
  sentence(
    complete.value,
    alerts.waiting.length,
    alerts.open.length,
    silent.value.flatMap((group) => group.devices).length,
    stale.value,
    outside.value,
  ),
);
</script>

<template>
  <div class="page">
    <header>
      <h1>{{ headline }}</h1>
    </header>
    <p v-if="problem" class="soft" role="status">
      {{ t("Not everything could be loaded; what is missing is tried again every few seconds.") }}
    </p>
    <ProblemNote :error="problem" />

    <section v-if="alerts.open.length" class="stack" :aria-label="t('Open alerts')">
      <AlertCards :alerts="alerts.open" />
    </section>

    <section v-if="places.loaded && !sites.length" class="sheet">
      <EmptyState :title="t('Nothing here yet')">
        <template v-if="session.owner">
          {{ t("Begin with a site, then register your gateway and bring in a device.") }}
          <p>
            <RouterLink to="/places">{{ t("Make the first site") }}</RouterLink>
          </p>
        </template>
        <template v-else>{{ t("Nobody has given you a right on a site yet. Ask who invited you.") }}</template>
      </EmptyState>
    </section>

    <section v-if="sites.length" class="sites" :aria-label="t('Sites')">
      <RouterLink v-for="site in sites" :key="site.id" class="sheet site" :to="`/places/${site.id}`">
        <strong>{{ site.name }}</strong>
        <FenceMark :severity="points.severities.get(site.id) ?? null" />
        <span class="soft small"
          >{{ t("{n} point | {n} points", { n: site.points })
          }}{{ site.openAlerts ? ", " + t("{n} open alert | {n} open alerts", { n: site.openAlerts }) : "" }}</span
        >
      </RouterLink>
    </section>

    <section v-if="judged.length" class="sheet">
      <h2>{{ t("Least headroom") }}</h2>
      <PointRows :points="all ? judged : judged.slice(0, SHOWN)" />
      <el-button v-if="judged.length > SHOWN" link type="primary" @click="all = !all">
        {{ all ? t("Only the first") : t("All {judged} points with limits", { judged: judged.length }) }}
      </el-button>
    </section>

    <section v-if="silent.length || fleet.data.value?.heard.length" class="sheet">
      <h2>{{ t("Silent") }}</h2>
      <div v-for="group in silent" :key="group.cause" class="group">
        <h3>{{ group.cause }}</h3>
        <p class="soft small">{{ group.todo }}</p>
        <ul>
          <li v-for="device in group.devices" :key="device.id">
            <RouterLink :to="`/fleet/devices/${device.id}`">{{ device.name }}</RouterLink>
            <span class="soft">
              · {{ device.path.at(-1) }} ·
              {{ device.lastHeard ? t("heard {age}", { age: age(device.lastHeard, now) }) : t("never heard") }}
              <template v-if="device.problem"> · {{ device.problem }}</template>
            </span>
          </li>
        </ul>
      </div>
      <div v-for="one in fleet.data.value?.heard" :key="one.eui" class="group">
        <h3>{{ t("A gateway that nobody registered is heard") }}</h3>
        <p class="soft small">
          <span class="mono">{{ one.eui }}</span>, {{ age(one.lastHeard, now) }}.
          <RouterLink to="/fleet/gateways">{{ t("Look, and admit it") }}</RouterLink>
        </p>
      </div>
    </section>
  </div>
</template>

<style scoped>
.sites {
  display: grid;
  gap: 0.75rem;
  grid-template-columns: repeat(auto-fill, minmax(250px, 1fr));
}
.site {
  display: grid;
  grid-template-columns: 1fr auto;
  gap: 0.2rem 0.75rem;
  color: inherit;
  text-decoration: none;
}
.site:hover strong {
  text-decoration: underline;
}
.group + .group {
  border-top: 1px solid var(--line);
  margin-top: 0.75rem;
  padding-top: 0.75rem;
}
.group p,
.group ul {
  margin: 0.15rem 0;
}
ul {
  padding-left: 1.1rem;
}
</style>
