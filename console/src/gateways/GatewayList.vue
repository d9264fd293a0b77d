<script setup lang="ts">
import { t } from "@/language";
import { api } from "@/api/http";
import { onChanged, onLive } from "@/api/live";
import type { Gateway, HeardGateway, Inlet } from "@/api/types";
import { age, every, moment, now } from "@/look/clock";
import EmptyState from "@/look/EmptyState.vue";
import { useLoad } from "@/look/load";
import ProblemNote from "@/look/ProblemNote.vue";
import { usePlaces } from "@/places/places";
import { computed, ref } from "vue";
import GatewayForm from "./GatewayForm.vue";
import StateWord from "@/devices/StateWord.vue";

const places = usePlaces();
const adding = ref<{ eui: string }>();
const { data, error, load } = useLoad(async () => {
  const [gateways, heard, inlets] = await Promise.all([
    api.get<Gateway[]>("gateways"),
    api.get<HeardGateway[]>("gateways/heard"),
    api.get<Inlet[]>("inlets"),
  ]);
  return { gateways, heard, inlets: inlets.filter((inlet) => inlet.id === null) };
});
onLive<Gateway>("gateway", (gateway) => {
  if (data.value) {
    data.value = { ...data.value, gateways: data.value.gateways.map((one) => (one.id === gateway.id ? gateway : one)) };
  }
});
onChanged(["registry", "heard-gateways"], load);
every(15, () => void load());
const mayAdd = computed(() => places.editable.some((place) => place.kind === "site"));
</script>

<template>
  <div class="stack">
    <ProblemNote :error="error" />
    <section v-if="data?.heard.length" class="sheet heard">
      <h2>{{ t("Unregistered gateways") }}</h2>
      <p class="soft small">
        {{ t("These speak to this service, but nobody registered them; their frames are not taken.") }}
      </p>
      <div v-for="one in data.heard" :key="one.eui" class="row">
        <span class="mono">{{ one.eui }}</span>
        <span class="soft">{{ t("{n} frame | {n} frames", { n: one.frames }) }}, {{ age(one.lastHeard, now) }}</span>
        <el-button v-if="mayAdd" type="primary" @click="adding = { eui: one.eui }">{{ t("Register") }}</el-button>
      </div>
    </section>

    <section class="sheet">
      <div class="sheet-head">
        <h2>{{ t("Gateways") }}</h2>
        <el-button v-if="mayAdd" @click="adding = { eui: '' }">{{ t("Register a gateway") }}</el-button>
      </div>
      <table v-if="data?.gateways.length" class="rows cards">
        <thead>
          <tr>
            <th>{{ t("Gateway") }}</th>
            <th>{{ t("State") }}</th>
            <th>{{ t("Heard") }}</th>
            <th>{{ t("Newest frame") }}</th>
            <th class="num">{{ t("Frames") }}</th>
            <th>{{ t("Carries") }}</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="gateway in data.gateways" :key="gateway.id">
            <td>
              <RouterLink :to="`/fleet/gateways/${gateway.id}`">{{ gateway.name }}</RouterLink>
              <div class="soft small">
                {{ gateway.siteName }} · <span class="mono">{{ gateway.eui }}</span>
              </div>
            </td>
            <td>
              <StateWord :state="gateway.state" />
              <div v-if="gateway.state === 'online' && !gateway.canTransmit" class="soft small">
                {{ t("cannot answer devices: it does not ask for downlinks") }}
              </div>
            </td>
            <td>{{ age(gateway.lastHeard, now) }}</td>
            <td class="small">
              <template v-if="gateway.rssiDbm !== null">{{
                t("{rssiDbm} dBm, SNR {snrDb} dB", { rssiDbm: gateway.rssiDbm, snrDb: gateway.snrDb })
              }}</template>
            </td>
            <td class="num">{{ gateway.frames }}</td>
            <td class="small wide">{{ gateway.devices.join(", ") }}</td>
          </tr>
        </tbody>
      </table>
      <EmptyState v-else-if="data" :title="t('No gateways yet')">
        {{
          t("Point your gateway's packet forwarder at this machine, {address}. It is listed here as unregistered.", {
            address: data.inlets[0]?.address ?? t("UDP port 1700"),
          })
        }}
      </EmptyState>
    </section>

    <section v-for="inlet in data?.inlets" :key="inlet.name" class="sheet">
      <div class="sheet-head">
        <h2>{{ t("Port: {name}", { name: inlet.name }) }}</h2>
        <StateWord :state="inlet.state" />
      </div>
      <p class="soft">
        {{
          t("{address}. {reason} {received} messages came in, {refused} things in them could not be used.", {
            address: inlet.address,
            reason: inlet.reason,
            received: inlet.received,
            refused: inlet.refused,
          })
        }}
      </p>
      <details v-if="inlet.refusals.length">
        <summary>{{ t("What could not be used, newest first") }}</summary>
        <p v-for="(refusal, i) in inlet.refusals.slice(0, 20)" :key="i" class="small">
          <span class="soft">{{ moment(refusal.time) }} {{ refusal.sender }}</span> {{ refusal.reason }}
        </p>
      </details>
    </section>
    <GatewayForm v-if="adding" :eui="adding.eui" @close="((adding = undefined), load())" />
  </div>
</template>

<style scoped>
.heard {
  border-color: var(--heather);
}
.heard p {
  margin: 0 0 0.5rem;
}
details p {
  margin: 0.25rem 0;
}
</style>
