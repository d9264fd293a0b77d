<script setup lang="ts">
import { fixed } from "@/look/numbers";
import { t } from "@/language";
import { api } from "@/api/http";
import type { GatewayFacts } from "@/api/types";
import { useAction } from "@/look/act";
import { age, every, now } from "@/look/clock";
import { useLoad } from "@/look/load";
import ConfirmButton from "@/look/ConfirmButton.vue";
import ProblemNote from "@/look/ProblemNote.vue";
import ShownOnce from "@/look/ShownOnce.vue";
import { usePlaces } from "@/places/places";
import { computed, ref, watch } from "vue";
import { useRouter } from "vue-router";
import RuleForm from "@/alerts/RuleForm.vue";
import { usePoints } from "@/points/points";
import GatewayForm from "./GatewayForm.vue";
import StateWord from "@/devices/StateWord.vue";

/** The page of a gateway: whether it is there, how busy the air is around it, whom it hears. */
const { id } = defineProps<{ id: string }>();
const places = usePlaces();
const { data, error: problem, load } = useLoad(() => api.get<GatewayFacts>("gateways/" + id));
const { busy, error, run } = useAction();
const token = ref("");
const changing = ref(false);
const ruling = ref(false);
const points = usePoints();
const counting = computed(() => points.byId.get(data.value?.gateway.pointId ?? ""));
const router = useRouter();
watch(() => id, load);
every(15, () => void load());
const most = computed(() => Math.max(1, ...(data.value?.hours.map((hour) => hour.frames) ?? [])));
const mayEdit = computed(() => places.may("edit", data.value?.gateway.siteId ?? null));
const clock = (time: string) =>
  new Date(time).toLocaleTimeString(undefined, { hour: "2-digit", minute: "2-digit", hourCycle: "h23" });

async function remove() {
  if (await run(() => api.remove("gateways/" + id), t("{name} is removed.", { name: data.value?.gateway.name }))) {
    await router.push("/fleet/gateways");
  }
}

async function makeToken() {
  await run(async () => {
    token.value = (await api.post<{ token: string }>(`gateways/${id}/token`)).token;
    await load();
  });
}
</script>

<template>
  <div v-if="data" class="page">
    <header class="page-head">
      <div>
        <p class="crumbs">
          <RouterLink to="/fleet/gateways">{{ t("Gateways") }}</RouterLink> / {{ data.gateway.siteName }}
        </p>
        <h1>{{ data.gateway.name }}</h1>
        <p class="row">
          <StateWord :state="data.gateway.state" />
          <span class="soft">{{ t("last sign {age}", { age: age(data.gateway.lastHeard, now) }) }}</span>
          <span class="mono soft">{{ data.gateway.eui }}</span>
        </p>
        <p v-if="data.gateway.pointId" class="row">
          <RouterLink :to="`/points/${data.gateway.pointId}`">{{ t("Frames over time") }}</RouterLink>
          <el-button v-if="mayEdit" link type="primary" @click="ruling = true">{{
            t("Add a rule for silence")
          }}</el-button>
        </p>
      </div>
      <template v-if="mayEdit">
        <el-button @click="changing = true">{{ t("Change …") }}</el-button>
        <ConfirmButton
          :says="
            t('{name} is taken out. What it heard stays; nothing more is taken from it until it is registered again.', {
              name: data.gateway.name,
            })
          "
          @confirm="remove"
          >{{ t("Remove …") }}</ConfirmButton
        >
      </template>
    </header>
    <ProblemNote :error="error" />
    <RuleForm
      v-if="ruling && counting"
      :point="counting"
      :place-id="counting.placeId"
      silence
      @close="ruling = false"
    />
    <GatewayForm v-if="changing" :gateway="data.gateway" @close="((changing = false), load())" />
    <p v-if="data.gateway.state === 'online' && !data.gateway.canTransmit" class="sheet warn">
      {{ t("It hears, but cannot send: it does not ask for what is to be sent. Devices cannot join by it.") }}
    </p>

    <section class="sheet">
      <h2>{{ t("Frames by hour") }}</h2>
      <div v-if="data.hours.length" class="bars" role="img" :aria-label="t('Frames by hour, {most} at most', { most })">
        <div v-for="hour in data.hours" :key="hour.start" class="bar">
          <span class="small">{{ hour.frames }}</span>
          <div :style="{ height: (80 * hour.frames) / most + 'px' }"></div>
          <span class="soft small">{{ clock(hour.start) }}</span>
        </div>
      </div>
      <p v-else class="soft">{{ t("It has heard nothing since the service started.") }}</p>
      <p v-if="data.hours.length" class="soft small">
        {{
          t(
            "Since the service started, the last 24 hours at most. Mean signal of the newest hour: {meanRssiDbm} dBm, SNR {meanSnrDb} dB.",
            {
              meanRssiDbm: fixed(data.hours.at(-1)?.meanRssiDbm ?? 0, 0),
              meanSnrDb: fixed(data.hours.at(-1)?.meanSnrDb ?? 0, 1),
            },
          )
        }}
      </p>
    </section>

    <section class="sheet">
      <h2>{{ t("How busy the air is") }}</h2>
      <table v-if="data.channels.length" class="rows">
        <thead>
          <tr>
            <th>{{ t("Channel") }}</th>
            <th class="num">{{ t("Frames this hour") }}</th>
            <th class="num">{{ t("Occupied") }}</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="channel in data.channels" :key="channel.megahertz">
            <td>{{ t("{megahertz} MHz", { megahertz: fixed(channel.megahertz, 3) }) }}</td>
            <td class="num">{{ channel.frames }}</td>
            <td class="num" :class="{ warn: channel.percent > 10 }">{{ fixed(channel.percent, 2) }} %</td>
          </tr>
        </tbody>
      </table>
      <p>
        {{ t("Of its own ration of air it has used") }} <strong>{{ fixed(data.dutyUsedPercent, 1) }} %</strong>
        {{ t("in the last hour.") }}
      </p>
    </section>

    <section class="sheet">
      <h2>{{ t("Hears") }}</h2>
      <table v-if="data.devices.length" class="rows">
        <tbody>
          <tr v-for="device in data.devices" :key="device.id">
            <td>
              <RouterLink :to="`/fleet/devices/${device.id}`">{{ device.name }}</RouterLink>
            </td>
            <td><StateWord :state="device.state" /></td>
            <td class="soft small">{{ data.onlyHere.includes(device.name) ? t("no other gateway hears it") : "" }}</td>
          </tr>
        </tbody>
      </table>
      <p v-else class="soft">{{ t("No registered device yet.") }}</p>
    </section>

    <section v-if="mayEdit" class="sheet">
      <h2>{{ t("Token for its station") }}</h2>
      <p class="soft">
        {{
          data.hasToken
            ? t("A station that connects as this gateway has to give its token. A new one makes the old one useless.")
            : t("A station by WebSocket is admitted by its EUI alone. With a token nobody else can speak for it.")
        }}
      </p>
      <ShownOnce v-if="token" :value="token" :label="t('The token, shown only now: enter it in the station')" />
      <el-button v-else :loading="busy" @click="makeToken">{{
        data.hasToken ? t("Make a new token") : t("Make a token")
      }}</el-button>
    </section>
  </div>
  <div v-else-if="problem" class="page">
    <ProblemNote :error="problem" />
    <p>
      <RouterLink to="/fleet/gateways">{{ t("All gateways") }}</RouterLink>
    </p>
  </div>
</template>

<style scoped>
.bars {
  display: flex;
  align-items: flex-end;
  gap: 4px;
  overflow-x: auto;
}
.bar {
  flex: 0 0 46px;
  text-align: center;
}
.bar div {
  background: var(--moss);
  min-height: 2px;
  border-radius: 3px 3px 0 0;
}
.warn {
  color: var(--warning);
}
</style>
